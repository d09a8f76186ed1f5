import { demoCircuit } from '../../testing/demoCircuits';
import type { Reading } from '../circuit/schema';
import { Diagnoser } from './diagnose';

const down = { controls: { bit: '1' } };
const up = { controls: { bit: '0' } };
const weak: Reading = { kind: 'function', part: 'C1', value: 'weak', setup: down };
/** What proves a leaking piston that is too small to slow the clamp on its way down. */
const readings: Reading[] = [
  weak,
  { kind: 'pressure', at: 'Z2:2', value: 592, setup: down },
  { kind: 'volts', from: 'S+', to: 'X1.1:2', value: 0.209, setup: down },
  { kind: 'function', part: 'C1', value: 'works', setup: { ...down, open: ['C:B'] } },
  { kind: 'flow', at: 'C:B', value: 'full', setup: { ...up, open: ['C:B'] } },
  { kind: 'function', part: 'C1', value: 'works', setup: { ...down, open: ['Q1:5'] } },
  { kind: 'flow', at: 'Q1:5', value: 'full', setup: { ...up, open: ['Q1:5'] } },
  { kind: 'flow', at: 'Q1:3', value: 'full', setup: down },
  { kind: 'pressure', at: 'C:A', value: 127, setup: up },
];

describe('a complaint that a part proved bad would leave unexplained', () => {
  const diagnoser = new Diagnoser(demoCircuit('press-clamp'));

  it('speaks against the part, and is watched once more before anything else is read', () => {
    const { verdict, suspects, next } = diagnoser.diagnose(readings);
    expect(verdict).toMatchObject({ because: 'complaintLeft', part: 'C1', reading: 0, again: false });
    expect(suspects[0]).toMatchObject({ part: 'C1', fault: 'sealLeak' });
    expect(suspects[0]!.against[0]).toMatchObject({ reading: 0 });
    expect(suspects[0]!.against[0]!.bits).toBeLessThan(-2);
    expect(next[0]!.test).toMatchObject({ kind: 'function', part: 'C1', setup: down });
  });

  it('names the part once it is seen to work after all', () => {
    const { verdict } = diagnoser.diagnose([...readings, { ...weak, value: 'works' }]);
    expect(verdict).toMatchObject({ state: 'name', part: 'C1' });
  });

  it('says so where it is the same again, and asks something else', () => {
    const { verdict, next } = diagnoser.diagnose([...readings, weak]);
    expect(verdict).toMatchObject({ state: 'keepTesting', because: 'complaintLeft', again: true });
    expect(next[0]?.test).not.toMatchObject({ kind: 'function', part: 'C1', setup: down });
  });
});
