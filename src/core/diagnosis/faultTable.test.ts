import { CircuitModel } from '../circuit/model';
import type { Circuit } from '../circuit/schema';
import { selfHolding, singleCoil } from '../templates/electrical';
import { airSwitch } from '../templates/fluid';
import { gasBypass } from '../templates/line';
import { listCandidateTests } from './candidateTests';
import { listFaults } from './faults';
import { FaultTable } from './faultTable';
import { predict } from './predict';
import type { Prediction } from './prediction';

/** A digit that two ways of adding up the same may differ by. */
const LAST_DIGITS = 1e-9;
/** Candidates that are looked at, of each circuit. */
const LOOKED_AT = 9;

/** Figures within their last digits of each other are one. */
function isAlike(one: unknown, other: unknown): boolean {
  if (typeof one === 'number' && typeof other === 'number') {
    return Object.is(one, other) || Math.abs(one - other) <= LAST_DIGITS * Math.max(1, Math.abs(one));
  }
  if (typeof one !== 'object' || typeof other !== 'object' || one === null || other === null) {
    return one === other;
  }
  const [a, b] = [one as Record<string, unknown>, other as Record<string, unknown>];
  const keys = new Set([...Object.keys(a), ...Object.keys(b)]);
  return [...keys].every((key) => isAlike(a[key], b[key]));
}

const circuits: [string, () => Circuit][] = [
  ['one coil', singleCoil],
  ['a relay that holds itself', selfHolding],
  ['a switch on air', airSwitch],
  ['a solenoid gas valve', gasBypass],
];

describe('a row that is worked out from its ends', () => {
  it.each(circuits)(
    'shows at each severity what that one by itself makes a test read: %s',
    (_name, build) => {
      const model = new CircuitModel(build());
      const table = new FaultTable(model, listFaults(model));
      const { tests } = listCandidateTests(model);
      const every = Math.max(1, Math.floor(tests.length / LOOKED_AT));
      const otherwise: string[] = [];
      let [flat, moved] = [0, 0];
      for (const { bound, key } of tests.filter((_test, at) => at % every === 0)) {
        const predictions = table.prepare(bound);
        for (const { index, fault, variant, grid, start } of table.rows) {
          const shown = grid.map((severity): Prediction => predict(bound, variant.edits(severity)));
          grid.forEach((severity, s) => {
            if (isAlike(predictions.peek(start + s), shown[s])) return;
            otherwise.push(
              `${key}: ${table.faults[fault]!.ref} ${table.faults[fault]!.fault} at ${severity}`,
            );
          });
          const isFlat = shown.every((one) => isAlike(one, shown[0]));
          if (predictions.flat[index]) flat++;
          else moved++;
          if (predictions.flat[index] && !isFlat) otherwise.push(`${key}: called the same everywhere`);
        }
      }
      expect(otherwise).toEqual([]);
      expect(flat).toBeGreaterThan(0);
      expect(moved).toBeGreaterThan(0);
    },
  );
});
