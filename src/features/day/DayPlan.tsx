'use client';

import {
  closestCorners,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useDroppable,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import {
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { GripVertical } from 'lucide-react';
import { Link } from '@/ui/Link';
import { isNotTonight, type NotPlanned, type PlannedFor, type Standing } from '@/core/shed/dayPlan';
import { MainKey, Nothing, PlainKey, Trouble } from '@/ui/sheet';
import { dayWords, NOT_PLANNED, PLANNED_FOR, standingWords, wantsWords } from '@/words/en/day';
import { capital } from '@/words/en/capital';
import { leftWords } from '@/words/en/history';
import { LookAgain } from '../shed/LookAgain';
import type { Day, DayCard } from './day';
import { useDayPlan, type LaidDay } from './useDayPlan';
import { DayBar } from './DayBar';
import { NOBODY } from './laidDay';

/** Who does what after what today, dragged by hand or moved by keyboard, kept for everybody. */
export function DayPlan({ day, mayPlan }: { day: Day; mayPlan: boolean }) {
  const { cards } = day;
  const laid = useDayPlan(day);
  const { plan, jobs, hours, standings, span } = laid;
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 6 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  if (cards.length === 0) return <Nothing>No jobs in hand: the day is free.</Nothing>;
  return (
    <>
      <DayHead day={day} laid={laid} mayPlan={mayPlan} />
      {laid.trouble ? <Trouble>{laid.trouble}</Trouble> : null}
      <DndContext
        id="day"
        sensors={sensors}
        collisionDetection={closestCorners}
        onDragOver={laid.over}
        onDragEnd={laid.dropped}
      >
        {plan.rows.map(({ person, jobs: numbers }) => (
          <PersonRow
            key={person || 'nobody'}
            person={person}
            numbers={numbers}
            day={day}
            until={hours[person] ?? null}
            onHours={mayPlan && person !== NOBODY ? (until) => laid.setHours(person, until) : null}
          >
            {numbers.map((number) => (
              <Card
                key={number}
                card={jobs.get(number)!}
                person={person}
                why={plan.why.get(number) ?? null}
                standing={standings.get(number) ?? null}
                span={span}
                day={day}
                fixed={!mayPlan}
                onGive={(to) => laid.give(number, to)}
              />
            ))}
          </PersonRow>
        ))}
      </DndContext>
      <OutNote day={day} span={span} />
      {cards.some(({ next }) => next === '') ? <LookAgain /> : null}
      {day.more > 0 ? (
        <p className="pt-2 text-[15.5px] text-ink2">{day.more} more jobs in hand are not laid out here.</p>
      ) : null}
    </>
  );
}

/** How the day stands, whose plan it is, and what is done with it. */
function DayHead({ day: { out, kept }, laid, mayPlan }: { day: Day; laid: LaidDay; mayPlan: boolean }) {
  return (
    <div className="flex flex-wrap items-center gap-x-4 gap-y-2 py-3">
      <p className="text-[18px] font-[650]" data-testid="day-says">
        {dayWords([...laid.standings.values()], out !== null)}
      </p>
      <p className="text-[15.5px] text-ink2" role="status" aria-live="polite">
        {laid.said ||
          (laid.moved
            ? 'Moved, not kept yet.'
            : kept
              ? `Kept by ${kept.person}.`
              : 'Proposed, kept by nobody yet.')}
      </p>
      {mayPlan ? (
        <div className="ml-auto flex gap-2 print:hidden">
          {laid.moved && kept ? <PlainKey onClick={laid.asKept}>As it was kept</PlainKey> : null}
          <PlainKey onClick={laid.proposeAnew}>Propose anew</PlainKey>
          <MainKey onClick={laid.keep} disabled={laid.busy}>
            Keep this plan
          </MainKey>
        </div>
      ) : null}
    </div>
  );
}

/** What the lines of the jobs are drawn against. */
function OutNote({ day: { out, now }, span }: { day: Day; span: number }) {
  if (!out)
    return (
      <p className="pt-3 text-[15.5px] text-ink2">
        When the machines go out is not written yet: it stands in{' '}
        <Link href="/policy" className="underline underline-offset-4">
          Site policy
        </Link>
        . Until then nothing is called late.
      </p>
    );
  return (
    <p className="pt-3 text-[15.5px] text-ink2">
      {span > out.minutes
        ? `The thick line is ${out.time}, when the machines go out; now it is ${now}.`
        : `The machines go out at ${out.time}, beyond the end of the line; now it is ${now}.`}{' '}
      Solid is what a job takes at least, hatched up to what it may take. What is proposed keeps the lateness
      to be expected small: shortest first, to who is free first, then moved about as long as that helps.
    </p>
  );
}

function PersonRow({
  person,
  numbers,
  day,
  until,
  onHours,
  children,
}: {
  person: string;
  numbers: readonly number[];
  day: Day;
  until: string | null;
  onHours: ((until: string | null) => void) | null;
  children: React.ReactNode;
}) {
  const { setNodeRef, isOver } = useDroppable({ id: person });
  const held = day.people.find(({ name }) => name === person)?.licences ?? [];
  return (
    <section aria-label={person || 'Nobody yet'} className="pt-3" data-testid="day-row" data-person={person}>
      <h2 className="flex flex-wrap items-baseline gap-x-3 border-b-2 border-ink py-1 text-[19px] font-[780]">
        {person || 'Nobody yet'}
        {held.length > 0 ? (
          <span className="text-[15.5px] font-[550] text-ink2">{wantsWords(held)}</span>
        ) : null}
        <Hours person={person} until={until} onHours={onHours} />
      </h2>
      <SortableContext items={[...numbers]} strategy={verticalListSortingStrategy}>
        <ol ref={setNodeRef} className={`min-h-11 ${isOver ? 'bg-film' : ''}`}>
          {children}
          {numbers.length === 0 ? <li className="py-2 text-[16px] text-ink2">Nothing</li> : null}
        </ol>
      </SortableContext>
    </section>
  );
}

/** Until when somebody is here today. */
function Hours({
  person,
  until,
  onHours,
}: {
  person: string;
  until: string | null;
  onHours: ((until: string | null) => void) | null;
}) {
  const said = until === null ? '' : until === 'away' ? 'not here today' : `here until ${until}`;
  if (!onHours) return <span className="ml-auto text-[15.5px] font-[550] text-ink2">{said}</span>;
  return (
    <span className="ml-auto flex items-center gap-2 text-[15.5px] font-[550]">
      <span className="hidden text-ink2 print:inline">{said}</span>
      <label className="flex items-center gap-2 print:hidden">
        Until
        <input
          type="time"
          aria-label={`${person} is here until`}
          className="fig min-h-11 border-[1.5px] border-edge bg-sheet px-2"
          value={until === 'away' ? '' : (until ?? '')}
          disabled={until === 'away'}
          onChange={(event) => onHours(event.target.value || null)}
        />
      </label>
      <PlainKey
        className="px-3! text-[15.5px]! print:hidden"
        aria-pressed={until === 'away'}
        onClick={() => onHours(until === 'away' ? null : 'away')}
      >
        Not here
      </PlainKey>
    </span>
  );
}

function Card({
  card,
  person,
  why,
  standing,
  span,
  day,
  fixed,
  onGive,
}: {
  card: DayCard;
  person: string;
  why: PlannedFor | NotPlanned | null;
  standing: Standing | null;
  span: number;
  day: Day;
  fixed: boolean;
  onGive: (person: string) => void;
}) {
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition } = useSortable({
    id: card.number,
    disabled: fixed,
  });
  return (
    <li
      ref={setNodeRef}
      style={{ transform: CSS.Transform.toString(transform), transition }}
      className="grid grid-cols-[44px_minmax(0,1fr)_140px_minmax(0,420px)] items-center gap-x-3 border-b-[1.5px] border-rule bg-sheet py-1 max-desk:grid-cols-[44px_minmax(0,1fr)] print:grid-cols-[minmax(0,1fr)_minmax(0,360px)]"
      data-testid="day-job"
    >
      {fixed ? (
        <span className="print:hidden" />
      ) : (
        <button
          type="button"
          ref={setActivatorNodeRef}
          {...attributes}
          {...listeners}
          aria-label={`Move job ${card.number}`}
          className="flex size-11 touch-none items-center justify-center text-ink2 print:hidden"
        >
          <GripVertical size={22} aria-hidden />
        </button>
      )}
      <div className="min-w-0">
        <p className="flex flex-wrap items-baseline gap-x-2">
          <span className="fig-bold text-[19px]">{card.machineCode}</span>
          <Link href={`/jobs/${card.number}`} className="min-w-0 text-[17px] font-[700] underline-offset-4">
            {card.title}
          </Link>
        </p>
        <p className="text-[15.5px] text-ink2">
          Job {card.number}
          {card.left ? `, ${leftWords(card.left)} of work` : ''}
          {card.licences.length > 0 ? `, ${wantsWords(card.licences)}` : ''}
          {why ? `. ${reasonWords(person, why)}` : ''}
        </p>
      </div>
      {fixed ? (
        <span className="max-desk:hidden print:hidden" />
      ) : (
        <label className="max-desk:col-span-2 max-desk:pl-14 print:hidden">
          <span className="sr-only">With, job {card.number}</span>
          <select
            className="min-h-11 w-full border-2 border-line bg-sheet px-2 text-[16px] max-desk:w-[180px]"
            value={person}
            onChange={(event) => onGive(event.target.value)}
          >
            {['', ...day.people.map(({ name }) => name)].map((name) => (
              <option key={name} value={name}>
                {name || 'nobody yet'}
              </option>
            ))}
          </select>
        </label>
      )}
      <div className="max-desk:col-span-2 max-desk:pl-14">
        <DayBar standing={standing} span={span} out={day.out?.minutes ?? null} />
        <p
          className={`text-[16px] font-[650] ${standing && isNotTonight(standing) ? 'text-copper-ink' : 'text-ink2'}`}
        >
          {standing ? standingWords(standing, day.now) : ''}
        </p>
      </div>
    </li>
  );
}

function reasonWords(person: string, why: PlannedFor | NotPlanned): string {
  if (why in PLANNED_FOR && person !== NOBODY) return `${person} ${PLANNED_FOR[why as PlannedFor]}`;
  return person === NOBODY && why in NOT_PLANNED ? capital(NOT_PLANNED[why as NotPlanned]) : '';
}
