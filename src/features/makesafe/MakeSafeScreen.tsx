'use client';

import { Check, Lock, LockOpen, Printer } from 'lucide-react';
import Link from 'next/link';
import { useMemo, useState } from 'react';
import { isolationPlan, stillLive, type IsolationPoint } from '@/core/safety/isolationPlan';
import { siteTime } from '@/core/units/siteTime';
import { Field, FIELD, Heading, Hold, MainKey, PlainKey, Trouble } from '@/ui/sheet';
import { useDesk } from '../job/desk';
import { StepLayout } from '../job/StepLayout';
import { pointName, quantity } from '../test/words';
import { ENERGY_WORDS, stillLiveWords } from './words';

/** Every energy that reaches the work: isolated, locked, released and proved, then signed. */
export function MakeSafeScreen() {
  const { speaker, log, person, job } = useDesk();
  const { model } = speaker;
  const plan = useMemo(() => isolationPlan(model), [model]);
  const { isolated, madeSafe, reopened } = log.state;
  const closed = useMemo(() => [...isolated.keys()], [isolated]);
  const live = useMemo(() => stillLive(model, closed), [model, closed]);
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
          <section aria-labelledby="live" className="pb-3">
            <Heading id="live" aside="worked out from the drawing, controls in their worst position">
              Still live as it stands
            </Heading>
            {live.length === 0 ? (
              <p className="flex items-center gap-2 py-3 text-[18px] text-verdi">
                <Check size={20} strokeWidth={3} aria-hidden /> Nothing on this drawing. The meter decides,
                not the drawing.
              </p>
            ) : (
              <ul className="py-2" data-testid="still-live">
                {live.map((one) => (
                  <li key={one.node} className="fig flex min-h-9 items-center text-[17px]">
                    {stillLiveWords(one)}
                  </li>
                ))}
              </ul>
            )}
          </section>
          <Hold>
            Name the energies. Lock, bleed, block, prove. If you cannot name them all, stop and ask.
          </Hold>
          <section aria-labelledby="order" className="pt-2">
            <Heading id="order">Proving it dead</Heading>
            <ol className="list-decimal space-y-1 py-3 pl-6 text-[16.5px]">
              <li>Meter on a live source of the same kind: it reads.</li>
              <li>Meter on the work, every place named: it reads nothing.</li>
              <li>Meter on the live source again: it still reads.</li>
              <li>Any step fails: unknown counts as live.</li>
            </ol>
          </section>
          {reopened.length > 0 ? (
            <section aria-labelledby="opened">
              <Heading id="opened">Opened again</Heading>
              <ul>
                {reopened.map(({ id, body, at, person: who }) => (
                  <li
                    key={id}
                    className="flex min-h-11 items-center gap-3 border-b-[1.5px] border-rule text-[16px]"
                  >
                    <span className="fig text-[15px] text-ink2">
                      {siteTime(at, job.policy.timeZone).time}
                    </span>
                    <strong className="fig-bold">{body.point}</strong>
                    <span className="min-w-0 flex-1">{body.reason}</span>
                    <span className="text-ink2">{who}</span>
                  </li>
                ))}
              </ul>
            </section>
          ) : null}
        </>
      }
      foot={
        <>
          {madeSafe ? (
            <p className="flex items-center gap-2 text-[18px] font-[700] text-verdi" data-testid="made-safe">
              <Check size={20} strokeWidth={3} aria-hidden /> Made safe, signed by {madeSafe.person}
            </p>
          ) : (
            <p className="text-[16.5px]">
              {open.length > 0
                ? `Still to close: ${open.map(({ label }) => label).join(', ')}.`
                : 'Every energy is closed. Your name goes under it.'}
            </p>
          )}
          <span className="ml-auto flex flex-wrap gap-3">
            <Link
              href={`/jobs/${job.number}/tags`}
              className="inline-flex min-h-11 items-center gap-2 border-[1.5px] border-edge bg-sheet px-5 text-[17px] font-[650]"
            >
              <Printer size={20} aria-hidden /> Tag sheet
            </Link>
            {madeSafe ? null : (
              <MainKey
                disabled={open.length > 0}
                onClick={() => log.write({ type: 'madeSafe', body: { points: closed } })}
              >
                Sign as {person}
              </MainKey>
            )}
          </span>
        </>
      }
    />
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
          <span className="block truncate text-[15.5px] text-ink2">
            {[point.place, point.reaches.length > 0 ? `reaches ${point.reaches.slice(0, 8).join(', ')}` : '']
              .filter(Boolean)
              .join(' · ')}
          </span>
        </span>
        {entry ? (
          <span className="shrink-0 text-right text-[15.5px]">
            lock <span className="fig">{entry.body.lock || '–'}</span>, {entry.person}
          </span>
        ) : null}
      </button>
      {open ? entry ? <PointDone point={point} /> : <PointForm point={point} onDone={onDone} /> : null}
    </li>
  );
}

function PointDone({ point }: { point: IsolationPoint }) {
  const { log } = useDesk();
  const [reason, setReason] = useState('');
  const { body } = log.state.isolated.get(point.point)!;
  const { proved } = body;
  return (
    <div className="mb-3 border-l-[6px] border-verdi bg-sheet px-4 py-3 text-[16px]">
      <p>{body.how}</p>
      {body.released ? <p>Released: {body.released}</p> : null}
      {proved ? (
        <p>
          Proved dead: known source {proved.knownBefore}; work{' '}
          {proved.work.map(({ place, value }) => `${place} ${value}`).join(', ')}; known source{' '}
          {proved.knownAfter}.
        </p>
      ) : (
        <p>Shown by: {body.tried}</p>
      )}
      <div className="mt-2 flex flex-wrap items-end gap-3">
        <Field label="Opened again, because" className="flex-1">
          <input className={FIELD} value={reason} onChange={(event) => setReason(event.target.value)} />
        </Field>
        <PlainKey
          disabled={reason.trim() === ''}
          onClick={() => log.write({ type: 'reopened', body: { point: point.point, reason: reason.trim() } })}
        >
          Open this point
        </PlainKey>
      </div>
    </div>
  );
}

function PointForm({ point, onDone }: { point: IsolationPoint; onDone: () => void }) {
  const { log, speaker } = useDesk();
  const words = ENERGY_WORDS[point.energy];
  const [how, setHow] = useState(point.how ?? words.how);
  const [lock, setLock] = useState('');
  const [tag, setTag] = useState('');
  const [released, setReleased] = useState(words.release);
  const [known, setKnown] = useState(['', '']);
  const [work, setWork] = useState(() => point.prove.map(() => ''));
  const [tried, setTried] = useState('');
  const [trouble, setTrouble] = useState<string | null>(null);
  const metered = point.prove.length > 0;
  const placeWords = ({ from, to }: IsolationPoint['prove'][number]) =>
    `${pointName(speaker, from)} to ${to === speaker.model.compiled.circuit.frame ? 'frame' : pointName(speaker, to)}`;
  const close = () => {
    const alive = work.find((value) => Math.abs(Number(value.replace(',', '.'))) > 1);
    if (metered && [...known, ...work].some((value) => value.trim() === '')) {
      return setTrouble(
        'Proving dead needs every value: the known source, each place, the known source again.',
      );
    }
    if (metered && known.some((value) => !(Math.abs(Number(value.replace(',', '.'))) > 1))) {
      return setTrouble(
        'The known source must read on the meter before and after. A meter that shows nothing proves nothing.',
      );
    }
    if (alive)
      return setTrouble(`${alive} V on the work: it is not dead. Find what feeds it before anything else.`);
    if (!metered && tried.trim() === '')
      return setTrouble('Say how it was shown: gauge at zero, load resting, start tried.');
    log.write({
      type: 'isolation',
      body: {
        point: point.point,
        energy: point.energy,
        how,
        lock,
        tag,
        released,
        ...(metered
          ? {
              proved: {
                knownBefore: `${known[0]} V`,
                work: point.prove.map((place, at) => ({ place: placeWords(place), value: `${work[at]} V` })),
                knownAfter: `${known[1]} V`,
              },
            }
          : { tried }),
      },
    });
    onDone();
  };
  const number = (label: string, value: string, change: (next: string) => void) => (
    <Field key={label} label={label} className="w-[168px]">
      <input
        className={`${FIELD} fig`}
        inputMode="decimal"
        value={value}
        onChange={(event) => change(event.target.value)}
      />
    </Field>
  );
  return (
    <div className="mb-3 border-2 border-ink bg-sheet p-4">
      <p className="pb-2 text-[16px] font-[650]">{words.say}</p>
      <div className="grid grid-cols-2 gap-x-3 gap-y-2 max-tablet:grid-cols-1">
        <Field label="How it is isolated" className="col-span-2 max-tablet:col-span-1">
          <input className={FIELD} value={how} onChange={(event) => setHow(event.target.value)} />
        </Field>
        <Field label="Lock number">
          <input className={FIELD} value={lock} onChange={(event) => setLock(event.target.value)} />
        </Field>
        <Field label="Tag number">
          <input className={FIELD} value={tag} onChange={(event) => setTag(event.target.value)} />
        </Field>
        <Field label="Stored energy released" className="col-span-2 max-tablet:col-span-1">
          <input className={FIELD} value={released} onChange={(event) => setReleased(event.target.value)} />
        </Field>
      </div>
      {metered ? (
        <fieldset className="mt-2">
          <legend className="text-[15.5px] font-[700]">
            Proved dead, volts ({words.proof.toLowerCase()})
          </legend>
          <div className="flex flex-wrap gap-3">
            {number('Known source', known[0]!, (next) => setKnown([next, known[1]!]))}
            {point.prove.map((place, at) =>
              number(`${placeWords(place)} (was ${quantity('volts', place.volts)})`, work[at]!, (next) =>
                setWork(work.map((one, index) => (index === at ? next : one))),
              ),
            )}
            {number('Known source again', known[1]!, (next) => setKnown([known[0]!, next]))}
          </div>
        </fieldset>
      ) : (
        <Field label={`Shown by (${words.proof.toLowerCase()})`} className="mt-2">
          <input className={FIELD} value={tried} onChange={(event) => setTried(event.target.value)} />
        </Field>
      )}
      {trouble ? <Trouble>{trouble}</Trouble> : null}
      <MainKey className="mt-3" onClick={close}>
        Closed and proved
      </MainKey>
    </div>
  );
}
