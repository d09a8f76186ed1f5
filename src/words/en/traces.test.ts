import { coilFeatures } from '@/core/trace/coilFeatures';
import { COIL_CONDITIONS } from '@/core/trace/conditions';
import { keepTrace } from '@/core/trace/keptTrace';
import { featureLines, judgementWords, keptTraceWords, markWords, timeWords } from './traces';

/** A current that dips on its way up after 20 ms, and is switched off at 300. */
const current = (t: number) => {
  if (t < 0.05) return 0;
  if (t > 0.3) return 2 * Math.exp(-(t - 0.3) / 0.02);
  const since = t - 0.05;
  return 2 * (1 - Math.exp(-since / 0.01)) - 0.5 * Math.exp(-(((since - 0.02) / 0.003) ** 2));
};
const traceOf = (value: (t: number) => number, end = 0.5) => {
  const seconds = Array.from({ length: end * 5000 }, (_one, k) => k / 5000);
  return { seconds, values: seconds.map(value) };
};
const seen = coilFeatures(traceOf(current));

it.each([
  [0.0004, 'under 1 ms'],
  [0.0012, '1.2 ms'],
  [0.0384, '38.4 ms'],
  [0.2714, '271 ms'],
  [1.204, '1.2 s'],
])('%p s is said as %s', (seconds, words) => expect(timeWords(seconds)).toBe(words));

describe('a coil’s trace in words', () => {
  it('says what it shows, and what it showed before', () => {
    const lines = featureLines(seen, seen, 2.1);
    expect(lines[0]).toMatch(
      /^It moved: the current dips 19\.\d ms after it was switched on, 19\.\d ms before\.$/,
    );
    expect(lines[1]).toBe('It settles at 2 A; the drawing expects 2.1 A; 2 A before.');
    expect(lines[2]).toMatch(/^Switched off, a third is left after \d+(\.\d)? ms, \d+(\.\d)? ms before\.$/);
    expect(markWords(seen).map(({ words }) => words.replace(/, .*/, ''))).toEqual(['on', 'moved', 'off']);
  });
  it('says what was not watched, and nothing more', () => {
    const short = coilFeatures(
      traceOf((t) => (t < 0.005 ? 0 : 2 * (1 - Math.exp(-(t - 0.005) / 0.05))), 0.03),
    );
    expect(featureLines(short, null, 2)).toEqual([
      'Too few points on the way up to say whether it moved: take it faster.',
      'It was not watched until it settled.',
    ]);
    expect(featureLines(coilFeatures(traceOf(() => 0)), null, 2)).toEqual(['Nothing flows.']);
    const still = coilFeatures(traceOf((t) => (t < 0.05 ? 0 : 2 * (1 - Math.exp(-(t - 0.05) / 0.01)))));
    expect(featureLines(still, null, null)[0]).toBe('No dip on the way up: it did not move.');
  });
  it('names what stands clear, with what to do; else says what would tell', () => {
    for (const named of COIL_CONDITIONS) expect(judgementWords(named, [], true)).toMatch(/\.$/);
    const jammed = [
      { condition: 'jammedOut', share: 0.6 },
      { condition: 'jammedIn', share: 0.4 },
    ] as const;
    expect(judgementWords(null, jammed, true)).toMatch(/does not move; whether it stays out or in/);
    const moves = [
      { condition: 'sound', share: 0.7 },
      { condition: 'slow', share: 0.3 },
    ] as const;
    expect(judgementWords(null, moves, false)).toMatch(/^It moves\. Whether as quickly as it should/);
    expect(judgementWords(null, moves, true)).toMatch(/^Nothing stands clear/);
  });
  it('stands in a report in one breath', () => {
    expect(keptTraceWords({ amps: keepTrace(traceOf(current)), named: 'slow' })).toMatch(
      /^moved after 19\.\d ms, settles at 2 A, moves late, held up on its way$/,
    );
  });
});
