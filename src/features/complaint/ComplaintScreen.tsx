'use client';

import { useMemo, useState } from 'react';
import type { Reading } from '@/core/circuit/schema';
import { WHEN } from '@/core/job/when';
import { WEATHERS, type Weather } from '@/core/job/weather';
import { WEATHER_WORDS, WHEN_WORDS } from '@/words/en/when';
import { writtenWords } from '@/words/en/times';
import { AlikeLine } from '../record/AlikeLine';
import { FIELD, Heading, Hold, MainKey, Nothing, PlainKey } from '@/ui/sheet';
import { PhotoBox } from '../photos/PhotoBox';
import { CodesPanel } from '../codes/CodesPanel';
import { useDesk } from '../desk/desk';
import { JobStrip } from '../desk/JobStrip';
import { readingWords, valueWords } from '@/words/en/readings';
import { answerTo } from '@/core/job/answerTo';
import { lazyPart } from '@/ui/lazyPart';
import { complaintTrials, type Trial } from './trials';

const LeftInDoubt = lazyPart(() => import('./LeftInDoubt').then((one) => one.LeftInDoubt));

/** What fails, where the controls stand, which fuse goes, which codes are there: each answer is a reading at once. */
export function ComplaintScreen() {
  const { speaker, readings } = useDesk();
  const { functions, gauges, fuses } = useMemo(() => complaintTrials(speaker), [speaker]);
  return (
    <main className="flex min-h-0 flex-1 flex-col">
      <JobStrip />
      <div className="grid min-h-0 flex-1 gap-x-9 overflow-y-auto bg-film px-6 pb-8 max-tablet:px-3 desk:grid-cols-[minmax(0,1fr)_minmax(0,1fr)]">
        <div className="min-w-0">
          <AsReported />
          <Matrix
            title="What works, what does not"
            aside="each answer clears or accuses parts at once"
            trials={functions}
          />
          {functions.length === 0 ? (
            <Nothing>
              Nothing here moves that an operator would see. Its codes, or a first reading, come next.
            </Nothing>
          ) : null}
          {readings.some(({ kind }) => kind === 'function') ? <LeftInDoubt /> : null}
          <Matrix
            title="Where the machine’s own gauge stands"
            aside="as far as it got, if anybody looked"
            trials={gauges}
          />
          <OtherFunctions />
          <Matrix title="Which fuse goes, and when" aside="only if it was seen" trials={fuses} />
        </div>
        <div className="min-w-0">
          <AlikeLine />
          <CodesPanel />
          <PhotoBox />
          <Record />
        </div>
      </div>
    </main>
  );
}

function AsReported() {
  const { log } = useDesk();
  const { complaint, when, weather } = log.state;
  const [words, setWords] = useState<string | null>(null);
  const save = (next: { words?: string; when?: typeof when; weather?: Weather | null }) => {
    const said = next.weather === undefined ? weather : next.weather;
    log.write({
      type: 'complaint',
      body: {
        words: (next.words ?? complaint ?? '').trim() || 'No words yet',
        when: next.when ?? when,
        ...(said ? { weather: said } : {}),
      },
    });
  };
  return (
    <section aria-labelledby="as-reported">
      <Heading id="as-reported">As reported</Heading>
      {words === null ? (
        <div className="flex items-start gap-3 py-2">
          <p className="max-w-[60ch] min-w-0 flex-1 text-[18px] leading-[24px] break-words">
            {complaint ?? 'No words were written down.'}
          </p>
          <PlainKey onClick={() => setWords(complaint ?? '')}>Change</PlainKey>
        </div>
      ) : (
        <div className="py-2">
          <textarea
            aria-label="In the driver’s words"
            className={`${FIELD} py-2`}
            rows={3}
            maxLength={2000}
            value={words}
            onChange={(event) => setWords(event.target.value)}
          />
          <div className="mt-2 flex gap-2">
            <MainKey
              disabled={words.trim() === ''}
              onClick={() => {
                save({ words });
                setWords(null);
              }}
            >
              Keep it
            </MainKey>
            <PlainKey onClick={() => setWords(null)}>Leave as it was</PlainKey>
          </div>
        </div>
      )}
      <div className="flex flex-wrap gap-1.5 pb-2" role="group" aria-label="When it fails">
        {WHEN.map((one) => (
          <PlainKey
            key={one}
            className="px-3! text-[16px]!"
            aria-pressed={when.includes(one)}
            onClick={() =>
              save({ when: when.includes(one) ? when.filter((other) => other !== one) : [...when, one] })
            }
          >
            {WHEN_WORDS[one]}
          </PlainKey>
        ))}
      </div>
      <div className="flex flex-wrap items-center gap-1.5 pb-2" role="group" aria-label="In what weather">
        <span className="pr-1 text-[15.5px] text-ink2">In what weather</span>
        {WEATHERS.map((one) => (
          <PlainKey
            key={one}
            className="px-3! text-[16px]!"
            aria-pressed={weather === one}
            onClick={() => save({ weather: weather === one ? null : one })}
          >
            {WEATHER_WORDS[one]}
          </PlainKey>
        ))}
      </div>
      {when.includes('shock') ? (
        <Hold>Nobody touches it live. Isolate it, lock it, then insulation and bonding come first.</Hold>
      ) : null}
    </section>
  );
}

/** Functions of the machine that share parts with this one: what works there clears what they share. */
function OtherFunctions() {
  const { job, log } = useDesk();
  const { joined } = log.state;
  const others = job.functions.filter(({ shares, joins }) => joins && shares.length > 0);
  // The circuit is put together on the server, once it has the entry.
  if (others.length === 0) return null;
  return (
    <ul aria-label="Other functions of this machine">
      {others.map(({ name, shares }) => (
        <li
          key={name}
          className="flex min-h-[52px] flex-wrap items-center gap-3 border-b-[1.5px] border-rule py-1"
        >
          <span className="min-w-0 flex-1">
            <strong className="font-[700]">{name}</strong>{' '}
            <span className="text-[15.5px] text-ink2">shares {shares.join(', ')}</span>
          </span>
          {joined.includes(name) ? (
            <span className="text-[15.5px] text-ink2">asked about above</span>
          ) : (
            <PlainKey
              className="px-3! text-[16px]!"
              onClick={() => log.write({ type: 'joined', body: { function: name } })}
            >
              Ask about it too
            </PlainKey>
          )}
        </li>
      ))}
    </ul>
  );
}

function Matrix({ title, aside, trials }: { title: string; aside: string; trials: readonly Trial[] }) {
  if (trials.length === 0) return null;
  return (
    <section aria-label={title}>
      <Heading aside={aside}>{title}</Heading>
      <div>
        {trials.map((trial) => (
          <TrialRow key={JSON.stringify(trial.test)} trial={trial} />
        ))}
      </div>
    </section>
  );
}

function TrialRow({ trial: { test, label, position, answers } }: { trial: Trial }) {
  const { log, speaker } = useDesk();
  const pinned = answerTo(log.state.readings, test);
  const answer = (value: Reading['value']) => {
    if (pinned?.reading.value === value) {
      log.write({ type: 'withdrawal', supersedes: pinned.entry.id, body: {} });
      return;
    }
    log.write({
      type: 'reading',
      body: {
        reading: { ...test, value } as Reading,
        typed: valueWords(test.kind, value, speaker.gaugeUnit),
      },
      ...(pinned ? { supersedes: pinned.entry.id } : {}),
    });
  };
  return (
    <div
      role="group"
      aria-label={`${label}, ${position}`}
      className="flex min-h-[52px] flex-wrap items-center gap-x-3 gap-y-1 border-b-[1.5px] border-rule py-1"
    >
      <span className="min-w-[150px] flex-1 break-words">
        <strong className="font-[700]">{label}</strong> <span className="text-ink2">{position}</span>
      </span>
      <span className="flex">
        {answers.map((value) => (
          <PlainKey
            key={String(value)}
            className="-ml-[1.5px] w-[72px] px-1! text-[16px]! aria-pressed:relative aria-pressed:z-10"
            aria-pressed={pinned?.reading.value === value}
            onClick={() => answer(value)}
          >
            {valueWords(test.kind, value, speaker.gaugeUnit)}
          </PlainKey>
        ))}
      </span>
    </div>
  );
}

function Record() {
  const { log, speaker, job } = useDesk();
  const { history } = log.state;
  return (
    <section aria-labelledby="record" className="mt-4">
      <Heading id="record" aside={`${job.functionName}, only ever added to`}>
        The record
      </Heading>
      {history.length === 0 ? <Nothing>No reading yet.</Nothing> : null}
      <ol>
        {history.map(({ entry, superseded }) => (
          <li
            key={entry.id}
            className="flex min-h-11 items-center gap-3 border-b-[1.5px] border-rule text-[16px]"
          >
            <time className="fig shrink-0 text-[15px] text-ink2" dateTime={entry.at}>
              {writtenWords(entry.at, log.arrivals.get(entry.id), job.policy.timeZone).slice(5)}
            </time>
            <span className={`min-w-0 ${superseded ? 'text-ink2 line-through' : ''}`}>
              {readingWords(speaker, entry.body.reading)}
              {entry.body.phase ? ' (after the fix)' : ''}
            </span>
            <span className="ml-auto shrink-0 text-[15px] text-ink2">
              {superseded ? 'taken back, ' : ''}
              {entry.person}
            </span>
          </li>
        ))}
      </ol>
    </section>
  );
}
