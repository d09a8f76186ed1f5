import type { Test } from '@/core/circuit/schema';
import type { FaultName } from '@/core/diagnosis/faultTypes';
import type { Outcome } from '@/core/diagnosis/outcomes';
import { bandWords, goesToWords, limitWords, reasonWords, thenWords, yardstickWords } from './answers';
import { template, tilt } from './testing/speakers';

const right = { controls: { key: 'on', tilt: 'right' } };
const outcome = (given: Partial<Outcome>): Outcome => ({
  reading: 0,
  share: 0.5,
  means: [],
  goes: [],
  faults: (given.means ?? []).map(({ fault, share }) => ({ fault, share })),
  sound: false,
  ...given,
});

describe('answers and what they mean', () => {
  it.each([
    ['volts', { low: 12.34, high: 13.02 }, '12.3–13.0 V'],
    ['volts', { low: -1, high: 0.3 }, '-1 to 0.3 V'],
    ['volts', { low: -Infinity, high: 0.3 }, 'under 0.3 V'],
    ['volts', { low: 25.9, high: Infinity }, 'over 25.9 V'],
    ['pressure', { low: -60, high: -40 }, '-0.6 to -0.4 bar'],
    ['ohms', { low: 38, high: Infinity }, 'over 38 Ω, OL'],
    ['ohms', { low: Infinity, high: Infinity }, 'OL'],
    ['ohms', { low: 60, high: 3200 }, '60 Ω–3.2 kΩ'],
    ['ohms', { low: 77, high: 103 }, '77–103 Ω'],
    ['ohms', { low: 103, high: 9300 }, '103 Ω–9.3 kΩ'],
    ['ohms', { low: -Infinity, high: 0.2 }, 'under 0.2 Ω'],
    ['amps', { low: -Infinity, high: 0.31 }, 'under 0.31 A'],
  ] as const)('%s %j is %s', (kind, band, words) => {
    expect(bandWords(kind, outcome({ reading: 0, ...band }), 'bar')).toBe(words);
  });

  it('say where the run is at fault', () => {
    const volts: Test = { kind: 'volts', from: 'Y8:1', to: 'GND', setup: right };
    expect(thenWords({ test: volts, expected: 25, across: [] }, outcome({ reading: 25, sound: true }))).toBe(
      'As drawn. Look elsewhere.',
    );
    expect(thenWords({ test: volts, expected: 25, across: [] }, outcome({ reading: 0.1 }))).toBe(
      'Feed lost before here.',
    );
    expect(thenWords({ test: volts, expected: 25, across: [] }, outcome({ reading: 14 }))).toBe(
      'Starved by a joint.',
    );
    expect(thenWords({ test: volts, expected: 25, across: [] }, outcome({ reading: 25.2 }))).toBe(
      'Too little draws on it.',
    );
    expect(thenWords({ test: volts, expected: 0.1, across: [] }, outcome({ reading: 12 }))).toBe(
      'The fall is here.',
    );
    const gauge: Test = { kind: 'pressure', at: 'C', setup: {} };
    const pressed = (kPa: number, fault: FaultName) =>
      thenWords(
        { test: gauge, expected: 600, across: [] },
        outcome({ reading: kPa, means: [{ part: 'Q1', fault, share: 0.9 }] }),
      );
    expect(pressed(500, 'leaking')).toBe('Pulled down: something leaks.');
    expect(pressed(500, 'lowPressure')).toBe('Pressure lost before here.');
    expect(pressed(500, 'stuckMidway')).toBe('Pulled down: something takes too much.');
    expect(pressed(0, 'stuckAtRest')).toBe('Pressure lost before here.');
    expect(pressed(700, 'stuckShifted')).toBe('Pressure that should not be here.');
    // Volts that a wrong way brings are no fall over what should lead.
    for (const fault of ['swapped', 'crossedPins', 'shortToSupply', 'stuckOn', 'welded'] as const)
      expect(
        thenWords(
          { test: volts, expected: 0.1, across: [] },
          outcome({ reading: 12, means: [{ part: 'X8.1', fault, share: 0.9 }] }),
        ),
      ).toBe('Live, and should be dead.');
    const ohms: Test = { kind: 'ohms', from: 'Y8:1', to: 'GND', setup: {} };
    expect(thenWords({ test: ohms, expected: 31, across: [] }, outcome({ reading: 'OL' }))).toBe(
      'The way is broken.',
    );
    expect(thenWords({ test: ohms, expected: 31, across: [] }, outcome({ reading: 2 }))).toBe(
      'Shorted, or leaking.',
    );
    expect(thenWords({ test: ohms, expected: 31, across: [] }, outcome({ reading: 90 }))).toBe(
      'A bad joint.',
    );
    const toFrame: Test = { kind: 'ohms', from: 'Y8:1', to: 'GND', setup: { unplugged: ['X8'] } };
    expect(thenWords({ test: toFrame, expected: 'OL', across: [] }, outcome({ reading: 2 }))).toBe(
      'Shorted, or leaking.',
    );
    const weak = outcome({
      reading: 'OL',
      sound: true,
      means: [{ part: 'W15', fault: 'weakInsulation', share: 0.7 }],
    });
    expect(thenWords({ test: toFrame, expected: 'OL', across: [] }, weak)).toBe(
      'As drawn. A few volts do not show weak insulation.',
    );
    const code: Test = { kind: 'code', part: 'DM2', setup: { unplugged: ['X31'] } };
    expect(thenWords({ test: code, expected: [5], across: [] }, outcome({ reading: [5] }))).toMatch(
      /They are working\.$/,
    );
    expect(thenWords({ test: code, expected: [5], across: [] }, outcome({ reading: [] }))).toBe(
      'The controller does not see X31 come off.',
    );
    expect(thenWords({ test: code, expected: [5], across: [] }, outcome({ reading: [6] }))).toMatch(
      /makes no odds/,
    );
  });

  it('count doubt in turns, the two heaviest', () => {
    const goes = [
      { part: 'X8.1', share: 0.45 },
      { part: 'Y8', share: 0.25 },
      { part: 'W15', share: 0.2 },
    ];
    expect(goesToWords(outcome({ goes }))).toBe('X8.1 9, Y8 5');
    expect(
      goesToWords(
        outcome({
          goes: [
            { part: null, share: 0.9 },
            { part: 'V8', share: 0.01 },
          ],
        }),
      ),
    ).toBe('none 18');
  });

  it('say why a test comes first', () => {
    const ranked = {
      outcomes: [outcome({ share: 0.6 }), outcome({ share: 0.4 })],
      proof: false,
    } as unknown as Parameters<typeof reasonWords>[0];
    const verdict = {
      state: 'keepTesting' as const,
      because: 'proofMissing' as const,
      part: 'Y8',
      proofs: { have: 1, need: 2 },
    };
    expect(reasonWords(ranked, verdict as never)).toBe('Splits the doubt 12 against 8');
    expect(reasonWords({ ...ranked, proof: true }, verdict as never)).toBe(
      'Second proof before Y8 is called bad',
    );
    expect(reasonWords({ ...ranked, again: true }, verdict as never)).toBe(
      'Once more, before Y8 is called bad',
    );
    expect(reasonWords({ ...ranked, again: true }, { state: 'unexplained' } as never)).toBe(
      'Once more, before anything else',
    );
  });

  it('are held against what is known, with its source', () => {
    expect(
      yardstickWords('ohms', { code: 'drawn', part: 'Y8', ohms: 31.5, tolerance: 0.08 }, 'UTC', 'bar'),
    ).toBe('Y8 is drawn with 31.5 Ω ± 8 % at 20 °C.');
    expect(yardstickWords('amps', { code: 'twin', part: 'Y7', value: 0.78 }, 'UTC', 'bar')).toBe(
      'Its twin Y7 read 0.78 A.',
    );
    const past = { code: 'past', value: 1.72, jobNumber: 398, at: '2026-02-03T23:30:00.000Z' } as const;
    expect(yardstickWords('amps', past, 'Europe/Vienna', 'bar')).toBe(
      'Proved good here: 1.72 A, 4 Feb 2026, job 398.',
    );
    const drop = { code: 'drop', place: 'joint', good: 0.05, repair: 0.1 } as const;
    expect(yardstickWords('volts', drop, 'UTC', 'bar')).toBe(
      'Shop rule: good up to 0.05 V, repair from 0.1 V.',
    );
    const insulation = { code: 'insulation', ohms: 1e6, by: { standard: 'IEC 60364-6' } } as const;
    expect(yardstickWords('insulation', insulation, 'UTC', 'bar')).toBe('At least 1 MΩ (IEC 60364-6).');
    expect(
      yardstickWords('insulation', { code: 'insulation', ohms: Infinity, by: 'overRange' }, 'UTC', 'bar'),
    ).toBe('Site policy, insulation passes from: over range only.');
  });

  it.each([
    [
      { code: 'parallelPath', parts: ['V8'], lift: null, expected: 4 },
      /^V8 lies across it: sound, it reads 4 Ω here\.$/,
    ],
    [{ code: 'leadsDominate', leadOhms: 0.2 }, /your leads/],
    [{ code: 'ghostVoltage', nodes: ['Y8:1'] }, /^Nothing ties \d+: what shows may be a ghost/],
    [{ code: 'unloaded', apart: ['X8'] }, /Nothing draws with X8 off/],
    [{ code: 'heavyContact', part: 'K1', amps: 90 }, /^K1 carries 90.0 A/],
    [{ code: 'insulationByOhms' }, /OL here does not clear it/],
    [
      { code: 'parallelPath', parts: ['T1', 'Y2'], lift: 'F2', expected: 1.6 },
      /^T1, Y2 lie across it: sound, it reads 1\.6\d* Ω here\. With F2 off it is read alone\.$/,
    ],
    [{ code: 'reactiveByOhms', part: 'K1' }, /alternating current its iron counts/],
  ] as const)('warn of %j', (limit, words) => {
    expect(limitWords(tilt, limit as never)).toMatch(words);
  });

  it('warn of what a meter reads less of at rest, each kind in its words', () => {
    expect(limitWords(template('change-over-relay'), { code: 'restsLower', part: 'H1' })).toMatch(
      /^H1 is drawn as it glows: cold, .* no short\.$/,
    );
    expect(limitWords(template('winch-pack'), { code: 'restsLower', part: 'M' })).toMatch(
      /^M is drawn as it runs: standing, /,
    );
  });
});
