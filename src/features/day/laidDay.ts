import { arrayMove } from '@dnd-kit/sortable';
import {
  proposeDay,
  type DayRow,
  type NotPlanned,
  type PlannedFor,
  type Standing,
} from '@/core/shed/dayPlan';
import { hereOf, type Day, type DayHours } from './day';

/** The row of what nobody does. */
export const NOBODY = '';

/** The day as it is laid out, with the row of what nobody does last. */
export interface Plan {
  rows: DayRow[];
  why: ReadonlyMap<number, PlannedFor | NotPlanned>;
}

/** The job that a thing under the hand is; null for a row. Jobs go by their numbers, rows by who they belong to. */
export function jobAt(id: string | number): number | null {
  return typeof id === 'number' ? id : null;
}

/** Whose row a job stands in. */
export function holderOf(rows: readonly DayRow[], number: number): string {
  return rows.find(({ jobs }) => jobs.includes(number))?.person ?? NOBODY;
}

/** A job in somebody's row, ahead of another one there or last, and in no other row. */
export function given(
  rows: readonly DayRow[],
  number: number,
  person: string,
  before: number | null,
): DayRow[] {
  return rows.map((row) => {
    const rest = row.jobs.filter((one) => one !== number);
    if (row.person !== person) return { ...row, jobs: rest };
    const at = before === null ? -1 : rest.indexOf(before);
    return { ...row, jobs: rest.toSpliced(at < 0 ? rest.length : at, 0, number) };
  });
}

/** A job in the place of another one of its own row; the same rows where they do not share one. */
export function movedTo(rows: readonly DayRow[], number: number, place: number): DayRow[] {
  return rows.map((row) => {
    const [from, to] = [row.jobs.indexOf(number), row.jobs.indexOf(place)];
    return from < 0 || to < 0 ? row : { ...row, jobs: arrayMove(row.jobs, from, to) };
  });
}

/** The line is as long as what is planned, and to the hour and a little beyond it where that is not far behind. */
export function spanOf(standings: ReadonlyMap<number, Standing>, out: number | null): number {
  const last = Math.max(30, ...[...standings.values()].map(({ ends }) => ends.most));
  if (out === null || last < FAR_SHARE * out) return last;
  return Math.max(Math.min(last, 2 * out), 1.15 * out);
}

/** An hour that lies further off than what is planned reaches would leave the bars a finger wide. */
const FAR_SHARE = 0.6;

/** What is proposed, with what nobody can do yet. */
export function proposalOf({ cards, people, out, now }: Day, hours: DayHours): Plan {
  const { rows: given, why, left } = proposeDay(cards, people, out?.minutes ?? null, hereOf(hours, now));
  // Who is not here keeps an empty row: they may come after all.
  const rows = people.map(
    ({ name }) => given.find(({ person }) => person === name) ?? { person: name, jobs: [] },
  );
  return {
    rows: [...rows, { person: NOBODY, jobs: left.map(({ number }) => number) }],
    why: new Map<number, PlannedFor | NotPlanned>([
      ...why,
      ...left.map((one): [number, NotPlanned] => [one.number, one.why]),
    ]),
  };
}

/** What somebody laid out, as far as it still stands: who has come and what is new goes to nobody yet, what was handed over is gone. */
export function asItStands(day: Day, laid: readonly DayRow[], hours: DayHours): Plan {
  const { why } = proposalOf(day, hours);
  const numbers = day.cards.map(({ number }) => number);
  const rows = day.people.map(({ name }) => ({
    person: name,
    jobs: (laid.find(({ person }) => person === name)?.jobs ?? []).filter((number) =>
      numbers.includes(number),
    ),
  }));
  const given = new Set(rows.flatMap((row) => row.jobs));
  const before = laid.find(({ person }) => person === NOBODY)?.jobs ?? [];
  const nobody = [...new Set([...before, ...numbers])].filter(
    (number) => numbers.includes(number) && !given.has(number),
  );
  return { rows: [...rows, { person: NOBODY, jobs: nobody }], why };
}
