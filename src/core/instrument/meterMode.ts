import type { CircuitModel } from '../circuit/model';
import type { ReadingKind, Test } from '../circuit/schema';

/** What a meter on a wire can be set to. */
export const MEASURES = ['volts', 'ohms', 'diode', 'amps', 'hertz'] as const satisfies readonly ReadingKind[];
export type Measures = (typeof MEASURES)[number];

/** Where a meter's dial stands. A meter that only sends figures may not say whether they are direct or alternating. */
export interface MeterMode {
  measures: Measures;
  coupling?: 'dc' | 'ac';
}

/** One value that an instrument has shown, and where its dial stood. */
export interface MeterSample {
  mode: MeterMode;
  value: number | 'OL';
}

/** The same with when it came, milliseconds on the clock of whoever follows the instrument. */
export interface TimedSample extends MeterSample {
  at: number;
}

/** Dial that a test wants; null where no meter on a wire reads it: an insulation tester, a gauge, an eye. */
export function modeFor({ compiled }: CircuitModel, test: Test): MeterMode | null {
  const alternates = (node: number) => compiled.alternating[node] === 1;
  switch (test.kind) {
    case 'volts': {
      const ends = [test.from, test.to].map((name) => compiled.nodeIndex.get(name) ?? -1);
      return { measures: 'volts', coupling: ends.some(alternates) ? 'ac' : 'dc' };
    }
    case 'amps': {
      const part = compiled.parts.find(({ part: { ref } }) => ref === test.through);
      const branch = part?.branches.find(({ domain }) => domain === 'electrical');
      if (!branch) return null;
      return {
        measures: 'amps',
        coupling: alternates(branch.a) || alternates(branch.b) ? 'ac' : 'dc',
      };
    }
    case 'ohms':
    case 'diode':
    case 'hertz':
      return { measures: test.kind };
    case 'changes':
    case 'insulation':
    case 'fuse':
    case 'click':
    case 'trace':
    case 'bit':
    case 'function':
    case 'code':
    case 'pressure':
    case 'flow':
    case 'hold':
    case 'moves':
    case 'gauge':
      return null;
    default:
      return test satisfies never;
  }
}

/** Whether a dial stands where it should. What a meter does not say of itself is not held against it. */
export function suits(stands: MeterMode, wanted: MeterMode): boolean {
  if (stands.measures !== wanted.measures) return false;
  return (
    stands.coupling === undefined || wanted.coupling === undefined || stands.coupling === wanted.coupling
  );
}
