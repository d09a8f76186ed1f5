import type { Edit } from '../../circuit/edits';
import { oncePerModel, type CircuitModel } from '../../circuit/model';
import type { Setup, Test } from '../../circuit/schema';
import { mayTake } from '../../diagnosis/candidateTests';
import { listFaults } from '../../diagnosis/faults';
import { bindTest, predict } from '../../diagnosis/predict';
import { fewSeverities } from '../../diagnosis/severity';

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

/**
 * Parts that what reads bad may lie in: one of their ways has every end on it, as far as it was on for the reading. Or a way that should be open
 * has one end on it, and closed it would show what was read: that is no leak then.
 */
export function partsLeaking(model: CircuitModel, places: Ends, bad: readonly BadReading[]): string[] {
  const { compiled } = model;
  const isOff = (ref: string, node: number) =>
    bad.every(({ test: { setup } }) =>
      setup.lifted?.some((end) => end.part === ref && end.node === compiled.nodeNames[node]),
    );
  return compiled.parts
    .filter(({ part, branches }) =>
      branches.some(({ a, b }) => {
        const ends = [a, b].filter((node) => node !== compiled.frame);
        const there = ends.filter((node) => places.has(endKey(part.ref, node)));
        if (there.length === 0) return false;
        return (
          ends.every((node) => there.includes(node) || isOff(part.ref, node)) || leadsOn(model, part.ref, bad)
        );
      }),
    )
    .map(({ part }) => part.ref);
}

/** A reading to the frame that is bad. */
export interface BadReading {
  test: InsulationTest;
  ohms: number;
}

/** Two readings within this factor are the same one, and so are two of less than this many ohms: leads and contacts make as much. */
const SAME_FACTOR = 2;
const NEXT_TO_NOTHING_OHMS = 5;

/** Whether what reads bad is what it shows with a part closed that should be open: welded, stuck, bridged, or shorted through. */
function leadsOn(model: CircuitModel, ref: string, bad: readonly BadReading[]): boolean {
  const bounds = bad.map(({ test, ohms }) => ({ bound: bindTest(model, test), ohms }));
  return throughFaults(model)
    .filter((one) => one.ref === ref)
    .some(({ edits }) =>
      bounds.every(({ bound, ohms }) => {
        const shown = predict(bound, edits);
        if (shown.type !== 'number') return false;
        const [less, more] = [Math.min(shown.mean, ohms), Math.max(shown.mean, ohms)];
        return more < NEXT_TO_NOTHING_OHMS || more <= SAME_FACTOR * less;
      }),
    );
}

/** What may be wrong with each part but a leak to the frame. */
const throughFaults = oncePerModel((model): readonly { ref: string; edits: readonly Edit[] }[] =>
  listFaults(model).flatMap(({ ref, severity, variants }) =>
    variants
      .flatMap(({ edits }) => fewSeverities(severity).map((size) => edits(size)))
      .filter((edits) => edits.every(({ type }) => type !== 'leak'))
      .map((edits) => ({ ref, edits })),
  ),
);

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
