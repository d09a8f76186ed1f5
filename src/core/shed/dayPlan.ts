import { samePerson, type Licence, type Person } from '../people/roles';
import type { MinutesLeft } from './minutesLeft';

/** The day of a shed: who does which job after which, against the hour at which the machines go out. */

/** A job in hand, as far as a plan asks. */
export interface DayJob {
  number: number;
  /** Minutes of work that it still needs; null where nobody knows. */
  left: MinutesLeft | null;
  /** Who began it, or has it now. */
  person: string | null;
  /** Only people who hold all of these do it. */
  licences: readonly Licence[];
  /** A part that was asked for is not here yet. */
  waitsForPart: boolean;
}

export type DayPerson = Pick<Person, 'name' | 'role' | 'licences'>;

/** Until when people are here today, minutes from now, by their names; 0 for who is not. Who is not named stays as long as it takes. */
export type Here = ReadonlyMap<string, number>;
const ALL_HERE: Here = new Map();

/** Who does what after what, by the jobs' numbers. */
export interface DayRow {
  person: string;
  jobs: number[];
}

/** Why a job stands in nobody's row. */
export type NotPlanned = 'part' | 'notWeighed' | 'licence' | 'notHere';
/** Why a job stands in somebody's row. */
export type PlannedFor = 'theirs' | 'onlyLicensed' | 'firstFree';

export interface DayProposal {
  rows: DayRow[];
  why: Map<number, PlannedFor>;
  left: { number: number; why: NotPlanned }[];
}

/** When a job of a row begins and ends, minutes from now, as it comes out at best and at worst. */
export interface Standing {
  begins: MinutesLeft;
  ends: MinutesLeft;
  /** How likely it is done by the hour; null where there is none. */
  inTime: number | null;
  /** Minutes late that are to be expected; 0 where there is no hour. */
  late: number;
}

/** Whoever takes a job over from somebody first has to see what was done, minutes (shop rule). */
const TAKE_OVER_MINUTES = 8;
/** Of two plans that are equally late the one whose jobs end earlier. */
const WAITING_WEIGHT = 0.01;
const MOST_ROUNDS = 40;

/** Whether somebody may be given a job: a reader does none, and what wants a licence goes to who holds it. */
export function mayDo({ role, licences }: DayPerson, job: Pick<DayJob, 'licences'>): boolean {
  return role !== 'reader' && job.licences.every((one) => licences.includes(one));
}

/**
 * The plan of least expected lateness: each job's minutes lie anywhere between its least and its most, those of a row add up, and what comes
 * out beyond the hour counts by how far. Shortest first to whoever is free first, then moved about while that helps (list scheduling with
 * exchange; near the best, not proved to be it). Null minutes to the hour: there is none, and waiting alone counts.
 */
export function proposeDay(
  jobs: readonly DayJob[],
  people: readonly DayPerson[],
  minutesToOut: number | null,
  here: Here = ALL_HERE,
): DayProposal {
  const workers = people.filter(({ name, role }) => role !== 'reader' && here.get(name) !== 0);
  const left: DayProposal['left'] = [];
  const planned: Known[] = [];
  for (const job of jobs) {
    if (job.waitsForPart) left.push({ number: job.number, why: 'part' });
    else if (!isKnown(job)) left.push({ number: job.number, why: 'notWeighed' });
    else if (!people.some((person) => mayDo(person, job))) left.push({ number: job.number, why: 'licence' });
    else if (!workers.some((person) => mayDo(person, job))) left.push({ number: job.number, why: 'notHere' });
    else planned.push(job);
  }
  let rows: Known[][] = workers.map(() => []);
  const cost = (of: readonly (readonly Known[])[]) =>
    of.reduce((sum, list, at) => sum + costOf(list, workers[at]!, minutesToOut, here), 0);
  const place = (job: Known, into: Known[][]): Known[][] => {
    let best: { rows: Known[][]; cost: number } | null = null;
    workers.forEach((person, at) => {
      if (!mayDo(person, job)) return;
      for (let k = 0; k <= into[at]!.length; k++) {
        const tried = into.map((list, row) => (row === at ? list.toSpliced(k, 0, job) : list));
        const value = cost(tried);
        if (!best || value < best.cost - 1e-9) best = { rows: tried, cost: value };
      }
    });
    return (best as { rows: Known[][] } | null)?.rows ?? into;
  };
  const byLength = planned.toSorted((one, two) => middleOf(one) - middleOf(two) || one.number - two.number);
  for (const job of byLength) rows = place(job, rows);
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const before = cost(rows);
    for (const job of byLength)
      rows = place(
        job,
        rows.map((list) => list.filter((one) => one !== job)),
      );
    if (cost(rows) >= before - 1e-9) break;
  }
  const why = new Map<number, PlannedFor>();
  rows.forEach((list, at) =>
    list.forEach((job) => {
      const able = workers.filter((person) => mayDo(person, job));
      const theirs = job.person !== null && samePerson(job.person, workers[at]!.name);
      why.set(job.number, theirs ? 'theirs' : able.length === 1 ? 'onlyLicensed' : 'firstFree');
    }),
  );
  return {
    rows: workers.map(({ name }, at) => ({ person: name, jobs: rows[at]!.map(({ number }) => number) })),
    why,
    left,
  };
}

/** How each job of a row comes out, one after the other; one whose minutes nobody knows takes none of the others' and is left out. */
export function standingOf(
  { person, jobs: numbers }: DayRow,
  jobs: ReadonlyMap<number, DayJob>,
  minutesToOut: number | null,
  here: Here = ALL_HERE,
): Map<number, Standing> {
  const until = soonerOf(minutesToOut, here.get(person) ?? null);
  const found = new Map<number, Standing>();
  let [begins, spread, middle] = [{ least: 0, most: 0 }, 0, 0];
  for (const number of numbers) {
    const job = jobs.get(number);
    if (!job || !isKnown(job)) continue;
    const own = minutesFor(job, person);
    const ends = { least: begins.least + own.least, most: begins.most + own.most };
    middle += (own.least + own.most) / 2;
    spread += (own.most - own.least) ** 2 / 12;
    found.set(number, {
      begins,
      ends,
      inTime: until === null ? null : normalBelow(until - middle, Math.sqrt(spread)),
      late: until === null ? 0 : expectedOver(middle - until, Math.sqrt(spread)),
    });
    begins = ends;
  }
  return found;
}

/** Up to so little hope a job is not done in time, and from so much on it is. */
const HARDLY = 0.1;
const SURE = 0.9;

/** Whether a job is hardly done by the hour; of no hour nothing is late. */
export function isNotTonight({ inTime }: Pick<Standing, 'inTime'>): boolean {
  return inTime !== null && inTime < HARDLY;
}

/** Whether it is as good as done by then. */
export function isInTime({ inTime }: Pick<Standing, 'inTime'>): boolean {
  return inTime !== null && inTime >= SURE;
}

/** Why a plan may not stand. The wording lives in the interface. */
export type DayTrouble =
  | { code: 'noSuchPerson'; person: string }
  | { code: 'noSuchJob'; number: number }
  | { code: 'twice'; number: number }
  | { code: 'mayNot'; person: string; number: number }
  | { code: 'notHere'; person: string };

/** What is wrong with a plan that somebody wants to keep; null where nothing is. A licence is judged here, whatever a browser let through. */
export function troubleOf(
  rows: readonly DayRow[],
  jobs: ReadonlyMap<number, DayJob>,
  people: readonly DayPerson[],
  here: Here = ALL_HERE,
): DayTrouble | null {
  const seen = new Set<number>();
  for (const { person: name, jobs: numbers } of rows) {
    const person = people.find((one) => samePerson(one.name, name));
    if (!person) return { code: 'noSuchPerson', person: name };
    if (here.get(name) === 0 && numbers.length > 0) return { code: 'notHere', person: name };
    for (const number of numbers) {
      const job = jobs.get(number);
      if (!job) return { code: 'noSuchJob', number };
      if (seen.has(number)) return { code: 'twice', number };
      seen.add(number);
      if (!mayDo(person, job)) return { code: 'mayNot', person: name, number };
    }
  }
  return null;
}

/** Minutes until a time of the day that a clock stands at next, "16:30" seen from "14:05"; within 24 hours. */
export function minutesUntil(time: string, now: string): number {
  const minutes = (one: string) => {
    const [hours = 0, rest = 0] = one.split(':').map(Number);
    return 60 * hours + rest;
  };
  const ahead = minutes(time) - minutes(now);
  return ahead > 0 ? ahead : ahead + 24 * 60;
}

/** A time of the day that lies further ahead than this was today, and is past. */
const MOST_AHEAD_MINUTES = 14 * 60;

/** Minutes that somebody is still here who goes home at a time of the day; 0 once it is past. */
export function minutesHere(until: string, now: string): number {
  const ahead = minutesUntil(until, now);
  return ahead > MOST_AHEAD_MINUTES ? 0 : ahead;
}

function soonerOf(one: number | null, other: number | null): number | null {
  return one === null || other === null ? (one ?? other) : Math.min(one, other);
}

type Known = DayJob & { left: MinutesLeft };

function isKnown(job: DayJob): job is Known {
  return job.left !== null;
}

const middleOf = ({ left }: Known) => (left.least + left.most) / 2;

/** A job's minutes in somebody's hands. */
function minutesFor({ left, person }: Known, name: string): MinutesLeft {
  const over = person !== null && !samePerson(person, name) ? TAKE_OVER_MINUTES : 0;
  return { least: left.least + over, most: left.most + over };
}

function costOf(
  list: readonly Known[],
  { name }: DayPerson,
  minutesToOut: number | null,
  here: Here,
): number {
  const row = { person: name, jobs: list.map(({ number }) => number) };
  const standing = standingOf(row, new Map(list.map((job) => [job.number, job])), minutesToOut, here);
  return [...standing.values()].reduce(
    (sum, { late, ends }) => sum + late + (WAITING_WEIGHT * (ends.least + ends.most)) / 2,
    0,
  );
}

/** Share of a normal deviation below a value. */
function normalBelow(value: number, sigma: number): number {
  if (sigma <= 0) return value >= 0 ? 1 : 0;
  const z = value / sigma;
  // Abramowitz and Stegun 7.1.26, within 1.5e-7.
  const x = Math.abs(z) / Math.SQRT2;
  const t = 1 / (1 + 0.3275911 * x);
  const tail =
    t *
    (0.254829592 + t * (-0.284496736 + t * (1.421413741 + t * (-1.453152027 + t * 1.061405429)))) *
    Math.exp(-x * x);
  return z >= 0 ? 1 - tail / 2 : tail / 2;
}

/** What a normal value of this middle is expected to lie above 0. */
function expectedOver(middle: number, sigma: number): number {
  if (sigma <= 0) return Math.max(middle, 0);
  const z = middle / sigma;
  return middle * normalBelow(middle, sigma) + (sigma * Math.exp(-0.5 * z * z)) / Math.sqrt(2 * Math.PI);
}
