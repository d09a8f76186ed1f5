import type { Edit } from '../circuit/edits';
import type { CircuitModel } from '../circuit/model';
import type { FaultTable, Fit, Row } from './faultTable';
import { logLikelihood, type Observation } from './observations';
import type { Prediction } from './prediction';
import type { Weighed } from './weighed';
import { predict } from './predict';
import { logMasses, logSpaced, logSum, sum } from './severity';

/** How much rarer two faults at once are than chance would have it: most machines break one thing at a time. */
const PAIR_FACTOR = 0.08;
/** Parts already under suspicion whose pairs are always looked at. */
const ALWAYS = 4;
/** When nothing fits: leading faults, and those that explain one stubborn reading best. */
const LEADING = 10;
const STUBBORN_READINGS = 3;
const FOR_EACH = 7;
/** Faults looked at beside one that was mended. */
const LATELY = 16;
/** Pairs whose severities are worked out properly. */
const MOST_PAIRS = 10;
const COARSE = 14;
const ROUNDS = 2;
/** Pairs this far below the best single fault are dropped, log. */
const LEAST_WORTH = 12;

interface PairQuestion {
  model: CircuitModel;
  table: FaultTable;
  observations: readonly Observation[];
  fits: readonly Fit[];
  weighed: readonly Weighed[];
  /** Nothing single fits: look beyond the leading parts. */
  widely: boolean;
  /** Parts that were mended up to now: what each had is gone from what was read since. */
  mended: ReadonlySet<number>;
  /** Logarithm of a row's prior, with what was said and seen. */
  odds: (row: Row) => number;
  /** What the readings say together beside each by itself, under given predictions. */
  together: (peek: (observation: number) => Prediction) => number;
}

interface Tried {
  rows: [Row, Row];
  severities: [number, number];
  log: number;
}

/** Two faults at once, weighed: always for the leading parts, widely when no single fault explains the readings. */
export function weighPairs(question: PairQuestion): Weighed[] {
  const { observations, weighed, widely } = question;
  if (observations.length < 2) return [];
  const best = weighed.reduce((top, { log }) => Math.max(top, log), -Infinity);
  const candidates = suspectRows(question);
  const tried: Tried[] = [];
  candidates.forEach((one, at) => {
    for (const two of candidates.slice(at + 1)) {
      const [a, b] = [question.table.faults[one.row.fault]!, question.table.faults[two.row.fault]!];
      if (a.part === b.part) continue;
      // Adding a fault to one that explains everything already buys nothing.
      if (!widely && one.fits && two.fits) continue;
      for (const s of one.severities) {
        for (const t of two.severities) {
          const log = fitPair(question, one.row, two.row, s, t);
          tried.push({
            rows: [one.row, two.row],
            severities: [s, t],
            log: log + priorOf(question, one.row, two.row),
          });
        }
      }
    }
  });
  tried.sort((x, y) => y.log - x.log);
  const kept = new Map<string, Tried>();
  for (const one of tried) {
    if (kept.size >= MOST_PAIRS) break;
    const key = one.rows.map(({ start }) => start).join();
    if (!kept.has(key)) kept.set(key, one);
  }
  const pairs = [...kept.values()]
    .filter(({ log }) => log > best - 2 * LEAST_WORTH)
    .map((one) => settled(question, one))
    .filter(({ log }) => log > best - LEAST_WORTH);
  return oriented(pairs, question.mended);
}

function priorOf({ odds }: PairQuestion, one: Row, two: Row): number {
  return odds(one) + odds(two) + Math.log(PAIR_FACTOR);
}

/** Rows worth pairing, each with the severities that its own readings ask for. */
function suspectRows({ table, observations, fits, weighed, widely, odds, mended }: PairQuestion) {
  const order = weighed.map((_one, f) => f).sort((a, b) => weighed[b]!.log - weighed[a]!.log);
  const chosen = new Map<Row, { row: Row; severities: Set<number>; fits: boolean }>();
  const choose = (row: Row, severity: number, explains: boolean) => {
    const known = chosen.get(row) ?? { row, severities: new Set<number>(), fits: explains };
    if (known.severities.size < 2) known.severities.add(severity);
    chosen.set(row, known);
  };
  const bestCell = (row: Row, score: (cell: number) => number) => {
    let at = 0;
    row.grid.forEach((_severity, s) => {
      if (score(row.start + s) > score(row.start + at)) at = s;
    });
    return row.grid[at]!;
  };
  const total = (cell: number) => sum(fits.map(({ cells }) => cells[cell]!));
  const heaviest = (f: number, score: (cell: number) => number) => {
    const rows = table.rows.filter((row) => row.fault === f);
    const worth = (row: Row) =>
      odds(row) + row.grid.reduce((top, _severity, s) => Math.max(top, score(row.start + s)), -Infinity);
    return rows.reduce((top, row) => (worth(row) > worth(top) ? row : top));
  };
  for (const f of order.slice(0, widely ? LEADING : ALWAYS)) {
    const row = heaviest(f, total);
    choose(row, table.faults[f]!.severity ? weighed[f]!.severity : bestCell(row, total), true);
  }
  if (!widely) return [...chosen.values()];
  // What else there may be, once something was mended, is what explains what was read since.
  const since = fits.filter((_fit, k) => observations[k]!.mended.size > 0);
  if (mended.size > 0 && since.length > 0) {
    const lately = (cell: number) => sum(since.map(({ cells }) => cells[cell]!));
    const worth = ({ start, grid }: Row) =>
      grid.reduce((top, _severity, s) => Math.max(top, lately(start + s)), -Infinity);
    const scored = table.rows
      .map((row) => ({ row, worth: odds(row) + worth(row) }))
      .sort((a, b) => b.worth - a.worth)
      .slice(0, LATELY);
    for (const { row } of scored) choose(row, bestCell(row, lately), false);
  }
  const lead = weighed[order[0]!]!;
  const stubborn = observations
    .map((_one, k) => ({ k, fit: lead.fits[k]! - Math.max(...fits[k]!.reach) }))
    .sort((a, b) => a.fit - b.fit)
    .slice(0, STUBBORN_READINGS);
  for (const { k } of stubborn) {
    const scored = table.rows
      .map((row, r) => ({ row, worth: odds(row) + fits[k]!.reach[r]! }))
      .sort((a, b) => b.worth - a.worth)
      .slice(0, FOR_EACH);
    for (const { row } of scored)
      choose(
        row,
        bestCell(row, (cell) => fits[k]!.cells[cell]!),
        false,
      );
  }
  return [...chosen.values()];
}

function fitPair(question: PairQuestion, one: Row, two: Row, s: number, t: number): number {
  const { model, observations, together } = question;
  const during = leftDuring(question, one, two, s, t);
  const predictions = observations.map(({ bound, mended }) => predict(bound, during(mended)));
  const each = observations.map((observation, k) =>
    logLikelihood(observation, predictions[k]!, model.compiled.supplyVolts),
  );
  return sum(each) + together((k) => predictions[k]!);
}

/** What two faults leave wrong once given parts are mended; the same list for the same parts. */
function leftDuring(
  { table }: PairQuestion,
  one: Row,
  two: Row,
  s: number,
  t: number,
): (mended: ReadonlySet<number>) => readonly Edit[] {
  const worlds = new Map<string, readonly Edit[]>();
  return (mended) => {
    const left = [one, two].map(({ fault }) => !mended.has(table.faults[fault]!.part));
    const key = left.join();
    const known = worlds.get(key) ?? [
      ...(left[0] ? one.variant.edits(s) : []),
      ...(left[1] ? two.variant.edits(t) : []),
    ];
    worlds.set(key, known);
    return known;
  };
}

/** Finds a pair's severities by turns, and its evidence: each integrated with the other at its best. */
function settled(question: PairQuestion, { rows, severities: first }: Tried): Weighed {
  const { table, observations, model } = question;
  const at: [number, number] = [...first];
  const profiles: { severities: number[]; logs: number[] }[] = [];
  for (let round = 0; round < ROUNDS; round++) {
    for (const side of [0, 1] as const) {
      const range = table.faults[rows[side].fault]!.severity;
      const value = (severity: number) =>
        side === 0
          ? fitPair(question, rows[0], rows[1], severity, at[1])
          : fitPair(question, rows[0], rows[1], at[0], severity);
      if (!range) {
        profiles[side] = { severities: [1], logs: [value(1)] };
        continue;
      }
      const seen = new Map<number, number>();
      const look = (list: readonly number[]) => {
        for (const severity of list) if (!seen.has(severity)) seen.set(severity, value(severity));
        for (const [severity, log] of seen) if (log > (seen.get(at[side]) ?? -Infinity)) at[side] = severity;
      };
      look([at[side], ...logSpaced(range.least, range.most, COARSE)]);
      let step = Math.log(range.most / range.least) / COARSE;
      for (let zoom = 0; zoom < 4; zoom++) {
        look(logSpaced(at[side] * Math.exp(-step), at[side] * Math.exp(step), 7));
        step /= 3;
      }
      const severities = [...seen.keys()].sort((a, b) => a - b);
      profiles[side] = { severities, logs: severities.map((severity) => seen.get(severity)!) };
    }
  }
  const peak = fitPair(question, rows[0], rows[1], at[0], at[1]);
  const occam = [0, 1].map((side) => {
    const { severities, logs } = profiles[side]!;
    const masses = logMasses(severities, table.faults[rows[side]!.fault]!.severity);
    return Math.min(0, logSum(logs.map((log, s) => log + masses[s]!)) - peak);
  });
  const [fault, partner] = [table.faults[rows[0].fault]!, table.faults[rows[1].fault]!];
  const during = leftDuring(question, rows[0], rows[1], at[0], at[1]);
  const both = during(new Set());
  const now = during(question.mended);
  return {
    log: peak + sum(occam) + priorOf(question, rows[0], rows[1]),
    fault,
    severity: at[0],
    fits: observations.map((one) =>
      logLikelihood(one, predict(one.bound, during(one.mended)), model.compiled.supplyVolts),
    ),
    details: () => ({
      points: [
        {
          variant: 0,
          severity: at[0],
          weight: 1,
          edits: () => (now.length > 0 ? now : both),
          during: (k) => during(observations[k]!.mended),
          now: () => now,
        },
      ],
      intermittent: 0,
    }),
    partner: { fault: partner, severity: at[1] },
  };
}

/** Turns each pair so that the part that most pairs agree on comes first: it is the one to prove. */
function oriented(pairs: readonly Weighed[], mended: ReadonlySet<number>): Weighed[] {
  const weight = new Map<number, number>();
  const top = pairs.reduce((most, { log }) => Math.max(most, log), -Infinity);
  for (const { log, fault, partner } of pairs) {
    for (const { part } of [fault, partner!.fault]) {
      weight.set(part, (weight.get(part) ?? 0) + Math.exp(log - top));
    }
  }
  return pairs.map((pair) => {
    const { fault, partner, severity } = pair;
    const turned: Weighed = {
      ...pair,
      fault: partner!.fault,
      severity: partner!.severity,
      partner: { fault, severity },
    };
    // What was mended is no longer looked for: the other is.
    if (mended.has(fault.part) !== mended.has(partner!.fault.part)) {
      const left = mended.has(fault.part) ? turned : pair;
      return { ...left, partner: { ...left.partner!, mended: true } };
    }
    return weight.get(fault.part)! >= weight.get(partner!.fault.part)! ? pair : turned;
  });
}
