'use client';

import { Check, Lock, LockOpen, Printer } from 'lucide-react';
import { Link } from '@/ui/Link';
import { useMemo, useState } from 'react';
import { isolationPlan, stillLive, type IsolationPoint } from '@/core/safety/isolationPlan';
import { changeWords } from '@/words/en/holds';
import { writtenWords } from '@/words/en/times';
import { Heading, Hold, MainKey, PlainKey } from '@/ui/sheet';
import { useDesk } from '../desk/desk';
import { isBegun } from '../desk/steps';
import { StepLayout } from '../desk/StepLayout';
import { isSecondEyes, samePerson } from '@/core/people/roles';
import { SecondPerson } from '../people/SecondPerson';
import { LockLine } from './LockLine';
import { placeWords, PointForm } from './PointForm';
import { quantity } from '@/words/en/readings';
import { ENERGY_WORDS, pointTitle, stillLiveWords } from '@/words/en/energies';

/** Every energy that reaches the work: isolated, locked, released and proved, then signed. */
export function MakeSafeScreen() {
  const { speaker, log } = useDesk();
  const plan = useMemo(() => isolationPlan(speaker.model), [speaker]);
  const { isolated } = log.state;
  const open = plan.filter(({ point }) => !isolated.has(point));
  const [shown, setShown] = useState<string | null>(null);
  const first = shown ?? open[0]?.point ?? null;
  return (
    <StepLayout
      left={
        <section aria-labelledby="plan">
          <Heading id="plan" aside={`${plan.length - open.length} of ${plan.length} closed`}>
            Energies at this work
          </Heading>
          <ol>
            {plan.map((point) => (
              <PointRow
                key={point.point}
                point={point}
                open={first === point.point}
                onOpen={() => setShown(first === point.point ? '' : point.point)}
                onDone={() => setShown(null)}
              />
            ))}
          </ol>
        </section>
      }
      right={
        <>
          <StillLive />
          <Hold>
            Name the energies. Lock, bleed, block, prove. If you cannot name them all, stop and ask.
          </Hold>
          {open.length === 0 ? <NoOwnLock plan={plan} /> : null}
          <section aria-labelledby="order" className="pt-2">
            <Heading id="order">Proving it dead</Heading>
            <ol className="list-decimal space-y-1 py-3 pl-6 text-[16.5px]">
              <li>Meter on a live source of the same kind: it reads.</li>
              <li>Meter on the work, every place named: it reads nothing.</li>
              <li>Meter on the live source again: it still reads.</li>
              <li>Any step fails: unknown counts as live.</li>
            </ol>
          </section>
          <LocksTakenOff />
        </>
      }
      foot={
        <>
          <HowItStands open={open} />
          <span className="ml-auto flex flex-wrap gap-3">
            <TagSheet />
            <Sign open={open} />
          </span>
        </>
      }
    />
  );
}

/** What the drawing still feeds as the locks stand. */
function StillLive() {
  const { speaker, log } = useDesk();
  const { model } = speaker;
  const { isolated } = log.state;
  const live = useMemo(() => stillLive(model, [...isolated.keys()]), [model, isolated]);
  return (
    <section aria-labelledby="live" className="pb-3">
      <Heading id="live" aside="worked out from the drawing, controls in their worst position">
        Still live as it stands
      </Heading>
      {live.length === 0 ? (
        <p className="flex items-center gap-2 py-3 text-[18px] text-verdi">
          <Check size={20} strokeWidth={3} aria-hidden /> Nothing on this drawing. The meter decides, not the
          drawing.
        </p>
      ) : (
        <ul className="py-2" data-testid="still-live">
          {live.map((one) => (
            <li key={one.node} className="fig flex min-h-9 items-center text-[17px]">
              {stillLiveWords(one, speaker.gaugeUnit)}
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}

/** Another's lock guards another: who puts their hands in has their own on. */
function NoOwnLock({ plan }: { plan: readonly IsolationPoint[] }) {
  const { log, person } = useDesk();
  const bare = plan.filter(
    ({ point }) => !(log.state.locks.get(point) ?? []).some((lock) => samePerson(lock.person, person)),
  );
  return bare.length === 0 ? null : (
    <p
      className="border-l-[6px] border-copper-ink bg-sheet px-4 py-2 text-[16.5px]"
      data-testid="no-own-lock"
    >
      {bare.length === plan.length
        ? 'None of these locks is yours'
        : `Your own lock is not on ${bare.map(({ label }) => label).join(', ')}`}
      . Before you put your hands in, put it on as well: each has their own lock.
    </p>
  );
}

function LocksTakenOff() {
  const { log, job } = useDesk();
  const reopened = log.state.safetyTrail.filter((entry) => entry.type === 'reopened');
  return reopened.length === 0 ? null : (
    <section aria-labelledby="opened">
      <Heading id="opened">Locks taken off</Heading>
      <ul>
        {reopened.map(({ id, body, at, person: who }) => (
          <li key={id} className="flex min-h-11 items-center gap-3 border-b-[1.5px] border-rule text-[16px]">
            <span className="fig text-[15px] text-ink2">
              {writtenWords(at, log.arrivals.get(id), job.policy.timeZone).slice(11)}
            </span>
            <strong className="fig-bold">{pointTitle(body.point)}</strong>
            <span className="min-w-0 flex-1">
              {body.owner ? `that of ${body.owner}: ${body.reason}` : body.reason}
            </span>
            <span className="text-ink2">{who}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** Whether it stands made safe, by whom, and what is open. */
function HowItStands({ open }: { open: IsolationPoint[] }) {
  const { log, job } = useDesk();
  const { madeSafe } = log.state;
  if (!madeSafe)
    return (
      <p className="text-[16.5px]">
        {open.length > 0
          ? `Still to close: ${open.map(({ label }) => label).join(', ')}.`
          : 'Every energy is closed. Your name goes under it.'}
      </p>
    );
  const when = writtenWords(madeSafe.at, log.arrivals.get(madeSafe.id), job.policy.timeZone);
  return open.length > 0 ? (
    <p className="text-[16.5px] font-[700] text-copper-ink" data-testid="opened-since">
      {changeWords({ state: 'openedForTest', open })} Signed by {madeSafe.person}, {when}.
    </p>
  ) : (
    <p className="flex items-center gap-2 text-[18px] font-[700] text-verdi" data-testid="made-safe">
      <Check size={20} strokeWidth={3} aria-hidden /> Made safe, signed by {madeSafe.person}
      {madeSafe.body.second ? ` beside ${madeSafe.body.second}` : ''}, {when}
    </p>
  );
}

function TagSheet() {
  const { job } = useDesk();
  return isBegun(job.number) ? (
    <span className="flex min-h-11 items-center text-[16px] text-ink2">
      Tags can be printed once the server has the job
    </span>
  ) : (
    <Link
      href={`/jobs/${job.number}/tags`}
      className="inline-flex min-h-11 items-center gap-2 border-[1.5px] border-edge bg-sheet px-5 text-[17px] font-[650]"
    >
      <Printer size={20} aria-hidden /> Tag sheet
    </Link>
  );
}

/** The name under the plan, a learner's beside that of somebody who looked; nothing once it is there. */
function Sign({ open }: { open: readonly IsolationPoint[] }) {
  const { log, person, job } = useDesk();
  const { madeSafe, isolated } = log.state;
  if (madeSafe) return null;
  const points = [...isolated.keys()];
  return job.me.role === 'learner' && job.policy.learnersSeen ? (
    <SecondPerson
      label="Looks at it beside you"
      done={`Sign as ${person}`}
      people={job.people.filter(isSecondEyes).map(({ name }) => name)}
      me={person}
      disabled={open.length > 0}
      onGiven={({ witness, name }) =>
        log.write({ type: 'madeSafe', witness, body: { points, second: name } })
      }
    />
  ) : (
    <MainKey disabled={open.length > 0} onClick={() => log.write({ type: 'madeSafe', body: { points } })}>
      Sign as {person}
    </MainKey>
  );
}

function PointRow({
  point,
  open,
  onOpen,
  onDone,
}: {
  point: IsolationPoint;
  open: boolean;
  onOpen: () => void;
  onDone: () => void;
}) {
  const { log } = useDesk();
  const entry = log.state.isolated.get(point.point);
  const locks = log.state.locks.get(point.point) ?? [];
  const words = ENERGY_WORDS[point.energy];
  return (
    <li className="border-b-[1.5px] border-rule">
      <button
        type="button"
        aria-expanded={open}
        onClick={onOpen}
        className="flex min-h-[56px] w-full items-center gap-3 py-1.5 text-left"
      >
        {entry ? (
          <Lock size={22} strokeWidth={2.6} className="shrink-0 text-verdi" aria-label="closed" />
        ) : (
          <LockOpen size={22} strokeWidth={2.2} className="shrink-0 text-copper-ink" aria-label="open" />
        )}
        <span className="min-w-0 flex-1">
          <span className="block truncate font-[720]">
            {words.name === point.label ? words.name : `${words.name}: ${point.label}`}
          </span>
          <span className="block text-[15.5px] text-ink2">
            {[point.place, point.reaches.length > 0 ? `reaches ${point.reaches.join(', ')}` : '']
              .filter(Boolean)
              .join(' · ')}
          </span>
        </span>
        {entry ? (
          <span className="shrink-0 text-right text-[15.5px]">
            {locks.map(({ id, body, person }) => (
              <span key={id} className="block">
                lock <span className="fig">{body.lock || '–'}</span>, {person}
              </span>
            ))}
          </span>
        ) : null}
      </button>
      {open ? entry ? <PointDone point={point} /> : <PointForm point={point} onDone={onDone} /> : null}
    </li>
  );
}

function PointDone({ point }: { point: IsolationPoint }) {
  const { log, speaker, job } = useDesk();
  const [adding, setAdding] = useState(false);
  const { body } = log.state.isolated.get(point.point)!;
  const locks = log.state.locks.get(point.point) ?? [];
  const { proved } = body;
  return (
    <div className="mb-3 border-l-[6px] border-verdi bg-sheet px-4 py-3 text-[16px]">
      <p>{body.how}</p>
      {body.released ? <p>Released: {body.released}</p> : null}
      {proved ? (
        <p>
          Proved dead{proved.meter ? ` with ${proved.meter}` : ''}: known source{' '}
          {quantity('volts', proved.knownBefore.value)}; work{' '}
          {proved.work
            .map(
              ({ from, to, measured }) =>
                `${placeWords(speaker, from, to)} ${quantity('volts', measured.value)}`,
            )
            .join(', ')}
          ; known source {quantity('volts', proved.knownAfter.value)}.
        </p>
      ) : (
        <p>
          Shown by: {body.tried}
          {body.gauge ? `; gauge ${body.gauge.typed}` : ''}
        </p>
      )}
      <ul className="mt-2">
        {locks.map((lock) => (
          <LockLine key={lock.id} lock={lock} next reason={null} />
        ))}
      </ul>
      {locks.some(({ person }) => samePerson(person, job.me.name)) ? null : (
        <PlainKey className="mt-2" aria-expanded={adding} onClick={() => setAdding(!adding)}>
          Put my own lock on as well
        </PlainKey>
      )}
      {adding ? <PointForm point={point} onDone={() => setAdding(false)} /> : null}
    </div>
  );
}
