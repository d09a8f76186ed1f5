'use client';

import type { DragEndEvent, DragOverEvent } from '@dnd-kit/core';
import { useMemo, useState, useTransition } from 'react';
import { mayDo, standingOf, type DayRow } from '@/core/shed/dayPlan';
import { wantsWords } from '@/words/en/day';
import { sent } from '../sent';
import { keepDay } from './actions';
import { hereOf, type Day, type DayHours } from './day';
import { asItStands, given, holderOf, jobAt, movedTo, NOBODY, proposalOf, spanOf } from './laidDay';

const NO_HOURS: DayHours = {};

export type LaidDay = ReturnType<typeof useDayPlan>;

/** The day as it is laid out on this screen: what was moved and is not kept yet, else what is kept, else what is proposed. */
export function useDayPlan(day: Day) {
  const { cards, people, out, now, kept } = day;
  const jobs = useMemo(() => new Map(cards.map((card) => [card.number, card])), [cards]);
  // What was moved here and is not kept yet; until then what is kept stands, or what is proposed from what is known by now.
  const [own, setOwn] = useState<{ rows: DayRow[]; hours: DayHours; since: string | null } | null>(null);
  const hours = own?.hours ?? kept?.hours ?? NO_HOURS;
  const proposed = useMemo(() => proposalOf(day, hours), [day, hours]);
  const plan = useMemo(() => {
    const rows = own?.rows ?? kept?.rows;
    return rows ? asItStands(day, rows, hours) : proposed;
  }, [own, kept, day, proposed, hours]);
  const here = useMemo(() => hereOf(hours, now), [hours, now]);
  const [trouble, setTrouble] = useState<string | null>(null);
  const [said, setSaid] = useState('');
  const [busy, start] = useTransition();
  const standings = useMemo(
    () =>
      new Map(
        plan.rows
          .filter(({ person }) => person !== NOBODY)
          .flatMap((row) => [...standingOf(row, jobs, out?.minutes ?? null, here)]),
      ),
    [plan, jobs, out, here],
  );
  const span = spanOf(standings, out?.minutes ?? null);
  const change = (rows: DayRow[], until = hours) => {
    // A plan that came meanwhile is not what these moves began from.
    setOwn({ rows, hours: until, since: own ? own.since : day.since });
    setSaid('');
  };
  /** When somebody goes home, or that they are not here: what they had goes to nobody yet. */
  const setHours = (person: string, until: string | null) => {
    const { [person]: _before, ...others } = hours;
    const next = until === null ? others : { ...others, [person]: until };
    const gone = hereOf(next, now).get(person) === 0;
    const freed = plan.rows.find((row) => row.person === person)?.jobs ?? [];
    change(
      gone
        ? plan.rows.map((row) =>
            row.person === person
              ? { ...row, jobs: [] }
              : row.person === NOBODY
                ? { ...row, jobs: [...row.jobs, ...freed] }
                : row,
          )
        : plan.rows,
      next,
    );
  };
  /** Gives a job to somebody; what wants a licence goes to who holds it. */
  function give(number: number, person: string, before: number | null = null) {
    const to = people.find(({ name }) => name === person);
    const { licences } = jobs.get(number)!;
    if (person !== NOBODY && (!to || !mayDo(to, { licences }))) {
      setTrouble(`Job ${number} wants somebody licensed for ${wantsWords(licences)}.`);
      return;
    }
    if (here.get(person) === 0) {
      setTrouble(`${person} is not here any more today.`);
      return;
    }
    setTrouble(null);
    change(given(plan.rows, number, person, before));
  }

  /** A card is over somebody else's row, or over one of their cards. */
  function over({ active, over: target }: DragOverEvent) {
    const number = jobAt(active.id);
    if (!target || number === null) return;
    const before = jobAt(target.id);
    const to = before === null ? String(target.id) : holderOf(plan.rows, before);
    if (holderOf(plan.rows, number) !== to) give(number, to, before);
  }

  /** A card was let go of over another one of the same row. */
  function dropped({ active, over: target }: DragEndEvent) {
    const [number, place] = [jobAt(active.id), target && jobAt(target.id)];
    if (number === null || place === null || number === place) return;
    change(movedTo(plan.rows, number, place));
  }

  const keep = () =>
    start(async () => {
      const rows = plan.rows.filter(({ person }) => person !== NOBODY);
      const answer = await sent(keepDay(rows, hours, own ? own.since : day.since));
      setTrouble(answer.trouble);
      if (answer.trouble !== null) return;
      setOwn(null);
      setSaid('Kept: everybody sees it.');
    });

  return {
    plan,
    jobs,
    hours,
    standings,
    span,
    trouble,
    said,
    busy,
    /** Something was moved here and is not kept yet. */
    moved: own !== null,
    setHours,
    give,
    over,
    dropped,
    keep,
    /** Back to what is kept. */
    asKept: () => {
      setOwn(null);
      setTrouble(null);
    },
    proposeAnew: () => {
      change(proposed.rows);
      setTrouble(null);
    },
  };
}
