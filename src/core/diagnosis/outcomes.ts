import { significant } from '../units/significant';
import { figureOf } from '../kinds/reading/index';
import { choiceValue } from './predict';
import { shopMarks } from '../tables/marks';
import { TESTER_VOLTS } from './testerVolts';
import type { Reading, Test } from '../circuit/schema';
import type { Hypothesis } from './hypotheses';
import { totalSigma } from './likelihood';
import { INSTEAD_SHARE, type NumberDue, type Prediction } from './prediction';
import { cellOf } from './scorer';
import { xlogx } from './severity';

/** What one answer of a test would mean. */
export interface Outcome {
  /** A number in the middle of the band, "OL", or the choice itself. */
  reading: Reading['value'];
  /** Band of a numeric answer, lower limit inside, in the reading's unit. The outer ones end where nothing known reads; both `Infinity` is over-range only. */
  low?: number;
  high?: number;
  share: number;
  /** Suspects this answer would leave, with the shares they would then have. */
  means: { part: string | null; fault: string | null; share: number }[];
  /** Parts that the doubt would lie on, all their faults together, the most first; `null` is none of them. */
  goes: { part: string | null; share: number }[];
  /** Faults by their name, those of all parts together, the most first. */
  faults: { fault: string | null; share: number }[];
  /** The healthy circuit would answer so. */
  sound: boolean;
}

/** Share of the least that a meter tells apart, below which a figure is rounding. */
const DUST = 0.01;
const MOST_OUTCOMES = 4;
const MOST_MEANS = 6;
const MOST_PARTS_LEFT = 3;
/** Of an answer; less is not said. */
const LEAST_LEFT = 0.01;
/** Bands that differ by less than this are one to a person. */
const MERGE_FREELY = 0.01;
/** Standard deviations around what the sound circuit reads that still count as that. */
const SOUND_SIGMAS = 3;
const SPREAD_SIGMAS = 2;
/** Share of an answer that is not worth a line in a band: the far tail of a likely one would outweigh a rare one that belongs there. */
const LEAST_FALLING = 0.01;
const CROSSING_STEPS = 40;
/** Bands that lie further apart than this are parted by their ratio, not by their difference. */
const FAR_APART = 3;
/**
 * Insulation below which it leaks, and above which nothing is to be said of it, ohms: by the tester's volts, which follow the class of
 * circuit (IEC 60364-6: 0.5 MΩ at 250 V, 1 MΩ at 500 V). What lies between is watched.
 */
const INSULATION_LEAKS = shopMarks({}).insulation;
const INSULATION_GOOD = 1e8;

/** From where a figure is as good as over range, where the sound circuit reads over range: of ohms good insulation, of a diode's volts half of the meter's range. */
const OPEN_FROM: Partial<Record<Test['kind'], number>> = {
  ohms: INSULATION_LEAKS.extraLow.ohms,
  diode: figureOf('diode').over / 2,
};

/** One suspect's answer. */
interface Answer {
  part: number;
  ref: string | null;
  fault: string | null;
  weight: number;
  mean: number;
  sigma: number;
}

interface Band {
  /** Where answers of this band lie, their scatter with them. */
  low: number;
  high: number;
  middle: number;
  weight: number;
  parts: Map<string, { part: string | null; fault: string | null; weight: number }>;
  answers: Answer[];
  sound: boolean;
  over: boolean;
}

/**
 * Groups answers into bands that a person can tell apart: what the sound circuit reads, no wider than parts and meter scatter, and
 * what lies below and above it. They meet, in order; beyond the outermost only that is left out which nothing known reads.
 */
export function groupOutcomes(
  test: Test,
  hypotheses: readonly Hypothesis[],
  predictions: readonly Prediction[],
): Outcome[] {
  const [healthy] = predictions;
  if (healthy!.type === 'choice') return groupChoices(test, hypotheses, predictions);
  const size = (mean: number) => (figureOf(test.kind).unsigned ? Math.abs(mean) : mean);
  const sound = soundBand(test, healthy as NumberDue, size);
  const cells = new Map<number, Band>();
  const put = (h: number, figure: number, scatter: number, share: number) => {
    const { part, ref, fault, weight: whole } = hypotheses[h]!;
    if (whole < 1e-6 && part !== -1) return;
    const weight = whole * share;
    const mean = size(figure);
    const sigma = mean === Infinity ? 0 : totalSigma(test.kind, mean, scatter, test.meter);
    const wide = SPREAD_SIGMAS * sigma;
    const asSound = part === -1 || isWithin(sound, mean);
    const cell = cellOf(test.kind, mean);
    const band = asSound ? sound : (cells.get(cell) ?? emptyBand(mean));
    if (!asSound) {
      cells.set(cell, band);
      band.low = Math.min(band.low, mean - wide);
      band.high = Math.max(band.high, mean + wide);
    }
    addWeight(band, part, ref, fault, weight);
    band.answers.push({ part, ref, fault, weight, mean, sigma });
    band.weight += weight;
  };
  predictions.forEach((prediction, h) => {
    if (prediction.type !== 'number') return;
    const { mean, sigma, instead } = prediction;
    put(h, mean, sigma, instead ? 1 - INSTEAD_SHARE : 1);
    if (instead) put(h, instead.mean, instead.sigma, INSTEAD_SHARE);
  });
  const list =
    test.kind === 'insulation'
      ? insulationBands(test.testVolts, [...cells.values()], sound)
      : mergedBands([...cells.values()], sound);
  const edges =
    test.kind === 'insulation'
      ? insulationEdges(test.testVolts)
      : rising(list.slice(1).map((band, k) => border(test.kind, list[k]!, band)));
  const open = test.kind === 'insulation';
  // A supply stands higher than drawn while it is charged: that is no fault of what is read.
  const openAbove = open || test.kind === 'volts';
  const bands = list.map((band, k) => ({
    ...band,
    low: edges[k - 1] ?? (open ? -Infinity : outerLow(band, list.length)),
    high: edges[k] ?? (band.sound && !band.over && !openAbove ? band.high : Infinity),
  }));
  const said = list.flatMap(({ answers }) => answers);
  const fallen = bands.map((band) => ({ ...band, ...falling(band, said) }));
  const weighed = open ? fallen : toldApart(test, fallen);
  const total = weighed.reduce((sum, { weight }) => sum + weight, 0);
  return weighed.map((band) => ({
    reading: readingOf(test, band, said),
    low: band.low,
    high: band.high,
    share: band.weight / total,
    ...leaves(band),
    sound: band.sound,
  }));
}

/** A figure that stands for a band: its likeliest answer that lies inside. */
function readingOf(
  test: Test,
  { low, high, middle, over }: Band,
  answers: readonly Answer[],
): Reading['value'] {
  if (middle === Infinity) return 'OL';
  const inside = (mean: number) => mean >= low && (mean < high || (over && mean === high));
  if (inside(middle)) return shown(test, middle);
  const best = answers
    .filter(({ mean }) => inside(mean))
    .reduce<Answer | null>((top, one) => (top && top.weight >= one.weight ? top : one), null);
  return shown(test, best?.mean ?? Math.min(Math.max(middle, low), high));
}

/** Bands as far as anybody can use them: neighbours that mean the same, or of which one is narrower than a meter reads, are one. */
function toldApart(test: Test, bands: readonly Band[]): Band[] {
  const list = [...bands];
  for (let k = 0; k + 1 < list.length;) {
    const [one, two] = [list[k]!, list[k + 1]!];
    const narrow = [one, two].some(({ low, high, sound }) => {
      const from = low === -Infinity ? Math.min(0, high) : low;
      return !sound && high - from < 2 * totalSigma(test.kind, high, 0, test.meter);
    });
    const alike = !one.sound && !two.sound && !two.over && lossOfMerging(one, two) < MERGE_FREELY;
    if (!narrow && !alike) k++;
    else {
      const { low, high } = { low: one.low, high: two.high };
      list.splice(k, 2, { ...merged(one, two), low, high });
      k = Math.max(0, k - 1);
    }
  }
  return list;
}

/** What falls into a band of all answers, each with its scatter: one whose middle lies beside it may read in it as well. */
function falling({ low, high, over }: Band, answers: readonly Answer[]): Pick<Band, 'weight' | 'parts'> {
  const found = { weight: 0, parts: new Map() as Band['parts'] };
  for (const { part, ref, fault, weight, mean, sigma } of answers) {
    const share =
      mean === Infinity
        ? Number(over)
        : below(high, mean, sigma) - (low === -Infinity ? 0 : below(low, mean, sigma));
    if (!(share > LEAST_FALLING)) continue;
    addWeight(found, part, ref, fault, weight * share);
    found.weight += weight * share;
  }
  return found;
}

/** Chance that an answer lies below a limit, by the logistic that stands for the normal distribution to a hundredth. */
function below(limit: number, mean: number, sigma: number): number {
  if (limit === Infinity) return 1;
  if (!(sigma > 0)) return mean < limit ? 1 : 0;
  return 1 / (1 + Math.exp((-1.702 * (limit - mean)) / sigma));
}

/** Limits that follow each other: none lies below the one before it. */
function rising(limits: readonly number[]): number[] {
  return limits.reduce<number[]>((list, limit) => [...list, Math.max(limit, list.at(-1) ?? -Infinity)], []);
}

/** Where the first band begins. What lies beyond the sound answer, and no fault reads, is not as drawn: it belongs to no band. */
function outerLow({ sound, over, low, high }: Band, count: number): number {
  if (over) return count === 1 ? Infinity : -Infinity;
  return sound && (low > 0 || high < 0) ? low : -Infinity;
}

/** From the lower figure that is due of the sound circuit to the higher one: what lies between is a filament that is warm still. */
function soundBand(test: Test, due: NumberDue, size: (mean: number) => number): Band {
  const ends = [due, ...(due.instead ? [due.instead] : [])].map(({ mean, sigma }) => {
    const wide = mean === Infinity ? 0 : SOUND_SIGMAS * totalSigma(test.kind, mean, sigma, test.meter);
    return [size(mean) - wide, size(mean) + wide] as const;
  });
  return {
    ...emptyBand(size(due.mean)),
    low: Math.min(...ends.map(([low]) => low)),
    high: Math.max(...ends.map(([, high]) => high)),
    sound: true,
  };
}

function emptyBand(mean: number): Band {
  return {
    low: mean,
    high: mean,
    middle: mean,
    weight: 0,
    parts: new Map(),
    answers: [],
    sound: false,
    over: mean === Infinity,
  };
}

function isWithin({ low, high, over }: Band, mean: number): boolean {
  return over ? mean === Infinity : mean >= low && mean <= high;
}

/** Neighbours merged, the nearest first, until a person can tell them apart; the sound band stays by itself. */
function mergedBands(cells: readonly Band[], sound: Band): Band[] {
  const list = [...cells, sound].sort((a, b) => a.middle - b.middle);
  for (;;) {
    let best = -1;
    let least = Infinity;
    for (let k = 0; k + 1 < list.length; k++) {
      const [one, two] = [list[k]!, list[k + 1]!];
      if (one.sound || two.sound) continue;
      const cost =
        lossOfMerging(one, two) - (one.high >= two.low ? 0.01 : 0) + (one.over !== two.over ? 0.05 : 0);
      if (cost < least) [best, least] = [k, cost];
    }
    if (best < 0 || (list.length <= MOST_OUTCOMES && least > MERGE_FREELY)) return list;
    list.splice(best, 2, merged(list[best]!, list[best + 1]!));
  }
}

/** Where two bands meet: at the edge of the sound one, else half way between them. */
function border(kind: Test['kind'], one: Band, two: Band): number {
  if (one.sound && !one.over) return one.high;
  if (two.sound && !two.over) return two.low;
  // Sound, nothing is read here: whatever is, and is no good insulation, is not as drawn.
  if (two.sound) return Math.max(roundedUp(one.high), OPEN_FROM[kind] ?? 0);
  if (two.middle === Infinity) return roundedUp(one.high);
  const [a, b] = [Math.min(one.high, two.middle), Math.max(two.low, one.middle)];
  if (a > b) return crossing(one, two);
  // Two digits are what a person keeps in mind of a limit that nothing else sets.
  return a > 0 && b > FAR_APART * a ? significant(Math.sqrt(a * b), 2) : (a + b) / 2;
}

/** Where bands that overlap are parted with the fewest answers on the wrong side, two digits. */
function crossing(one: Band, two: Band): number {
  const [from, to] = [Math.max(two.low, one.middle), one.high];
  let best = (from + to) / 2;
  let least = Infinity;
  for (let step = 1; step < CROSSING_STEPS; step++) {
    const at = from + ((to - from) * step) / CROSSING_STEPS;
    const limit = significant(at, 2);
    const wrong =
      one.answers.reduce(
        (sum, { weight, mean, sigma }) => sum + weight * (1 - below(limit, mean, sigma)),
        0,
      ) + two.answers.reduce((sum, { weight, mean, sigma }) => sum + weight * below(limit, mean, sigma), 0);
    if (wrong < least) [best, least] = [limit, wrong];
  }
  return best;
}

/** The next figure of two digits. */
function roundedUp(value: number): number {
  if (!(value > 0)) return value;
  const step = 10 ** (Math.floor(Math.log10(value)) - 1);
  return significant(Math.ceil(value / step - 1e-9) * step, 2);
}

/** Insulation below which it leaks, for a tester's volts, ohms. */
export function leaksBelow(testVolts: number): number {
  return testVolts > TESTER_VOLTS.low ? INSULATION_LEAKS.line.ohms : INSULATION_LEAKS.extraLow.ohms;
}

function insulationEdges(testVolts: number): [number, number] {
  return [leaksBelow(testVolts), INSULATION_GOOD];
}

/** What a tester shows: leaks, to be watched, good. All three are always there. */
function insulationBands(testVolts: number, cells: readonly Band[], sound: Band): Band[] {
  const edges = insulationEdges(testVolts);
  const bands = [edges[0] / 2, Math.sqrt(edges[0] * edges[1]), Infinity].map(emptyBand);
  for (const one of [...cells, sound]) {
    const at = one.middle < edges[0] ? 0 : one.middle < edges[1] ? 1 : 2;
    const whole = merged(bands[at]!, one);
    // The middle of the band is where most of its answers lie.
    bands[at] = { ...whole, middle: one.weight >= bands[at]!.weight ? one.middle : whole.middle };
  }
  return bands;
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
      const band = bands.get(key) ?? emptyBand(0);
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
      ...leaves(band),
      sound: band.sound,
    }));
}

function addWeight(
  band: Pick<Band, 'parts'>,
  part: number,
  ref: string | null,
  fault: string | null,
  weight: number,
): void {
  const key = `${part}|${fault}`;
  const known = band.parts.get(key);
  if (known) known.weight += weight;
  else band.parts.set(key, { part: ref, fault, weight });
}

/** What an answer leaves: of a part with many faults, or a fault of many parts, none alone would be among the first. */
function leaves({
  parts,
  weight,
}: Pick<Band, 'parts' | 'weight'>): Pick<Outcome, 'means' | 'goes' | 'faults'> {
  const all = [...parts.values()];
  const least = LEAST_LEFT * weight;
  const heaviest = <Of extends { weight: number }>(of: readonly Of[]) =>
    of.filter((one) => one.weight > least).sort((a, b) => b.weight - a.weight);
  const summed = (key: 'part' | 'fault') =>
    heaviest([...sumBy(all, key)].map(([name, own]) => ({ name, weight: own })));
  return {
    means: heaviest(all)
      .slice(0, MOST_MEANS)
      .map(({ part, fault, weight: own }) => ({ part, fault, share: own / weight })),
    goes: summed('part')
      .slice(0, MOST_PARTS_LEFT)
      .map(({ name, weight: own }) => ({ part: name, share: own / weight })),
    faults: summed('fault').map(({ name, weight: own }) => ({ fault: name, share: own / weight })),
  };
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

function byPart({ parts }: Pick<Band, 'parts'>): Map<string | null, number> {
  return sumBy(parts.values(), 'part');
}

function sumBy(
  of: Iterable<{ part: string | null; fault: string | null; weight: number }>,
  key: 'part' | 'fault',
): Map<string | null, number> {
  const weights = new Map<string | null, number>();
  for (const one of of) weights.set(one[key], (weights.get(one[key]) ?? 0) + one.weight);
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
    answers: [...one.answers, ...two.answers],
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
