import { seededRandom } from '../random';
import { clicksIn, heardBeside } from './clicks';

const RATE = 16_000;
const random = seededRandom(4);
/** A room with a fan in it: noise and a hum. */
const room = (seconds: number, noise = 0.003) =>
  Array.from(
    { length: seconds * RATE },
    (_one, k) => noise * random.normal() + 0.05 * Math.sin((2 * Math.PI * 60 * k) / RATE),
  );
function withClick(samples: number[], at: number, size = 0.3): number[] {
  const from = Math.round(at * RATE);
  for (let k = 0; k < 0.012 * RATE; k++)
    samples[from + k] = samples[from + k]! + size * Math.exp(-k / 40) * random.normal();
  return samples;
}

describe('clicks in what was heard', () => {
  it('stand where they were, each once', () => {
    const found = clicksIn(withClick(withClick(room(3), 0.8), 2.1), RATE);
    expect(found).toHaveLength(2);
    expect(found[0]!.seconds).toBeCloseTo(0.8, 1);
    expect(found[1]!.seconds).toBeCloseTo(2.1, 1);
    expect(found[0]!.overQuiet).toBeGreaterThan(6);
  });
  it('are none in a quiet room, in a hum, nor in a voice that swells', () => {
    expect(clicksIn(room(2), RATE)).toEqual([]);
    expect(clicksIn(new Array<number>(RATE).fill(0), RATE)).toEqual([]);
    const voice = room(2).map(
      (one, k) => one + Math.min(k / RATE, 1) * 0.2 * Math.sin((2 * Math.PI * 300 * k) / RATE),
    );
    expect(clicksIn(voice, RATE)).toEqual([]);
    expect(clicksIn([], RATE)).toEqual([]);
  });
  it('drown where it is as loud as they are', () => {
    expect(clicksIn(withClick(room(2, 0.2), 1, 0.3), RATE)).toEqual([]);
  });
  it('are looked for beside a clamp, on the same clock, and nowhere else', () => {
    const sound = withClick(room(2), 0.8);
    const seconds = sound.map((_one, k) => 5 + k / RATE);
    const clamp = { quantity: null, values: seconds.map((t) => (t < 5.785 ? 0 : 1)) };
    const heard = heardBeside(seconds, [clamp, { quantity: null, values: sound }], 0);
    expect(heard).toHaveLength(1);
    expect(heard[0]!).toBeCloseTo(5.8, 1);
    expect(heardBeside(seconds, [clamp, { quantity: 'volts', values: sound }], 0)).toEqual([]);
    // What a slow recorder took is no sound.
    const slow = { quantity: null, values: sound.filter((_one, k) => k % 10 === 0) };
    expect(
      heardBeside(
        seconds.filter((_t, k) => k % 10 === 0),
        [clamp, slow],
        0,
      ),
    ).toEqual([]);
    expect(heardBeside(seconds, [clamp, { quantity: null, values: sound.map(() => 0) }], 0)).toEqual([]);
  });
});
