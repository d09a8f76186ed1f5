import type { CircuitModel } from '../circuit/model';
import type { Lane, Lanes, Step } from './lanes';
import type { Standing } from './standing';

/** Positions of the drawn path, in pixels of the figure. Nothing here is placed by hand for one circuit. */
export interface PathLayout {
  width: number;
  height: number;
  lane: Lane;
  /** Height of the supply and of 0 V, or of the atmosphere. */
  supplyY: number;
  floorY: number;
  /** Volts, or kPa on a fluid lane. */
  supplyVolts: number;
  points: PointBox[];
  runs: RunBox[];
  fall: FallBox;
  branches: BranchBox[];
  /** Lanes that there is no room for: reached by name. */
  others: Lane[];
}

export interface PointBox {
  node: number;
  /** What stands in its circle. */
  label: string;
  x: number;
  y: number;
  expectedVolts: number;
  /** Parts that hang on it and lead nowhere else. */
  hangs: number[];
}

/** One part drawn on a level stretch, or several spared ones closed to one line. */
export interface RunBox {
  parts: number[];
  steps: Step[];
  /** Another piece of the same part stands earlier on the lane: its turns are wound there. */
  again: boolean;
  x1: number;
  x2: number;
  y1: number;
  y2: number;
  folded: boolean;
}

/** The load: drawn as the fall itself. */
export interface FallBox {
  part: number;
  x: number;
  y1: number;
  y2: number;
  across: number[];
  /** Points at its two ends. */
  high: number;
  low: number;
}

/** Another load's lane, drawn flat and quiet over the run, leaving and joining it where they share a node. */
export interface BranchBox {
  lane: Lane;
  /** Parts that are not on the run itself. */
  parts: number[];
  y: number;
  x1: number;
  x2: number;
  fork: { x: number; y: number } | null;
  join: { x: number; y: number } | null;
}

export interface LayoutOptions {
  width: number;
  standings: readonly Standing[];
  /** Nodes the present test asks for: never folded away. */
  asked: readonly number[];
  /** Drawn lower, where what stands below it needs the room. */
  low?: boolean;
}

const FIGURE = { height: 340, left: 92, right: 84, supplyY: 130, floorY: 281 };
/** Lower: the fall is shorter, and without lanes above the run their room is given up too. */
const LOW = { fall: 116, below: 57, above: { lanes: 122, none: 92 } };
/** Widths of a run by how much it matters now: spared, usual, most doubt. */
const WIDTH = { closed: 94, usual: 118, open: 176, fall: 136, folded: 132 };
const LEAST_SCALE = 0.68;
/** A short lane is drawn wider, but not so wide that it falls apart. */
const MOST_STRETCH = 1.7;
const BRANCH_Y = 22;
const BRANCH_STEP = 31;
const MOST_BRANCHES = 2;
/** A lane that leaves or joins at a point stops at its circle. */
export const POINT_RADIUS = 15;

/** Lays the path out: supply to return along `lane` at the height of its expected volts, other lanes above it. */
export function layoutPath(
  model: CircuitModel,
  lanes: Lanes,
  lane: Lane,
  options: LayoutOptions,
): PathLayout {
  const { standings, asked } = options;
  const world = model.situation(lane.setup).solve({ mode: 'live' });
  // Pressures stand over the air around, also where a line ends in another one that is under pressure.
  const foot = lane.medium === 'fluid' ? model.compiled.atmosphere : (lane.back.at(-1)?.to ?? lane.load.to);
  const voltsOf = (node: number) => {
    const volts = world.changed.pairVolts(node, foot);
    return Number.isNaN(volts) ? 0 : volts;
  };
  // A vacuum hangs from its supply as volts do: everything is a share of what the lane begins with.
  const first = voltsOf(lane.feed[0]?.from ?? lane.load.from);
  const supplyVolts = Math.abs(first) > 0.001 ? first : 0.001;
  const { height, supplyY, floorY } = heights(
    options.low === true && lane.feed.length + lane.back.length > 0,
    lanes,
  );
  const heightOf = (volts: number) =>
    floorY - Math.min(Math.max(volts / supplyVolts, -0.1), 1.1) * (floorY - supplyY);

  const most = Math.max(0, ...[...lane.feed, ...lane.back].map(({ part }) => standings[part]!.share));
  const widthOf = ({ part }: Step) => {
    const { state, share } = standings[part]!;
    if (state === 'spared') return WIDTH.closed;
    return share === most && share > 0.2 ? WIDTH.open : WIDTH.usual;
  };
  let feed: Step[][] = lane.feed.map((step) => [step]);
  let back: Step[][] = lane.back.map((step) => [step]);
  const available = options.width - FIGURE.left - FIGURE.right;
  const wanted = () =>
    [...feed, ...back].reduce(
      (sum, group) => sum + (group.length > 1 ? WIDTH.folded : widthOf(group[0]!)),
      WIDTH.fall,
    );
  const spared = (group: Step[]) =>
    group.every(({ part }) => standings[part]!.state === 'spared' || standings[part]!.state === 'held');
  while (wanted() * LEAST_SCALE > available) {
    const shorter = foldOnce(feed, spared, asked) ?? null;
    if (shorter) feed = shorter;
    else {
      const shorterBack = foldOnce(back, spared, asked);
      if (!shorterBack) break;
      back = shorterBack;
    }
  }
  const total = wanted();
  const scale = Math.max(available / total, LEAST_SCALE);
  const stretched = Math.min(scale, MOST_STRETCH);
  const width = Math.max(options.width, FIGURE.left + FIGURE.right + total * LEAST_SCALE);

  const points: PointBox[] = [];
  const runs: RunBox[] = [];
  let x = FIGURE.left;
  const point = (node: number) => {
    const volts = voltsOf(node);
    const hangs = lane.hangs.flatMap((one) => (one.node === node ? [one.part] : []));
    const label = lanes.labelOf.get(node) ?? '';
    points.push({ node, label, x, y: heightOf(volts), expectedVolts: volts, hangs });
  };
  const walk = (groups: Step[][]) => {
    for (const steps of groups) {
      const x1 = x;
      x += (steps.length > 1 ? WIDTH.folded : widthOf(steps[0]!)) * stretched;
      const [first, last] = [steps[0]!, steps.at(-1)!];
      runs.push({
        parts: steps.map(({ part }) => part),
        steps,
        again: runs.some(({ parts }) => parts.includes(first.part)),
        x1,
        x2: x,
        y1: heightOf(voltsOf(first.from)),
        y2: heightOf(voltsOf(last.to)),
        folded: steps.length > 1,
      });
      point(last.to);
    }
  };
  point(lane.feed[0]?.from ?? lane.load.from);
  walk(feed);
  const high = points.at(-1)!;
  x += WIDTH.fall * stretched;
  // The fall stands a little after the last fed point; the first return point follows it.
  point(lane.load.to);
  const low = points.at(-1)!;
  walk(back);
  const fall: FallBox = {
    part: lane.load.part,
    x: high.x + 0.3 * WIDTH.fall * stretched,
    y1: high.y,
    y2: low.y,
    across: lane.across,
    high: lane.load.from,
    low: lane.load.to,
  };
  return {
    width,
    height,
    lane,
    supplyY,
    floorY,
    supplyVolts,
    points,
    runs,
    fall,
    ...layBranches(standings, lanes, lane, points, runs),
  };
}

function heights(low: boolean, { lanes }: Lanes): Pick<typeof FIGURE, 'height' | 'supplyY' | 'floorY'> {
  if (!low) return FIGURE;
  const supplyY = lanes.length > 1 ? LOW.above.lanes : LOW.above.none;
  const floorY = supplyY + LOW.fall;
  return { height: floorY + LOW.below, supplyY, floorY };
}

/** Closes the longest stretch of cleared runs between points nobody asks for, or returns null when there is none. */
function foldOnce(
  groups: Step[][],
  cleared: (group: Step[]) => boolean,
  asked: readonly number[],
): Step[][] | null {
  let best = { at: -1, length: 0 };
  for (let at = 0; at < groups.length; at++) {
    let length = 0;
    while (at + length < groups.length && cleared(groups[at + length]!)) {
      const next = groups[at + length]!;
      length++;
      if (asked.includes(next.at(-1)!.to)) break;
    }
    if (length > best.length) best = { at, length };
  }
  if (best.length < 2) return null;
  const folded = groups.slice(best.at, best.at + best.length).flat();
  return [...groups.slice(0, best.at), folded, ...groups.slice(best.at + best.length)];
}

function layBranches(
  standings: readonly Standing[],
  lanes: Lanes,
  lane: Lane,
  points: readonly PointBox[],
  runs: readonly RunBox[],
): Pick<PathLayout, 'branches' | 'others'> {
  // By branch, not by part: a relay's contact may be on the run while its coil is a lane of its own.
  const own = new Set([...lane.feed, lane.load, ...lane.back].map(({ branch }) => branch));
  const ownParts = new Set([...lane.feed, lane.load, ...lane.back].map(({ part }) => part));
  // A node inside a folded stretch is reached at the stretch's middle, on the line: there is no circle to stop at.
  const place = (node: number): { x: number; y: number } | null => {
    const box = points.find((one) => one.node === node);
    if (box) return { x: box.x, y: box.y };
    const run = runs.find(({ steps }) => steps.some(({ from, to }) => from === node || to === node));
    return run ? { x: (run.x1 + run.x2) / 2, y: run.y1 + POINT_RADIUS } : null;
  };
  const found = lanes.lanes
    .filter(({ id }) => id !== lane.id)
    .map((other): Omit<BranchBox, 'y'> | null => {
      const steps = [...other.feed, other.load, ...other.back];
      const apart = steps.filter(({ branch }) => !own.has(branch));
      if (apart.length === 0) return null;
      const fork = place(apart[0]!.from);
      const join = place(apart.at(-1)!.to);
      return {
        lane: other,
        parts: apart.map(({ part }) => part).filter((part) => !ownParts.has(part)),
        x1: fork?.x ?? points[0]!.x,
        x2: join?.x ?? points.at(-1)!.x,
        fork,
        join,
      };
    })
    .filter((box) => box !== null);
  // Of many lanes the two with most doubt are drawn, in their own order; the rest go by name.
  const doubt = (box: Omit<BranchBox, 'y'>) =>
    box.parts.reduce((sum, part) => sum + standings[part]!.share, 0);
  const drawn = new Set(found.toSorted((a, b) => doubt(b) - doubt(a)).slice(0, MOST_BRANCHES));
  return {
    branches: found
      .filter((box) => drawn.has(box))
      .map((box, at) => ({ ...box, y: BRANCH_Y + BRANCH_STEP * at })),
    others: found.filter((box) => !drawn.has(box)).map((box) => box.lane),
  };
}
