import { CircuitModel } from '@/core/circuit/model';
import { singleCoil } from '@/core/templates/electrical';
import { contactorTwoSupplies } from '@/core/templates/line';
import { coilFeatures } from '@/core/trace/coilFeatures';
import { COIL_CONDITIONS } from '@/core/trace/conditions';
import { keepTrace } from '@/core/trace/keptTrace';
import type { TraceAnswer } from '@/core/sheets/trace/trace';
import type { Start, Starter } from '@/core/trace/inrush';
import {
  featureLines,
  heardLines,
  fuseUnderWords,
  judgementWords,
  keptTraceWords,
  markWords,
  pulseWords,
  standingRows,
  startLines,
  startWords,
  timeWords,
  type StartHeld,
} from './traces';

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
  it('are told apart as far as they can be: without a sound trace ways of moving go together', () => {
    const standings = [
      { condition: 'sound', share: 0.5, trace: { seconds: [], values: [] } },
      { condition: 'slow', share: 0.3, trace: null },
      { condition: 'jammedIn', share: 0.15, trace: null },
      { condition: 'jammedOut', share: 0.05, trace: null },
    ] as const;
    expect(standingRows(standings, true).map(({ words, share }) => [words, share])).toEqual([
      ['as it was when it was sound', 0.5],
      ['moves late, held up on its way', 0.3],
      ['stays in', 0.15],
      ['stays out', 0.05],
    ]);
    const alone = standingRows(standings, false);
    expect(alone.map(({ words }) => words)).toEqual([
      'moves, how quickly it should is not known',
      'does not move, out or in',
    ]);
    expect(alone[0]!.share).toBeCloseTo(0.8, 9);
    expect(alone[1]!.share).toBeCloseTo(0.2, 9);
    expect(alone[0]!.drawn).toBe(true);
  });
  it('stands in a report in one breath', () => {
    const model = new CircuitModel(singleCoil());
    const kept = {
      part: 'Y1',
      kind: 'dip' as const,
      amps: keepTrace(traceOf(current)),
      named: 'slow' as const,
    };
    expect(keptTraceWords(model, kept)).toMatch(
      /^moved after 19\.\d ms, settles at 2 A, moves late, held up on its way$/,
    );
    const fan = new CircuitModel(contactorTwoSupplies());
    const started = keepTrace(traceOf((t) => (t < 0.1 ? 0 : 17 + 60 * Math.exp(-(t - 0.1) / 0.1)), 1.5));
    expect(keptTraceWords(fan, { part: 'M1', kind: 'inrush', amps: started, named: null })).toMatch(
      /^7\d\.\d A falling to 17\.0 A in \d+ ms: it ran up\.$/,
    );
    const pulsed = keepTrace(traceOf((t) => ((t * 50) % 1 < 0.5 ? 1.4 : 0.6), 0.3));
    expect(keptTraceWords(model, { ...kept, kind: 'pwm', amps: pulsed })).toMatch(/^50 Hz/);
  });
  it('says what a start comes to, by what starts', () => {
    const answer = (verdict: 'ran' | 'locked' | 'nothing' | null, more = {}) =>
      ({ peak: 61, settled: 11, settleSeconds: 0.6, verdict, ...more }) as TraceAnswer;
    const held = (
      one: TraceAnswer,
      of: Starter = 'motor',
      against: Partial<StartHeld> = {},
      taken: Partial<Start> = {},
    ): StartHeld => ({
      start: { trace: { seconds: [], values: [] }, rms: false, answer: one, apartSeconds: 0.001, ...taken },
      before: null,
      drawnAmps: 11,
      of,
      ...against,
    });
    expect(startWords(held(answer('ran')))).toBe('61.0 A falling to 11.0 A in 600 ms: it ran up.');
    expect(startWords(held(answer('ran'), 'coil'))).toMatch(/it pulled in\.$/);
    expect(startWords(held(answer('locked', { settled: 60 })))).toMatch(
      /stays at 60\.0 A and does not run up/,
    );
    // A heater that stays where it began is as it should be.
    expect(startWords(held(answer('locked'), 'other'))).toMatch(/as what only warms does/);
    expect(startWords(held(answer(null, { settled: null })))).toMatch(/take it longer/);
    expect(startWords(held(answer('nothing')))).toMatch(/^Nothing flows/);
    // Without a peak that could have been seen nobody can say that it stands.
    expect(startWords(held(answer('locked'), 'motor', {}, { apartSeconds: 0.4 }))).toBe(
      'It carries 11.0 A, as one does that runs. How it started was not seen: values lie 400 ms apart there. Take them faster, or with a clamp that keeps the peak.',
    );
    expect(startWords(held(answer('locked', { settled: 25 }), 'motor', {}, { apartSeconds: null }))).toBe(
      'It carries 25.0 A. How it started was not seen: it was on already as the record began. Record first, then switch it on.',
    );
    expect(startWords(held(answer('ran'), 'motor', {}, { apartSeconds: 0.4 }))).toMatch(
      /^At least 61\.0 A falling/,
    );
    expect(startLines(held(answer('ran'), 'motor', {}, { apartSeconds: 0.4 }))[0]).toBe(
      'Its peak may have been higher: values lie 400 ms apart there.',
    );
    const before = answer('ran');
    // A belt that slips leaves the peak as it was, and half of what it carries.
    expect(startLines(held(answer('ran', { settled: 5 }), 'motor', { before }))[0]).toMatch(
      /belt that slips/,
    );
    expect(startLines(held(answer('ran', { settled: 18 }), 'motor', { before }))[0]).toMatch(/drags/);
    // Less of everything is less supply; and what only warms carries nothing.
    const low = startLines(held(answer('ran', { peak: 30, settled: 5 }), 'motor', { before }));
    expect(low.join()).not.toMatch(/belt/);
    expect(startLines(held(answer('ran', { settled: 5 }), 'other', { before })).join()).not.toMatch(/belt/);
    // By the drawing alone it takes more.
    expect(startLines(held(answer('ran', { settled: 7 }))).join()).not.toMatch(/belt/);
    expect(startLines(held(answer('ran', { settled: 4 })))[0]).toMatch(/belt that slips/);
    expect(
      startLines(
        held(answer('ran'), 'motor', { before: answer('ran', { peak: 55 }), drawnAmps: 10 }, { rms: true }),
      ),
    ).toEqual([
      'Peak 61.0 A, 55.0 A before.',
      'Settled 11.0 A, 11.0 A before.',
      'The drawing expects 10.0 A once it has settled.',
      'Alternating current: each value is the effective one of its period.',
    ]);
    expect(fuseUnderWords({ part: 'F3', rated: 40, besides: 4 }, 'mayOpen')).toMatch(
      /^F3, 40\.0 A, may open under this start, with 4 A that it carries besides/,
    );
    expect(pulseWords({ ...answer(null), hz: 120.4, duty: 0.45, mean: 1.05, ripple: 0.4 })).toBe(
      '120 Hz, rising for 45 % of the time: 1.05 A in the mean, ripple 0.4 A.',
    );
    expect(pulseWords({ ...answer(null), hz: null })).toMatch(/^No pulses/);
  });
});

describe('what was heard beside a current', () => {
  it('is laid against where the current says that something moved', () => {
    const seen = { onset: 0.05, dipSeconds: 0.018 };
    expect(heardLines(seen, [0.07])).toEqual([
      'A sharp sound 20 ms after it was switched on: where its current says that it moved.',
    ]);
    expect(heardLines(seen, [0.15])[0]).toMatch(/100 ms after .* it moved after 18 ms\. Something else may/);
    expect(heardLines({ onset: 0.05, dipSeconds: null }, [0.07])[0]).toMatch(/shows nothing that moved/);
    expect(heardLines(seen, [0.02])[0]).toMatch(/30 ms before it was switched on/);
    expect(heardLines({ onset: null, dipSeconds: null }, [0.07])).toEqual(['A sharp sound at 70 ms.']);
    expect(heardLines(seen, [])).toEqual([]);
  });
});
