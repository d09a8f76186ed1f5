import { CircuitModel } from '../circuit/model';
import type { Test } from '../circuit/schema';
import { airClamp } from '../templates/fluid';
import { Diagnoser } from './diagnose';
import { faultByName, listFaults } from './faults';
import { bindTest, predict } from './predict';

const circuit = airClamp();
const model = new CircuitModel(circuit);
const commanded: Test = { kind: 'moves', part: 'C1', setup: { controls: { bit: '1' } } };

/** What is most likely seen of the clamp, with its supply hose so much narrower. */
function seen(restriction: number): string {
  const { fault } = faultByName(listFaults(model), 'H1', 'blocked', restriction);
  const due = predict(bindTest(model, commanded), fault.variants[0]!.edits(restriction));
  if (due.type !== 'choice') throw new Error('a motion is a choice');
  const shares = Object.values(due.odds);
  expect(shares.reduce((sum, share) => sum + share, 0)).toBeCloseTo(1, 6);
  return Object.entries(due.odds).sort(([, a], [, b]) => b - a)[0]![0];
}

describe('what an actuator is seen to do', () => {
  it('goes all the way, starts and stops, or stays, as its supply is choked', () => {
    expect([0.4, 12, 300].map(seen)).toEqual(['extends', 'little', 'still']);
  });

  it('a start that stops speaks for what starves it, and hardly for its coil', () => {
    const shareOf = (value: 'little' | 'still', parts: readonly string[]) =>
      new Diagnoser(circuit)
        .diagnose([{ ...commanded, value }])
        .suspects.filter(({ part }) => parts.includes(part))
        .reduce((sum, { share }) => sum + share, 0);
    const electric = ['A1', 'W1', 'X1.1', 'Y1', 'X1.2', 'W2'];
    expect(shareOf('little', electric)).toBeLessThan(0.5 * shareOf('still', electric));
    const air = ['H1', 'Z2', 'R4', 'H4', 'R2', 'H2', 'U3', 'U5', 'C1', 'Q1'];
    expect(shareOf('little', air)).toBeGreaterThan(0.5);
  });
});
