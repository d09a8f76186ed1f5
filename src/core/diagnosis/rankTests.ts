import type { Edit } from '../circuit/edits';
import type { CircuitModel } from '../circuit/model';
import type { Preferences, Reading, Setup, Test } from '../circuit/schema';
import type { World } from '../circuit/world';
import { setupMinutes } from './access';
import type { CandidateTest } from './candidateTests';
import { totalSigma } from './likelihood';
import { askedPlace, placeOf } from './observations';
import type { Posterior } from './weighed';
import type { Prediction } from './prediction';

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

export interface RankedTest {
  test: Test;
  bits: number;
  minutes: number;
  cautions: CandidateTest['cautions'];
  outcomes: Outcome[];
  /** Chosen to prove or clear the leading part rather than to split the doubt. */
  proof: boolean;
  /** What the healthy circuit would show. */
  expected: Reading['value'];
  onParts: string[];
}

export interface RankOptions {
  preferences?: Preferences;
  /** Set-up the machine stands in now. */
  setup?: Setup;
  /** Tests already answered steadily; asking again teaches nothing. */
  answered?: ReadonlySet<string>;
  /** Tests taken so far, in any set-up. */
  asked?: readonly Test[];
  /** Lead part that still wants a reading on itself before it can be named. */
  prove?: { part: string; onPart: boolean } | null;
  most?: number;
}

/** A hypothesis with weight, for prediction: one fault at one representative severity. */
export interface Hypothesis {
  /** Index of the part, or −1 for a sound circuit. */
  part: number;
  ref: string | null;
  fault: string | null;
  edits: readonly Edit[];
  weight: number;
}

/** Severities that stand for a fault, fewer where little doubt is on it. */
const POINTS_PER_FAULT = 7;
const MUCH = 0.02;
const SOME = 0.003;
const LEAST_WEIGHT = 2e-4;
const LEAST_BITS = 0.002;
/** Minutes that a blown fuse costs: fetch, fit, explain. */
const BLOWN_FUSE_MINUTES = 10;
const RISKY_SHARE = 0.5;
const MOST_OUTCOMES = 4;
/** Bands that differ by less than this are one to a person. */
const MERGE_FREELY = 0.01;
const MISTAKES = 0.96;
/** Tests that get a full look, and how much of the doubt the rough look covers. */
const SHORTLIST = 80;
const ROUGH_SHARE = 0.97;
const ROUGH_EACH = 3;
/** Worth of reading the same two points in the same mode again, in another set-up. */
const KNOWN_PLACE = 0.3;

/**
 * Representative hypotheses of a posterior: every fault that still counts, a few severities each. `evenly`: as many
 * severities for the faint suspects as for the leading ones, so that the answers they would give are all foreseen.
 */
export function hypothesesOf(posterior: Posterior, evenly = false): Hypothesis[] {
  const list: Hypothesis[] = [{ part: -1, ref: null, fault: null, edits: [], weight: posterior.noFault }];
  for (const { fault, share, points } of posterior.faults) {
    if (share < LEAST_WEIGHT) continue;
    const step = share / (evenly || share > MUCH ? POINTS_PER_FAULT : share > SOME ? 3 : 1);
    let run = 0;
    let heaviest = points[0];
    points.forEach((point, at) => {
      run += point.weight;
      if (!heaviest || point.weight > heaviest.weight) heaviest = point;
      const next = points[at + 1];
      if (run >= step || !next || next.variant !== point.variant) {
        if (run > LEAST_WEIGHT / 4) {
          list.push({
            part: fault.part,
            ref: fault.ref,
            fault: fault.fault,
            edits: heaviest.edits(),
            weight: run,
          });
        }
        run = 0;
        heaviest = next;
      }
    });
  }
  return list;
}

interface Scored {
  candidate: CandidateTest;
  bits: number;
  minutes: number;
  score: number;
  proof: boolean;
  /** Would more likely than not take a fuse with it. */
  risky: boolean;
}

/** The heaviest hypotheses of every part that matters, carrying that part's whole weight. */
function roughly(hypotheses: readonly Hypothesis[]): Hypothesis[] {
  const parts = new Map<number, Hypothesis[]>();
  // The sound circuit comes first in every list: predictions are compared with it.
  const [sound, ...faulty] = hypotheses;
  for (const one of faulty) parts.set(one.part, [...(parts.get(one.part) ?? []), one]);
  const sorted = [...parts.values()]
    .map((list) => ({ list, total: list.reduce((sum, { weight }) => sum + weight, 0) }))
    .sort((a, b) => b.total - a.total);
  let run = sound!.weight;
  const rest = sorted.flatMap(({ list, total }) => {
    if (run > ROUGH_SHARE) return [];
    run += total;
    const best = [...list].sort((a, b) => b.weight - a.weight).slice(0, ROUGH_EACH);
    const kept = best.reduce((sum, { weight }) => sum + weight, 0);
    return best.map((one) => ({ ...one, weight: (one.weight / kept) * total }));
  });
  return [sound!, ...rest];
}

/** Ranks tests by expected information per minute, and says what each answer would leave. */
export function rankTests(
  model: CircuitModel,
  posterior: Posterior,
  candidates: readonly CandidateTest[],
  options: RankOptions = {},
): RankedTest[] {
  const {
    preferences = {},
    setup = {},
    answered = new Set<string>(),
    asked = [],
    prove = null,
    most = 12,
  } = options;
  const places = new Set(asked.map(askedPlace));
  const hypotheses = hypothesesOf(posterior);
  const open = candidates.filter(({ key }) => !answered.has(key));
  const score = (list: readonly CandidateTest[], under: readonly Hypothesis[]): Scored[] => {
    const scorer = new Scorer(model.compiled.parts.length, under);
    return byGroup(list).flatMap((group) => {
      const { solver, drive, test: first } = group[0]!.bound;
      const worlds = under.map(({ edits }) => solver.solve(drive, edits));
      // All tests of a group stand in one set-up: the way there and the risk to the fuse are the same for each.
      const toGetThere = setupMinutes(model, setup, first.setup);
      const risk = drive.mode === 'live' ? blowShare(worlds, under) : 0;
      const blown = BLOWN_FUSE_MINUTES * risk;
      model.tidy();
      return group.map((candidate): Scored => {
        const { test } = candidate.bound;
        const predictions = worlds.map((world) => candidate.bound.read(world));
        const bits = MISTAKES * scorer.information(test, predictions);
        const minutes = candidate.minutes + toGetThere + blown;
        const known = places.has(candidate.place);
        const proof = prove !== null && (prove.onPart ? !known : candidate.onParts.includes(prove.part));
        let worth = (bits / Math.max(minutes, 0.3)) * preferenceFactor(preferences, test);
        // The same points read the same way share their scatter: another set-up adds less than it seems.
        if (known) worth *= KNOWN_PLACE;
        if (proof) worth += scorer.refutation(test, predictions, prove.part) / Math.max(minutes, 0.3);
        return { candidate, bits, minutes, score: worth, proof, risky: risk > RISKY_SHARE };
      });
    });
  };
  // A rough look under the heaviest hypotheses finds the tests worth a full one.
  const rough = roughly(hypotheses);
  const shortlist =
    open.length > SHORTLIST && rough.length < hypotheses.length
      ? score(open, rough)
          .sort((a, b) => b.score - a.score)
          .slice(0, SHORTLIST)
          .map(({ candidate }) => candidate)
      : open;
  const scored = score(shortlist, hypotheses);
  // A test that takes a fuse with it stands behind every other, however much it tells.
  scored.sort((a, b) => Number(a.risky) - Number(b.risky) || b.score - a.score);
  const foreseen = hypothesesOf(posterior, true);
  return withoutTwins(
    scored.filter(({ bits, proof, score: worth }) => bits > LEAST_BITS || (proof && worth > 0)),
    most,
  ).map(({ candidate, bits, minutes, proof }) => {
    const { solver, drive, read } = candidate.bound;
    const predictions = foreseen.map(({ edits }) => read(solver.solve(drive, edits)));
    return {
      test: candidate.bound.test,
      bits,
      minutes,
      cautions: candidate.cautions,
      outcomes: groupOutcomes(candidate.bound.test, foreseen, predictions),
      proof,
      expected: expectedValue(candidate.bound.test, predictions[0]!),
      onParts: candidate.onParts,
    };
  });
}

/** Drops tests that ask the same points the same question as a better one, in another set-up that changes nothing. */
function withoutTwins<T extends { candidate: CandidateTest; bits: number }>(
  sorted: readonly T[],
  most: number,
): T[] {
  const kept: T[] = [];
  const bitsOf = new Map<string, number[]>();
  for (const one of sorted) {
    if (kept.length >= most) break;
    const { test } = one.candidate.bound;
    const key = placeOf(test);
    const known = bitsOf.get(key) ?? [];
    if (known.some((bits) => Math.abs(bits - one.bits) < 0.05)) continue;
    bitsOf.set(key, [...known, one.bits]);
    kept.push(one);
  }
  return kept;
}

/** Ranks one given test: the bits it carries and what its answers mean. */
export function evaluateTest(
  model: CircuitModel,
  posterior: Posterior,
  candidate: CandidateTest,
  setup: Setup = {},
): RankedTest {
  const hypotheses = hypothesesOf(posterior, true);
  const scorer = new Scorer(model.compiled.parts.length, hypotheses);
  const { bound } = candidate;
  const predictions = hypotheses.map(({ edits }) => bound.read(bound.solver.solve(bound.drive, edits)));
  return {
    test: bound.test,
    bits: MISTAKES * scorer.information(bound.test, predictions),
    minutes: candidate.minutes + setupMinutes(model, setup, bound.test.setup),
    cautions: candidate.cautions,
    outcomes: groupOutcomes(bound.test, hypotheses, predictions),
    proof: false,
    expected: expectedValue(bound.test, predictions[0]!),
    onParts: candidate.onParts,
  };
}

function byGroup(candidates: readonly CandidateTest[]): CandidateTest[][] {
  const groups = new Map<number, CandidateTest[]>();
  for (const candidate of candidates) {
    const known = groups.get(candidate.group);
    if (known) known.push(candidate);
    else groups.set(candidate.group, [candidate]);
  }
  return [...groups.values()];
}

/** Probability that running this set-up live opens a fuse. */
function blowShare(worlds: readonly World[], hypotheses: readonly Hypothesis[]): number {
  let share = 0;
  worlds.forEach((world, h) => {
    for (const load of world.fuseLoad.values()) {
      if (load <= 1) continue;
      share += hypotheses[h]!.weight;
      break;
    }
  });
  return share;
}

function preferenceFactor({ order = 'best' }: Preferences, { kind }: Test): number {
  if (order === 'loadedVoltsFirst' && (kind === 'volts' || kind === 'amps')) return 3;
  if (order === 'resistanceFirst' && (kind === 'ohms' || kind === 'diode')) return 3;
  const mechanical = kind === 'pressure' || kind === 'flow' || kind === 'moves';
  if (order === 'mechanicalFirst' && mechanical) return 3;
  if (order === 'electricalFirst' && !mechanical) return 3;
  return 1;
}

/** Cells a person can tell apart on the display. */
const CELLS = 640;
const OVER_CELL = CELLS - 1;

function cellOf(kind: Test['kind'], value: number): number {
  if (value === Infinity) return OVER_CELL;
  const size = Math.abs(value);
  let at: number;
  // Near zero a cell is about as wide as the meter and the contacts scatter, far from it a few percent of the value.
  if (kind === 'volts') at = CELLS / 2 + Math.sign(value) * (Math.asinh(size / 0.6) / 0.05);
  else if (kind === 'amps') at = Math.asinh(size / 0.1) / 0.07;
  else if (kind === 'diode') at = size / 0.1;
  else if (kind === 'pressure') at = CELLS / 2 + Math.sign(value) * (Math.asinh(size / 30) / 0.06);
  else at = Math.asinh(size / 3) / 0.08;
  return Math.min(Math.max(Math.round(at), 0), OVER_CELL - 1);
}

/** Counts how a test's answers divide the doubt between parts. Scratch arrays are kept between tests. */
class Scorer {
  /** Weight of every answer cell and part, and of every cell. */
  private readonly cells: Float64Array;
  private readonly totals = new Float64Array(CELLS);
  private readonly touched: number[] = [];
  private readonly touchedCells: number[] = [];
  private readonly slots: number;
  private readonly priorEntropy: number;
  private part = 0;
  private weight = 0;

  constructor(
    partCount: number,
    private readonly hypotheses: readonly Hypothesis[],
  ) {
    this.slots = partCount + 1;
    this.cells = new Float64Array(CELLS * this.slots);
    const parts = new Float64Array(this.slots);
    for (const { part, weight } of hypotheses) parts[part + 1] = parts[part + 1]! + weight;
    this.priorEntropy =
      -parts.reduce((all, p) => all + xlogx(p), 0) + xlogx(parts.reduce((a, b) => a + b, 0));
  }

  private readonly put = (cell: number, share: number): void => {
    const weight = this.weight * share;
    const at = cell * this.slots + this.part;
    if (this.cells[at] === 0) this.touched.push(at);
    this.cells[at] = this.cells[at]! + weight;
    if (this.totals[cell] === 0) this.touchedCells.push(cell);
    this.totals[cell] = this.totals[cell]! + weight;
  };

  /** Expected fall of the entropy over parts, bits. */
  information(test: Test, predictions: readonly Prediction[]): number {
    const { cells, totals, touched, touchedCells } = this;
    for (let h = 0; h < predictions.length; h++) {
      this.part = this.hypotheses[h]!.part + 1;
      this.weight = this.hypotheses[h]!.weight;
      spread(test, predictions[h]!, this.put);
    }
    let after = 0;
    for (const at of touched) {
      after -= xlogx(cells[at]!);
      cells[at] = 0;
    }
    for (const cell of touchedCells) {
      after += xlogx(totals[cell]!);
      totals[cell] = 0;
    }
    touched.length = 0;
    touchedCells.length = 0;
    return Math.max(0, (this.priorEntropy - after) / Math.LN2);
  }

  /** How surely an answer would clear the leading part if it were sound, bits: half the overlap distance. */
  refutation(test: Test, predictions: readonly Prediction[], ref: string): number {
    const guilty = new Map<number, number>();
    const sound = new Map<number, number>();
    let guiltyTotal = 0;
    predictions.forEach((prediction, h) => {
      const { ref: own, weight } = this.hypotheses[h]!;
      if (own === ref) {
        guiltyTotal += weight;
        spread(test, prediction, (cell, share) => guilty.set(cell, (guilty.get(cell) ?? 0) + weight * share));
      }
    });
    spread(test, predictions[0]!, (cell, share) => sound.set(cell, (sound.get(cell) ?? 0) + share));
    let overlap = 0;
    for (const [cell, share] of sound)
      overlap += Math.min(share, (guilty.get(cell) ?? 0) / (guiltyTotal || 1));
    return 2 * (1 - overlap);
  }
}

/** Puts an answer into cells: three points of its spread, or the choices. */
function spread(test: Test, prediction: Prediction, put: (cell: number, share: number) => void): void {
  if (prediction.type === 'choice') {
    for (const key in prediction.odds) {
      const share = prediction.odds[key]!;
      if (share > 1e-6) put(choiceCell(key), share);
    }
    return;
  }
  const { mean, sigma, loose } = prediction;
  if (mean === Infinity) return put(OVER_CELL, 1);
  // A pair that floats reads about nothing and wanders: it cannot be told from a dead one.
  if (loose) return put(cellOf(test.kind, mean), 1);
  const wide = totalSigma(test.kind, mean, sigma, test.meter);
  const [middle, below, above] = [
    cellOf(test.kind, mean),
    cellOf(test.kind, mean - 1.3 * wide),
    cellOf(test.kind, mean + 1.3 * wide),
  ];
  if (below === above) return put(middle, 1);
  put(middle, 0.5);
  put(below, 0.25);
  put(above, 0.25);
}

function choiceCell(key: string): number {
  let hash = 7;
  for (const letter of key) hash = (hash * 31 + letter.charCodeAt(0)) % (CELLS - 2);
  return hash;
}

function xlogx(value: number): number {
  return value > 0 ? value * Math.log(value) : 0;
}

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
function groupOutcomes(
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
    const mean = test.kind === 'amps' ? Math.abs(prediction.mean) : prediction.mean;
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
    reading: band.over && band.low === Infinity ? 'OL' : band.middle,
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

function choiceValue(kind: Test['kind'], key: string): Reading['value'] {
  if (kind === 'click') return key === 'true';
  if (kind === 'code') return key === '' ? [] : key.split(',').map(Number);
  return key as Reading['value'];
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

function expectedValue(test: Test, prediction: Prediction): Reading['value'] {
  if (prediction.type === 'number') return prediction.mean === Infinity ? 'OL' : prediction.mean;
  const [best = ''] = Object.entries(prediction.odds).sort((a, b) => b[1] - a[1])[0] ?? [];
  return choiceValue(test.kind, best);
}
