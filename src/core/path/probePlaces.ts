import type { CircuitModel } from '../circuit/model';
import type { Test } from '../circuit/schema';

/** What a pin on a picture stands for, when that is a point and no part, begins with this. */
export const POINT_PIN = '@';

/** A picture of the machine, or a sheet of its drawings, with pins on it: places as shares of width and height. */
export interface PinnedSheet {
  id: string;
  name: string;
  photo: string;
  pins: readonly { part: string; x: number; y: number }[];
}

/** Where one lead goes, a clamp closes, or a hand or an eye is. */
export interface ProbeMark {
  lead: 'plus' | 'minus' | 'one';
  x: number;
  y: number;
  /** The pin that it is taken from; a part's where its point has none of its own. */
  pin: string;
}

export interface ProbePlace {
  sheet: PinnedSheet;
  marks: ProbeMark[];
}

/** A point's own pin is worth more than that of a part that ends in it. */
const OWN = 3;
const OF_A_PART = 2;

/** The picture that shows most of where a test is taken; null where none shows anything of it. */
export function probePlace(
  model: CircuitModel,
  test: Test,
  sheets: readonly PinnedSheet[],
): ProbePlace | null {
  const wanted = wantedBy(model, test);
  let best: { worth: number; place: ProbePlace } | null = null;
  for (const sheet of sheets) {
    const marks: ProbeMark[] = [];
    let worth = 0;
    for (const { lead, pins } of wanted) {
      const at = pins.findIndex((name) => sheet.pins.some(({ part }) => part === name));
      if (at < 0) continue;
      const pin = pins[at]!;
      const { x, y } = sheet.pins.find(({ part }) => part === pin)!;
      marks.push({ lead, x, y, pin });
      worth += at === 0 ? OWN : OF_A_PART;
    }
    if (worth > 0 && (!best || worth > best.worth)) best = { worth, place: { sheet, marks } };
  }
  return best?.place ?? null;
}

/** Pins that show each place of a test, the best one first. */
function wantedBy({ compiled }: CircuitModel, test: Test): { lead: ProbeMark['lead']; pins: string[] }[] {
  const ofNode = (name: string) => {
    const node = compiled.nodeIndex.get(name);
    // The part with the fewest ends says best which of them is meant.
    const parts = compiled.parts
      .filter(({ nodes }) => node !== undefined && nodes.includes(node) && node !== compiled.frame)
      .sort((a, b) => a.nodes.length - b.nodes.length)
      .map(({ part }) => part.ref);
    return [`${POINT_PIN}${name}`, ...parts];
  };
  if ('from' in test)
    return [
      { lead: 'plus', pins: ofNode(test.from) },
      { lead: 'minus', pins: ofNode(test.to) },
    ];
  if ('at' in test) return [{ lead: 'one', pins: ofNode(test.at) }];
  return [{ lead: 'one', pins: ['through' in test ? test.through : test.part] }];
}

/** The stretch of a picture that shows its marks: its middle and how many times it is enlarged, as shares of the picture. */
export function closeUp(marks: readonly { x: number; y: number }[]): { x: number; y: number; zoom: number } {
  const [xs, ys] = [marks.map(({ x }) => x), marks.map(({ y }) => y)];
  const middle = (of: readonly number[]) => (Math.min(...of) + Math.max(...of)) / 2;
  const spread = (of: readonly number[]) => Math.max(...of) - Math.min(...of);
  const zoom = Math.min(MOST_ZOOM, Math.max(1, FILLS / Math.max(spread(xs), spread(ys), 1e-6)));
  // What is enlarged ends at the picture's edges.
  const held = (at: number) => Math.min(Math.max(at, 0.5 / zoom), 1 - 0.5 / zoom);
  return { x: held(middle(xs)), y: held(middle(ys)), zoom };
}
/** Marks fill this much of what is shown; a single one is not enlarged beyond what a picture bears. */
const FILLS = 0.5;
const MOST_ZOOM = 3;
