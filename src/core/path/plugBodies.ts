import type { CompiledPart } from '../circuit/compile';
import type { PathLayout, RunBox } from './layoutPath';
import { runSlots } from './runSlots';
import type { Standing } from './standing';

interface Place {
  x: number;
  y: number;
}

/** A connector drawn as one body across its pins. Positions in pixels of the figure. */
export interface PlugBody {
  connector: string;
  /** Its pins on the run shown. */
  pins: number[];
  /** Corners of the housing; an open one is the half of a plug whose other pins are not near. */
  outline: Place[];
  open: boolean;
  /** Its pins on lanes above the run, where they are marked. */
  above: (Place & { part: number; lane: string })[];
}

/** Half the height of a housing: clear of the names under a run and the counts over it. */
const HALF = 19;
/** Half the width of a housing that stands across lanes. */
const NARROW = 12;
/** Of a half housing, how far it reaches over the run. */
const LIP = 10;
/** What stands right of the fall: the loops of a coil, or the diode across it. */
const BESIDE_FALL = { plain: 20, across: 49 };
/** Runs that may stand between a pin and the load it belongs to. */
const NEAR = 1;
/** A fall lower than this leaves no room inside for its steps: the housing is one box. */
const LEAST_FALL = 3 * HALF;

/**
 * Bodies of the connectors whose pins are on the path shown. A plug with a pin each side of the load is drawn around both,
 * one that also carries lanes above is drawn across them, and of any other the halves are drawn where its pins are.
 */
export function plugBodies(
  parts: readonly CompiledPart[],
  layout: PathLayout,
  standings: readonly Standing[],
): PlugBody[] {
  const many = new Map<string, number>();
  for (const { part } of parts)
    if (part.kind === 'pin') many.set(part.connector, (many.get(part.connector) ?? 0) + 1);
  const found = new Map<string, Pin[]>();
  layout.runs.forEach((run, at) => {
    const { part, index } = parts[run.parts[0]!]!;
    if (run.folded || part.kind !== 'pin' || many.get(part.connector)! < 2) return;
    const { symbolX } = runSlots(run, part.kind, standings[index]!);
    const pin = { part: index, at, fed: run.x2 <= layout.fall.x, x: symbolX, y: (run.y1 + run.y2) / 2 };
    found.set(part.connector, [...(found.get(part.connector) ?? []), pin]);
  });
  return [...found].flatMap(([connector, pins]) => {
    const around = bodyAround(layout, pins);
    if (around) return [{ connector, pins: around.pins, outline: around.outline, open: false, above: [] }];
    // A pin above is drawn once, over the first pin of the run that it can stand over.
    const taken = new Set<number>();
    return pins.map((pin): PlugBody => {
      const above = pinsAbove(parts, layout, connector, pin, taken);
      for (const { part } of above) taken.add(part);
      const own = { connector, pins: [pin.part], above };
      if (above.length === 0) return { ...own, outline: half(pin), open: true };
      const top = Math.min(...above.map(({ y }) => y)) - NARROW;
      return {
        ...own,
        outline: box(pin.x - NARROW, top, pin.x + NARROW, pin.y + HALF),
        open: false,
      };
    });
  });
}

interface Pin extends Place {
  part: number;
  /** Its run, in order. */
  at: number;
  /** Before the load. */
  fed: boolean;
}

/** Around the load and the pins next to it, following the path. */
function bodyAround({ runs, fall }: PathLayout, pins: readonly Pin[]) {
  const fedRuns = runs.filter(({ x2 }: RunBox) => x2 <= fall.x).length;
  const before = pins.findLast(({ fed, at }) => fed && fedRuns - 1 - at <= NEAR);
  const after = pins.find(({ fed, at }) => !fed && at - fedRuns <= NEAR);
  if (!before || !after || pins.length > 2) return null;
  const [high, low] = [before.y, after.y];
  const right = fall.x + (fall.across.length > 0 ? BESIDE_FALL.across : BESIDE_FALL.plain);
  const left = fall.x - BESIDE_FALL.plain;
  const outline =
    low - high < LEAST_FALL || right >= after.x || left <= before.x
      ? box(before.x, Math.min(high, low) - HALF, after.x, Math.max(high, low) + HALF)
      : [
          { x: before.x, y: high - HALF },
          { x: right, y: high - HALF },
          { x: right, y: low - HALF },
          { x: after.x, y: low - HALF },
          { x: after.x, y: low + HALF },
          { x: left, y: low + HALF },
          { x: left, y: high + HALF },
          { x: before.x, y: high + HALF },
        ];
  return { pins: [before.part, after.part], outline };
}

/** Pins of the same connector on the lanes above, as long as no lane between is without one. */
function pinsAbove(
  parts: readonly CompiledPart[],
  { branches }: PathLayout,
  connector: string,
  { x }: Pin,
  taken: ReadonlySet<number>,
): PlugBody['above'] {
  const above: PlugBody['above'] = [];
  for (const branch of branches.toSorted((a, b) => b.y - a.y)) {
    const part = branch.parts.find((at) => {
      const own = parts[at]!.part;
      return own.kind === 'pin' && own.connector === connector && !taken.has(at);
    });
    const [from, to] = [Math.min(branch.x1, branch.x2), Math.max(branch.x1, branch.x2)];
    if (part === undefined || x - NARROW < from || x + NARROW > to) break;
    above.push({ part, lane: branch.lane.id, x, y: branch.y });
  }
  return above;
}

function half({ x, y, fed }: Pin): Place[] {
  const lip = fed ? x + LIP : x - LIP;
  return [
    { x: lip, y: y - HALF },
    { x, y: y - HALF },
    { x, y: y + HALF },
    { x: lip, y: y + HALF },
  ];
}

function box(x1: number, y1: number, x2: number, y2: number): Place[] {
  return [
    { x: x1, y: y1 },
    { x: x2, y: y1 },
    { x: x2, y: y2 },
    { x: x1, y: y2 },
  ];
}
