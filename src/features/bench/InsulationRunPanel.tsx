'use client';

import { useEffect, useState } from 'react';
import type { InsulationAnswer, InsulationSheet } from '@/core/sheets/insulation/insulation';
import {
  asRun,
  DISCHARGE_TIMES,
  isDischarged,
  markTaken,
  RUN_MARKS,
  runState,
  type InsulationRun,
  type RunLength,
} from '@/core/sheets/insulation/run';
import {
  DEFERENCE,
  FIELD,
  Field,
  Heading,
  Hold,
  HoldSign,
  MainKey,
  PlainKey,
  TextField,
  Trouble,
} from '@/ui/sheet';
import { useNow } from '@/ui/useNow';
import { parseReading, shownValue } from '@/core/units/parseReading';
import { stopwatchWords } from '@/words/en/times';

const KEY = 'spiraxis-bench-run';
const LOOK_MS = 250;
const LENGTHS: readonly (readonly [RunLength, string])[] = [
  [60, '1 minute: 60 over 30 s'],
  [600, '10 minutes: 10 over 1 min'],
];

/** A reading of the run. */
export interface RunLine {
  from: string;
  to: string;
  ohms: number | 'OL';
  /** As it was typed. */
  typed: string;
  seconds: number;
}

/**
 * A timed insulation test: it says when to read, takes each reading with its second, and holds the conductor until it has stood
 * shorted long enough and a meter shows it dead. The hold outlives a reload.
 */
export function InsulationRunPanel({
  sheet,
  answer,
  onLine,
  store = KEY,
}: {
  /** The sheet as it stands; null while what is typed is no sheet. */
  sheet: InsulationSheet | null;
  answer: InsulationAnswer | null;
  /** Keeps a reading; or says in a sentence why it is not kept. */
  onLine: (line: RunLine) => string | null;
  /** Where the tablet keeps a run that goes on over a reload. */
  store?: string;
}) {
  const [run, setRun] = useKeptRun(store);
  const now = useNow(LOOK_MS, run !== null);
  if (run === null) return <StartRun sheet={sheet} answer={answer} onStart={setRun} />;
  const stands = runState(run, now);
  return (
    // What is live or charged stands above everything that is typed.
    <section aria-labelledby="run" className="order-first pb-3" data-testid="run" data-state={stands.state}>
      <Heading id="run" aside={`${run.from} to ${run.to}`}>
        Timed test
      </Heading>
      {stands.state === 'running' ? (
        <Running
          key={stands.due ?? 'wait'}
          run={run}
          stands={stands}
          onTaken={(ohms, typed, due) => {
            const refused = onLine({ from: run.from, to: run.to, ohms, typed, seconds: due });
            if (refused === null) setRun(markTaken(run, due, Date.now()));
            return refused;
          }}
          onOff={() => setRun({ ...run, endedMs: Date.now() })}
        />
      ) : (
        <Discharge
          seconds={stands.state === 'discharging' ? stands.secondsLeft : 0}
          run={run}
          onDead={() => setRun(null)}
        />
      )}
    </section>
  );
}

function useKeptRun(store: string): [InsulationRun | null, (run: InsulationRun | null) => void] {
  const [run, setRun] = useState<InsulationRun | null>(null);
  useEffect(() => {
    const kept = localStorage.getItem(store);
    if (kept) setRun(asRun(parsed(kept)));
  }, [store]);
  return [
    run,
    (next) => {
      setRun(next);
      try {
        if (next) localStorage.setItem(store, JSON.stringify(next));
        else localStorage.removeItem(store);
      } catch {
        // A full tablet forgets it with the page; what stands on the screen stays.
      }
    },
  ];
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
}

function StartRun({
  sheet,
  answer,
  onStart,
}: {
  sheet: InsulationSheet | null;
  answer: InsulationAnswer | null;
  onStart: (run: InsulationRun) => void;
}) {
  const [pair, setPair] = useState<readonly [string, string]>(['', '']);
  const [length, setLength] = useState<RunLength>(60);
  const [clear, setClear] = useState(false);
  const places = sheet ? [...sheet.conductors, ...(sheet.frame ? [sheet.frame] : [])] : [];
  const next = answer?.next && typeof answer.next === 'object' && 'from' in answer.next ? answer.next : null;
  const [from, to] = [
    places.includes(pair[0]) ? pair[0] : (next?.from ?? places[0] ?? ''),
    places.includes(pair[1]) ? pair[1] : (next?.to ?? places.at(-1) ?? ''),
  ];
  const shut = whyNot(sheet, answer, from, to);
  return (
    <section aria-labelledby="run" data-testid="run" data-state="none">
      <Heading id="run">Timed test</Heading>
      {shut ? (
        <p className="py-2 text-[16.5px] text-ink2">{shut}</p>
      ) : (
        <>
          <div className="grid grid-cols-3 gap-3 py-2 max-tablet:grid-cols-1">
            <Field label="From">
              <Pick value={from} places={places} onChange={(one) => setPair([one, to])} />
            </Field>
            <Field label="To">
              <Pick value={to} places={places} onChange={(one) => setPair([from, one])} />
            </Field>
            <Field label="How long">
              <select
                className={FIELD}
                value={length}
                onChange={(event) => {
                  const { value } = event.target;
                  setLength(LENGTHS.find(([seconds]) => String(seconds) === value)![0]);
                }}
              >
                {LENGTHS.map(([seconds, words]) => (
                  <option key={seconds} value={seconds}>
                    {words}
                  </option>
                ))}
              </select>
            </Field>
          </div>
          <div className="flex min-h-11 items-center gap-3 bg-well px-4 py-2">
            <HoldSign />
            <p className="min-w-0 flex-1 text-[15.5px] leading-[19px] font-[650]">
              The tester’s leads are live. Electronics unplugged, people warned, the area marked.{' '}
              <span className="font-[550] text-ink2">{DEFERENCE}</span>
            </p>
            <label className="flex min-h-11 items-center gap-2 font-[700]">
              <input
                type="checkbox"
                className="size-6 accent-pencil"
                checked={clear}
                onChange={(event) => setClear(event.target.checked)}
              />
              Clear
            </label>
          </div>
          <MainKey
            className="mt-2"
            disabled={!clear || from === to}
            onClick={() => onStart({ from, to, length, startedMs: Date.now(), taken: [], endedMs: null })}
          >
            Test volts are on: start
          </MainKey>
        </>
      )}
    </section>
  );
}

/** What has to be known first, in a line; null where nothing stands against the test. */
function whyNot(
  sheet: InsulationSheet | null,
  answer: InsulationAnswer | null,
  from: string,
  to: string,
): string | null {
  if (!sheet || !answer || from === '' || to === '') return 'Name the conductors and the frame first.';
  if (sheet.testVolts === undefined || sheet.circuitVolts === undefined)
    return 'Type the volts of the circuit and the test volts first.';
  return answer.refused ? 'Not with these test volts, or with what is still connected.' : null;
}

function Pick({
  value,
  places,
  onChange,
}: {
  value: string;
  places: readonly string[];
  onChange: (place: string) => void;
}) {
  return (
    <select className={FIELD} value={value} onChange={(event) => onChange(event.target.value)}>
      {places.map((place) => (
        <option key={place}>{place}</option>
      ))}
    </select>
  );
}

function Running({
  run,
  stands,
  onTaken,
  onOff,
}: {
  run: InsulationRun;
  stands: { seconds: number; due: number | null; next: number | null };
  onTaken: (ohms: number | 'OL', typed: string, due: number) => string | null;
  onOff: () => void;
}) {
  const [ohms, setOhms] = useState('');
  const [trouble, setTrouble] = useState<string | null>(null);
  const { due, next } = stands;
  const take = (at: number) => {
    const read = parseReading(ohms);
    if (!read || (read.unit !== undefined && read.unit !== 'ohm'))
      return setTrouble(`“${ohms}” is no reading of ohms; type it as the tester shows it: 27M, OL.`);
    setTrouble(onTaken(shownValue(read), ohms, at));
  };
  return (
    <>
      <p className="flex flex-wrap items-baseline gap-x-5 py-2">
        <strong className="fig-bold text-[40px] leading-[44px]" role="timer">
          {stopwatchWords(stands.seconds)}
        </strong>
        <span className="text-[17px]" aria-live="polite">
          {due === null
            ? `Read at ${stopwatchWords(next ?? RUN_MARKS[run.length].at(-1)!)}.`
            : `Read now, for ${stopwatchWords(due)}.`}
        </span>
      </p>
      {due === null ? null : (
        <form
          className="flex items-end gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            take(due);
          }}
        >
          <TextField
            label={`Ohms at ${stopwatchWords(due)}`}
            className="min-w-0 flex-1"
            figure
            value={ohms}
            autoFocus
            maxLength={40}
            onType={setOhms}
          />
          <MainKey type="submit">Take it</MainKey>
        </form>
      )}
      {trouble ? <Trouble>{trouble}</Trouble> : null}
      <PlainKey className="mt-2" onClick={onOff}>
        Test volts are off: stop
      </PlainKey>
    </>
  );
}

function Discharge({ seconds, run, onDead }: { seconds: number; run: InsulationRun; onDead: () => void }) {
  const [volts, setVolts] = useState('');
  const [trouble, setTrouble] = useState<string | null>(null);
  return (
    <>
      <Hold>
        {run.from} is charged. Keep it shorted to {run.to} for {DISCHARGE_TIMES} times as long as the volts
        stood on; then a meter, before a hand.
      </Hold>
      {seconds > 0 ? (
        <p className="py-2">
          <strong className="fig-bold text-[40px] leading-[44px]" role="timer">
            {stopwatchWords(seconds)}
          </strong>{' '}
          <span className="text-[17px]">left to wait</span>
        </p>
      ) : (
        <form
          className="flex items-end gap-2 py-2"
          onSubmit={(event) => {
            event.preventDefault();
            if (isDischarged(volts)) onDead();
            else
              setTrouble(
                volts.trim() === ''
                  ? 'Measure it first: volts between the two, as the meter shows them.'
                  : `“${volts}” does not show it dead. Short it again, and measure volts again.`,
              );
          }}
        >
          <TextField
            label={`Volts, ${run.from} to ${run.to}`}
            className="min-w-0 flex-1"
            figure
            value={volts}
            maxLength={40}
            onType={setVolts}
          />
          <MainKey type="submit">Measured dead</MainKey>
        </form>
      )}
      {trouble ? <Trouble>{trouble}</Trouble> : null}
    </>
  );
}
