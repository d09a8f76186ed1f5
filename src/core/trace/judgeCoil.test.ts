import { seededRandom } from '../random';
import { coilFeed } from './coilFeed';
import type { Trace } from './trace';
import { judgeCoil } from './judgeCoil';
import { CoilOfMachine } from './testing/plantedCoil';
import { tracePlaces } from '../../testing/tracePlaces';

const TILLER = tracePlaces().find(
  ({ ref, model }) => ref === 'Y14' && model.compiled.circuit.name.startsWith('Tiller'),
)!;

describe('a coil’s trace held against one from when it was sound', () => {
  const coil = new CoilOfMachine(TILLER, seededRandom(11));
  const feed = coilFeed(TILLER.model, TILLER.ref, TILLER.on);
  const before = coil.take('sound')!;

  it.each(['nothing', 'starved', 'shortedTurns', 'jammedOut', 'slow', 'bare'] as const)(
    'names %s',
    (condition) => {
      const trace = coil.take(condition)!;
      const { named, standings } = judgeCoil(feed, trace, before);
      expect(standings.reduce((sum, { share }) => sum + share, 0)).toBeCloseTo(1, 9);
      expect(named).toBe(condition);
    },
  );
  it('clears one that is as it was', () => {
    const { named, standings } = judgeCoil(feed, coil.take('sound')!, before);
    expect(standings[0]!.condition).toBe('sound');
    expect([null, 'sound']).toContain(named);
  });
});

it('nothing is cleared by a current that never settled: a supply that sags hides shorted turns', () => {
  const coil = new CoilOfMachine(TILLER, seededRandom(11));
  const feed = coilFeed(TILLER.model, TILLER.ref, TILLER.on);
  const sagging = ({ seconds, values }: Trace): Trace => ({
    seconds,
    values: values.map((value, k) => value * (1 - 0.9 * seconds[k]!)),
  });
  const { named, features } = judgeCoil(feed, sagging(coil.take('sound')!), sagging(coil.take('sound')!));
  expect(features.settledAmps).toBeNull();
  expect(named).not.toBe('sound');
});

describe('a coil’s trace alone', () => {
  const coil = new CoilOfMachine(TILLER, seededRandom(12));
  const feed = coilFeed(TILLER.model, TILLER.ref, TILLER.on);
  it('never says how quick a plunger was: nobody knows', () => {
    const { named } = judgeCoil(feed, coil.take('slow')!, null);
    expect(['sound', 'slow', 'weakSpring']).not.toContain(named);
  });
  it('says what a current alone shows: nothing, and too much of it', () => {
    expect(judgeCoil(feed, coil.take('nothing')!, null).named).toBe('nothing');
    expect(judgeCoil(feed, coil.take('shortedTurns')!, null).named).toBe('shortedTurns');
  });
  it('gives the same answer to the same question', () => {
    const trace = coil.take('jammedOut')!;
    const [one, other] = [judgeCoil(feed, trace, null), judgeCoil(feed, trace, null)];
    expect(one.standings.map(({ share }) => share)).toEqual(other.standings.map(({ share }) => share));
  });
});
