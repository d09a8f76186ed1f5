import type { CircuitModel } from '@/core/circuit/model';
import type { ReadingKind, Test } from '@/core/circuit/schema';
import { SETUP_KEYS } from '@/core/circuit/setupKeys';
import { nodesOfTest, partOfTest } from '@/core/circuit/testPlace';
import { powerOff } from '@/core/diagnosis/setApart';
import { testerVolts } from '@/core/diagnosis/testerVolts';
import type { RankedTest } from '@/core/diagnosis/rankTests';
import type { Speaker } from '@/words/en/readings';

/** The chosen test lives in the page's address, so that a link or a reload lands on it again. */

/** What tells a test of each kind in an address, beside its set-up; `listed` ones are found among the tests offered. */
const TOLD_BY: Readonly<Record<ReadingKind, 'part' | 'points' | 'port' | 'listed'>> = {
  amps: 'part',
  fuse: 'part',
  click: 'part',
  trace: 'part',
  function: 'part',
  bit: 'listed',
  code: 'part',
  moves: 'part',
  gauge: 'part',
  volts: 'points',
  hertz: 'points',
  ohms: 'points',
  diode: 'points',
  insulation: 'points',
  pressure: 'port',
  flow: 'listed',
  hold: 'listed',
  changes: 'listed',
};
export const NO_TEST = { mode: null, red: null, black: null, set: null } as const;

/** The chosen test as it stands in the address: mode, points, and the set-up when it is not the usual one. */
export function testToParams({ model, lanes }: Speaker, test: Test): Record<string, string | null> {
  if (!('from' in test)) {
    const ref = partOfTest(test) ?? nodesOfTest(test).join();
    const black = toldApart(test);
    return { mode: test.kind, red: ref, black, set: JSON.stringify(test.setup) };
  }
  const point = (name: string) => String(lanes.pointOf.get(model.compiled.nodeIndex.get(name)!));
  return { mode: test.kind, red: point(test.from), black: point(test.to), set: JSON.stringify(test.setup) };
}

/** Which of several readings of one part it is. */
function toldApart(test: Test): string | null {
  if (test.kind === 'changes') return test.edge;
  return test.kind === 'bit' ? test.which : null;
}

export function chosenTest(
  params: Pick<URLSearchParams, 'get'>,
  { model, lanes }: Speaker,
  next: readonly RankedTest[],
): Test | null {
  const [mode, red, black, set] = ['mode', 'red', 'black', 'set'].map((key) => params.get(key));
  if (!mode || !red) return null;
  const found = next.find(
    ({ test }) =>
      !('from' in test) &&
      test.kind === mode &&
      (partOfTest(test) ?? nodesOfTest(test).join()) === red &&
      toldApart(test) === (black ?? null) &&
      JSON.stringify(test.setup) === set,
  );
  if (found) return found.test;
  const toldBy = Object.hasOwn(TOLD_BY, mode) ? TOLD_BY[mode as ReadingKind] : 'listed';
  if (toldBy === 'part' && model.compiled.partIndex.has(red)) {
    const setup = setupFromAddress(model, set);
    return (mode === 'amps' ? { kind: mode, through: red, setup } : { kind: mode, part: red, setup }) as Test;
  }
  const port = model.compiled.nodeIndex.get(red);
  if (toldBy === 'port' && port !== undefined && model.compiled.domains[port] === 'fluid')
    return { kind: mode, at: red, setup: setupFromAddress(model, set) } as Test;
  const node = (point: string | null | undefined) => {
    const at = lanes.nodeOf.get(Number(point));
    return at === undefined ? null : model.compiled.nodeNames[at]!;
  };
  const [from, to] = [node(red), node(black)];
  if (!from || !to || toldBy !== 'points') return null;
  const setup = setupFromAddress(model, set);
  const testVolts = testerVolts(model, [from, to]);
  return { kind: mode, from, to, setup, ...(mode === 'insulation' ? { testVolts } : {}) } as Test;
}

/** A damaged address, or a set-up this circuit cannot be put into, falls back to the machine at rest. */
function setupFromAddress(model: CircuitModel, text: string | null | undefined): Test['setup'] {
  try {
    const setup: unknown = JSON.parse(text ?? '{}');
    if (!isSetup(setup)) return {};
    model.situation(setup);
    return setup;
  } catch {
    return {};
  }
}

function isSetup(value: unknown): value is Test['setup'] {
  return (
    typeof value === 'object' &&
    value !== null &&
    !Array.isArray(value) &&
    Object.keys(value).every((key) => (SETUP_KEYS as readonly string[]).includes(key))
  );
}

/** Set-up for a reading of the person's own: powered as the shown lane works, or dead with the same controls. */
export function ownSetup(model: CircuitModel, kind: 'volts' | 'ohms', lane: Test['setup']): Test['setup'] {
  return kind === 'volts' ? lane : { ...lane, ...powerOff(model) };
}
