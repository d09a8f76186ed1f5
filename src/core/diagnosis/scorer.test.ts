import fc from 'fast-check';
import type { Test } from '../circuit/schema';
import type { Hypothesis } from './hypotheses';
import { expectedValue, groupOutcomes } from './outcomes';
import type { Prediction } from './prediction';
import { cellOf, Scorer } from './scorer';

const click: Test = { kind: 'click', part: 'K1', setup: {} };
const volts: Test = { kind: 'volts', from: 'A', to: 'GND', setup: {} };
const ohms: Test = { kind: 'ohms', from: 'A', to: 'GND', setup: {} };
const number = (mean: number, sigma = 0.05): Prediction => ({ type: 'number', mean, sigma, loose: false });
const yes = (share: number): Prediction => ({ type: 'choice', odds: { true: share, false: 1 - share } });

function doubt(weights: readonly number[]): Hypothesis[] {
  return weights.map((weight, at) => ({
    part: at - 1,
    ref: at === 0 ? null : `P${at}`,
    fault: at === 0 ? null : 'open',
    edits: [],
    weight,
  }));
}

/** The reference's example: fuse, switch, harness, connector, ground, coil. */
const PRIORS = [0.1, 0.2, 0.15, 0.25, 0.1, 0.2];
const SPLITS: [string, number[], number][] = [
  ['volts at the load plug', [0, 1, 2], 0.9928],
  ['coil ohms', [5], 0.7219],
  ['volts both sides of the fuse', [0], 0.469],
  ['drop to battery negative', [4], 0.469],
];

describe('information', () => {
  it.each(SPLITS)('is the reference’s bits for %s', (_name, guilty, bits) => {
    const hypotheses = doubt([0, ...PRIORS]);
    const predictions = hypotheses.map((_one, at) => yes(guilty.includes(at - 1) ? 1 : 0));
    expect(new Scorer(PRIORS.length, hypotheses).information(click, predictions)).toBeCloseTo(bits, 3);
  });

  it('is what an imperfect test gives: prior 0.3, nine in ten found, one in ten false', () => {
    const scorer = new Scorer(2, doubt([0, 0.3, 0.7]));
    expect(scorer.information(click, [yes(0.1), yes(0.9), yes(0.1)])).toBeCloseTo(0.4558, 3);
  });

  it('is nothing where all answers are alike, and never more than the doubt', () => {
    const weights = fc.array(fc.double({ min: 0.01, max: 1, noNaN: true }), { minLength: 3, maxLength: 8 });
    fc.assert(
      fc.property(
        weights,
        fc.array(fc.double({ min: -30, max: 30, noNaN: true }), { minLength: 8, maxLength: 8 }),
        (given, means) => {
          const total = given.reduce((a, b) => a + b, 0);
          const hypotheses = doubt(given.map((weight) => weight / total));
          const scorer = new Scorer(given.length, hypotheses);
          expect(
            scorer.information(
              volts,
              hypotheses.map(() => number(12.6)),
            ),
          ).toBeCloseTo(0, 9);
          const bits = scorer.information(
            volts,
            hypotheses.map((_one, at) => number(means[at]!)),
          );
          const entropy = -hypotheses.reduce((sum, { weight }) => sum + weight * Math.log2(weight), 0);
          expect(bits).toBeGreaterThanOrEqual(0);
          expect(bits).toBeLessThanOrEqual(entropy + 1e-9);
        },
      ),
      { numRuns: 80 },
    );
  });

  it('leaves nothing behind from one test to the next', () => {
    const hypotheses = doubt([0.1, 0.5, 0.4]);
    const scorer = new Scorer(3, hypotheses);
    const apart = [number(0), number(12), number(25)];
    const first = scorer.information(volts, apart);
    scorer.information(volts, [number(3), number(3), number(9)]);
    expect(scorer.information(volts, apart)).toBe(first);
  });

  it('refutes best with the answer that a sound part and a guilty one do not share', () => {
    const scorer = new Scorer(3, doubt([0.1, 0.8, 0.1]));
    const clear = scorer.refutation(volts, [number(0), number(12.6), number(0)], 'P1');
    const blurred = scorer.refutation(volts, [number(12.6), number(12.6), number(0)], 'P1');
    expect(clear).toBeGreaterThan(1.5);
    expect(blurred).toBeLessThan(0.1);
  });
});

describe('cells', () => {
  it('rise with the value, and keep over-range to itself', () => {
    for (const kind of ['volts', 'ohms', 'amps', 'pressure', 'diode'] as const) {
      let before = -1;
      for (const value of [0, 0.2, 1, 2, 10, 100, 1e3, 1e5]) {
        const cell = cellOf(kind, value);
        expect(cell).toBeGreaterThanOrEqual(before);
        before = cell;
      }
      expect(cellOf(kind, Infinity)).toBeGreaterThan(before);
    }
    expect(cellOf('volts', -12)).toBeLessThan(cellOf('volts', 0));
  });
});

describe('outcomes', () => {
  const hypotheses = doubt([0.2, 0.3, 0.3, 0.2]);

  it('are at most four bands that do not overlap, hold every prediction, and add to one', () => {
    const predictions = [number(31.5, 1), number(100, 2), number(Infinity), number(2, 0.1)];
    const found = groupOutcomes(ohms, hypotheses, predictions);
    expect(found.length).toBeLessThanOrEqual(4);
    expect(found.reduce((sum, { share }) => sum + share, 0)).toBeCloseTo(1, 9);
    found.forEach(({ low }, at) => {
      if (at > 0) expect(low!).toBeGreaterThanOrEqual(found[at - 1]!.high!);
    });
    expect(found.filter(({ sound }) => sound)).toHaveLength(1);
    expect(found.find(({ sound }) => sound)!.reading).toBeCloseTo(31.5, 6);
    expect(found.at(-1)!.reading).toBe('OL');
    for (const { mean } of predictions as { mean: number }[]) {
      const holds = found.some(({ low, high }) =>
        mean === Infinity ? high === Infinity : mean >= low! && mean <= high!,
      );
      expect(holds).toBe(true);
    }
  });

  it('say what each leaves, heaviest first', () => {
    const found = groupOutcomes(click, hypotheses, [yes(0.98), yes(0.02), yes(0.02), yes(0.98)]);
    expect(found.map(({ reading }) => reading).sort()).toEqual([false, true]);
    const silent = found.find(({ reading }) => reading === false)!;
    expect(silent.means.slice(0, 2).map(({ part }) => part)).toEqual(['P1', 'P2']);
    expect(silent.share).toBeCloseTo(0.6 * 0.98 + 0.4 * 0.02, 6);
  });

  it('give codes back as lists', () => {
    const code: Test = { kind: 'code', part: 'A1', setup: {} };
    const odds = (key: string): Prediction => ({ type: 'choice', odds: { [key]: 1 } });
    const found = groupOutcomes(code, hypotheses, [odds(''), odds('5'), odds('5,6'), odds('')]);
    expect(found.map(({ reading }) => reading)).toEqual(expect.arrayContaining([[], [5], [5, 6]]));
    expect(expectedValue(code, odds('6'))).toEqual([6]);
    expect(expectedValue(ohms, number(Infinity))).toBe('OL');
  });
});
