import { figureOf } from '../kinds/reading/index';
import { choiceValue } from './predict';
import type { Reading, Test } from '../circuit/schema';
import type { Hypothesis } from './hypotheses';
import { totalSigma } from './likelihood';
import type { Prediction } from './prediction';
import { cellOf } from './scorer';
import { xlogx } from './severity';

/** What one answer of a test would mean. */
export interface Outcome {
  /** A number in the middle of the band, "OL", or the choice itself. */
  reading: Reading['value'];
  /** Band of a numeric answer, lower limit inside, in the reading's unit. `high` may be `Infinity` (over-range). */
  low?: number;
  high?: number;
  share: number;
  /** Suspects this answer would leave, with the shares they would then have. */
  means: { part: string | null; fault: string | null; share: number }[];
  /** The healthy circuit would answer so. */
  sound: boolean;
}

/** Share of the least that a meter tells apart, below which a figure is rounding. */
const DUST = 0.01;
const MOST_OUTCOMES = 4;
/** Bands that differ by less than this are one to a person. */
const MERGE_FREELY = 0.01;

interface Band {
  low: number;
  high: number;
  middle: number;
  weight: number;
  parts: Map<string, { part: string | null; fault: string | null; weight: number }>;
  sound: boolean;
  over: boolean;
}

/** Groups answers into at most four bands that a person can tell apart, nearest neighbours merged first. */
export function groupOutcomes(
  test: Test,
  hypotheses: readonly Hypothesis[],
  predictions: readonly Prediction[],
): Outcome[] {
  if (predictions[0]!.type === 'choice') return groupChoices(test, hypotheses, predictions);
  const bands = new Map<number, Band>();
  predictions.forEach((prediction, h) => {
    if (prediction.type !== 'number') return;
    const { part, ref, fault, weight } = hypotheses[h]!;
    if (weight < 1e-6) return;
    const mean = figureOf(test.kind).unsigned ? Math.abs(prediction.mean) : prediction.mean;
    const cell = cellOf(test.kind, mean);
    const wide = mean === Infinity ? 0 : 2 * totalSigma(test.kind, mean, prediction.sigma, test.meter);
    const known = bands.get(cell);
    const band: Band = known ?? {
      low: Infinity,
      high: -Infinity,
      middle: mean,
      weight: 0,
      parts: new Map(),
      sound: false,
      over: mean === Infinity,
    };
    if (!known) bands.set(cell, band);
    band.low = Math.min(band.low, mean - wide);
    band.high = Math.max(band.high, mean + wide);
    addWeight(band, part, ref, fault, weight);
    band.weight += weight;
    if (part === -1) {
      band.sound = true;
      band.middle = mean;
    }
  });
  const list = [...bands.values()].sort((a, b) => a.middle - b.middle);
  while (list.length > 1) {
    let best = -1;
    let least = Infinity;
    for (let k = 0; k + 1 < list.length; k++) {
      const cost = costOfMerging(list[k]!, list[k + 1]!);
      if (cost < least) [best, least] = [k, cost];
    }
    if (list.length <= MOST_OUTCOMES && least > MERGE_FREELY) break;
    list.splice(best, 2, merged(list[best]!, list[best + 1]!));
  }
  separate(list);
  const total = list.reduce((sum, { weight }) => sum + weight, 0);
  return list.map((band) => ({
    reading: band.over && band.low === Infinity ? 'OL' : shown(test, band.middle),
    low: band.low === Infinity ? Infinity : band.low,
    high: band.over ? Infinity : band.high,
    share: band.weight / total,
    means: meanings(band),
    sound: band.sound,
  }));
}

/** Bands that blur into each other merge cheaply; the sound band and over-range are kept apart while they can be. */
function costOfMerging(one: Band, two: Band): number {
  const overlap = one.high >= two.low ? -0.01 : 0;
  const sound = one.sound !== two.sound ? 0.3 : 0;
  const over = one.over !== two.over ? 0.05 : 0;
  return lossOfMerging(one, two) + overlap + sound + over;
}

/** Neighbouring bands that overlap are cut half way, so that a value falls in one of them. */
function separate(list: Band[]): void {
  for (let k = 0; k + 1 < list.length; k++) {
    const [one, two] = [list[k]!, list[k + 1]!];
    if (one.high <= two.low || two.low === Infinity) continue;
    const [low, high] = [Math.max(one.middle, 0.1), Math.max(two.middle, 0.1)];
    const cut = one.middle < 0 || !Number.isFinite(high) ? (one.high + two.low) / 2 : Math.sqrt(low * high);
    one.high = cut;
    two.low = cut;
  }
}

function groupChoices(
  test: Test,
  hypotheses: readonly Hypothesis[],
  predictions: readonly Prediction[],
): Outcome[] {
  const bands = new Map<string, Band>();
  predictions.forEach((prediction, h) => {
    if (prediction.type !== 'choice') return;
    const { part, ref, fault, weight } = hypotheses[h]!;
    for (const [key, share] of Object.entries(prediction.odds)) {
      if (share < 1e-3) continue;
      const band =
        bands.get(key) ??
        ({ low: 0, high: 0, middle: 0, weight: 0, parts: new Map(), sound: false, over: false } as Band);
      bands.set(key, band);
      addWeight(band, part, ref, fault, weight * share);
      band.weight += weight * share;
      if (part === -1 && share > 0.5) band.sound = true;
    }
  });
  return [...bands]
    .filter(([, { weight }]) => weight > 1e-3)
    .sort((a, b) => b[1].weight - a[1].weight)
    .map(([key, band]) => ({
      reading: choiceValue(test.kind, key),
      share: band.weight,
      means: meanings(band),
      sound: band.sound,
    }));
}

function addWeight(band: Band, part: number, ref: string | null, fault: string | null, weight: number): void {
  const key = `${part}|${fault}`;
  const known = band.parts.get(key);
  if (known) known.weight += weight;
  else band.parts.set(key, { part: ref, fault, weight });
}

function meanings({ parts, weight }: Band): Outcome['means'] {
  return [...parts.values()]
    .sort((a, b) => b.weight - a.weight)
    .slice(0, 6)
    .filter((one) => one.weight / weight > 0.01)
    .map(({ part, fault, weight: own }) => ({ part, fault, share: own / weight }));
}

/** Information about parts lost when two neighbouring bands become one, nats. */
function lossOfMerging(one: Band, two: Band): number {
  const both = one.weight + two.weight;
  let loss = xlogx(both) - xlogx(one.weight) - xlogx(two.weight);
  const [first, second] = [byPart(one), byPart(two)];
  for (const part of new Set([...first.keys(), ...second.keys()])) {
    const [a, b] = [first.get(part) ?? 0, second.get(part) ?? 0];
    loss -= xlogx(a + b) - xlogx(a) - xlogx(b);
  }
  return Math.max(0, loss);
}

function byPart({ parts }: Band): Map<string | null, number> {
  const weights = new Map<string | null, number>();
  for (const { part, weight } of parts.values()) weights.set(part, (weights.get(part) ?? 0) + weight);
  return weights;
}

function merged(one: Band, two: Band): Band {
  const parts = new Map([...one.parts].map(([key, value]) => [key, { ...value }]));
  for (const [key, value] of two.parts) {
    const known = parts.get(key);
    if (known) known.weight += value.weight;
    else parts.set(key, { ...value });
  }
  const main = one.sound || (!two.sound && one.weight >= two.weight) ? one : two;
  return {
    low: Math.min(one.low, two.low),
    high: Math.max(one.high, two.high),
    middle: main.middle,
    weight: one.weight + two.weight,
    parts,
    sound: one.sound || two.sound,
    over: one.over || two.over,
  };
}

/** Nothing, where the solver leaves dust that no meter shows. */
function shown(test: Test, value: number): number {
  return Math.abs(value) < DUST * figureOf(test.kind).leastSigma ? 0 : value;
}

/** What the sound circuit would show. */
export function expectedValue(test: Test, prediction: Prediction): Reading['value'] {
  if (prediction.type === 'number') return prediction.mean === Infinity ? 'OL' : shown(test, prediction.mean);
  const [best = ''] = Object.entries(prediction.odds).sort((a, b) => b[1] - a[1])[0] ?? [];
  return choiceValue(test.kind, best);
}
