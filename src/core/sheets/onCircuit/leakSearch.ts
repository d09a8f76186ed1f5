import type { CircuitModel } from '../../circuit/model';
import type { Setup, Test } from '../../circuit/schema';
import { mayTake } from '../../diagnosis/candidateTests';

export type InsulationTest = Extract<Test, { kind: 'insulation' }>;

/** What was read of one conductor to the frame. */
export interface LeakReading {
  test: InsulationTest;
  verdict: string | null;
}

/** Ends of parts, each by its part and node: what is lifted off a node is an end of its own. */
export type Ends = ReadonlySet<string>;

/** Nodes nearer than this hang on one conductor, in the set-up that it is read in, ohms. */
const ONE_CONDUCTOR_OHMS = 2e3;

const endKey = (part: string, node: number) => `${part}\n${node}`;

/** Ends that are read with a point: all that still hangs on it in this set-up. */
function hangsOn(model: CircuitModel, { lifted = [] }: Setup, reached: (node: number) => boolean): Ends {
  const { compiled } = model;
  const off = new Set(lifted.map(({ part, node }) => endKey(part, compiled.nodeIndex.get(node)!)));
  return new Set(
    compiled.parts.flatMap(({ part, nodes }) =>
      nodes
        .filter((node) => node !== compiled.frame && reached(node))
        .map((node) => endKey(part.ref, node))
        .filter((end) => !off.has(end)),
    ),
  );
}

function endsRead(model: CircuitModel, test: InsulationTest): Ends {
  const { compiled } = model;
  const from = compiled.nodeIndex.get(farPoint(test, compiled.nodeNames[compiled.frame]!))!;
  const { changed } = model.situation(test.setup).solve({ mode: 'ohms' });
  return hangsOn(
    model,
    test.setup,
    (node) => node === from || changed.pairOhms(from, node) < ONE_CONDUCTOR_OHMS,
  );
}

/**
 * Ends that one leak may lie at: on all that was read bad, and on nothing that was read good. Empty where nothing was read bad, or no one
 * place explains it all.
 */
export function leakPlaces(model: CircuitModel, read: readonly LeakReading[]): Ends {
  const ends = (wanted: string) =>
    read.filter(({ verdict }) => verdict === wanted).map(({ test }) => endsRead(model, test));
  const [first, ...bad] = ends('bad');
  if (!first) return new Set();
  const good = ends('good');
  return new Set(
    [...first].filter((end) => bad.every((one) => one.has(end)) && good.every((one) => !one.has(end))),
  );
}

/** The end of a reading to the frame that is not the frame. */
export function farPoint({ from, to }: InsulationTest, frame: string): string {
  return from === frame ? to : from;
}

/** Parts that a leak may lie in: with every end that was still on for what read bad. */
export function partsLeaking(
  { compiled }: CircuitModel,
  places: Ends,
  bad: readonly InsulationTest[],
): string[] {
  const isOff = (ref: string, node: number) =>
    bad.every(({ setup }) =>
      setup.lifted?.some((end) => end.part === ref && end.node === compiled.nodeNames[node]),
    );
  return compiled.parts
    .filter(({ part, nodes }) => {
      const ends = nodes.filter((node) => node !== compiled.frame);
      const there = ends.filter((node) => places.has(endKey(part.ref, node)));
      return there.length > 0 && ends.every((node) => there.includes(node) || isOff(part.ref, node));
    })
    .map(({ part }) => part.ref);
}

/** A plug taken off in the middle of what leaks, and one side of it read. */
export interface LeakCut {
  connector: string;
  test: InsulationTest;
}

/** The plug that best halves where a leak may lie; null where none stands in it. `base` is a reading that saw the whole of it. */
export function nextCut(model: CircuitModel, places: Ends, base: InsulationTest): LeakCut | null {
  const { compiled } = model;
  const frame = compiled.nodeNames[compiled.frame]!;
  const cuts = compiled.parts.flatMap(({ part, nodes }) => {
    if (part.kind !== 'pin' || base.setup.unplugged?.includes(part.connector)) return [];
    if (!nodes.every((node) => places.has(endKey(part.ref, node)))) return [];
    const setup: Setup = { ...base.setup, unplugged: [...(base.setup.unplugged ?? []), part.connector] };
    return nodes.flatMap((node) => {
      const test = mayTake(model, { ...base, from: compiled.nodeNames[node]!, to: frame, setup });
      if (test?.kind !== 'insulation') return [];
      const side = [...endsRead(model, test)].filter((end) => places.has(end)).length;
      return side === places.size
        ? []
        : [{ connector: part.connector, test, off: Math.abs(side / places.size - 0.5) }];
    });
  });
  const least = Math.min(...cuts.map(({ off }) => off));
  return cuts.find(({ off }) => off === least) ?? null;
}
