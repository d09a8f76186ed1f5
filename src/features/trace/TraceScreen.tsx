'use client';

import dynamic from 'next/dynamic';
import { useEffect, useMemo, useRef, useState } from 'react';
import { useSearchParams } from 'next/navigation';
import type { Reading, Test } from '@/core/circuit/schema';
import { TRACE_KINDS, type CoilCondition, type TraceKind } from '@/core/trace/conditions';
import { cautionsOf } from '@/core/diagnosis/cautionsOf';
import { coilFeatures } from '@/core/trace/coilFeatures';
import { keepTrace, traceOfKept, type KeptTrace } from '@/core/trace/keptTrace';
import { restOf, watchedParts, workedIn, type WatchedPart } from '@/core/trace/restOf';
import { traceAt, type Trace } from '@/core/trace/trace';
import { channelTrace, readTraceText, type TraceFile } from '@/formats/traceFile';
import { FIELD, Heading, Hold, Nothing, PlainKey, Trouble } from '@/ui/sheet';
import { shutWords } from '@/words/en/holds';
import { partWords, positionWords, quantity } from '@/words/en/readings';
import {
  featureLines,
  judgementWords,
  standingRows,
  type StandingRow,
  KIND_WORDS,
  markWords,
  CONDITION_WORDS,
  timeWords,
} from '@/words/en/traces';
import { readTrace } from '@/workers/traceClient';
import { useDesk } from '../desk/desk';
import { StepLayout } from '../desk/StepLayout';
import { StepLink } from '../desk/StepLink';
import { HoldRow } from '../measure/HoldRow';
import { useHold } from '../measure/useHold';
import { SheetNav } from '../sheets/SheetNav';
import { soundTraces } from './actions';
import type { TraceLine } from './TraceChart';
import { useExpected, useJudgement } from './useTraceWork';
import { useStart } from './useStart';

// A canvas has its inks from the page: there is none on the server.
const TraceChart = dynamic(() => import('./TraceChart').then((one) => one.TraceChart), { ssr: false });

/** A trace that another is held against: of this coil from when it was sound, or of its twin. */
interface Sound {
  name: string;
  amps: KeptTrace;
}

/** A coil's current while it is switched on: what it shows, held against what it showed before, and what that comes to. */
export function TraceScreen() {
  const { speaker, log } = useDesk();
  const { model } = speaker;
  const asked = useSearchParams().get('part');
  const parts = useMemo(() => watchedParts(model), [model]);
  const part = parts.find(({ ref }) => ref === asked) ?? parts[0];
  if (part) return <PartTrace key={`${part.ref} ${log.state.traces.length}`} watched={part} parts={parts} />;
  return (
    <StepLayout
      left={
        <>
          <SheetNav name="trace" />
          <Nothing>Nothing of this circuit draws a current worth watching.</Nothing>
        </>
      }
      right={null}
    />
  );
}

const NOTHING = -1;

/** How the trace of a part is taken, and what is to be cleared before. */
function HowToTake({ part, dip }: { part: string; dip: boolean }) {
  const { speaker } = useDesk();
  const { model } = speaker;
  const { controls } = model.compiled.circuit;
  const on = useMemo(() => workedIn(model, part), [model, part]);
  const rest = useMemo(() => (on ? restOf(model, part, on.setup) : null), [model, part, on]);
  const test = useMemo<Test | null>(
    () => (on ? { kind: 'amps', through: part, setup: on.setup } : null),
    [part, on],
  );
  const hold = useHold(test ? { test, cautions: cautionsOf(model, test) } : undefined);
  const shut = test ? shutWords(hold.gate) : null;
  const atRest = rest ? positionWords(controls, rest) : '';
  if (!on) return <Nothing>No position of its controls switches {part} on.</Nothing>;
  return (
    <section aria-labelledby="how" className="pt-3">
      <Heading id="how">How it is taken</Heading>
      <ol className="list-decimal space-y-1.5 py-2 pl-6 text-[17px]">
        <li>
          Clamp round one wire of {part}, nothing else in the jaws;{' '}
          {dip
            ? 'recorder at 5,000 points a second or more, half a second.'
            : 'recorder at 1,000 points a second or more, until it has settled.'}
        </li>
        <li>{rest && atRest ? `At rest: ${atRest}.` : 'At rest, nothing asked for.'}</li>
        <li>
          Switched on: {positionWords(controls, on.setup)}. Sound, it settles at{' '}
          <span className="fig">{quantity('amps', on.amps)}</span>.
        </li>
        {dip ? (
          <li>Switched off again after a quarter of a second or more, while it still records.</li>
        ) : null}
        <li>Bring the file here. What was taken when it was sound tells more than any drawing: keep one.</li>
      </ol>
      {shut ? (
        <Hold>
          {shut.what} {shut.why}
        </Hold>
      ) : (
        <HoldRow hold={hold} />
      )}
    </section>
  );
}

/** The sheet of one part: bring a trace, see it, keep it. */
function PartTrace({ watched, parts }: { watched: WatchedPart; parts: readonly WatchedPart[] }) {
  const { ref: part } = watched;
  const { speaker, job, log } = useDesk();
  const { model } = speaker;
  const { traces, fixes } = log.state;
  const on = useMemo(() => workedIn(model, part), [model, part]);
  const kept = traces.filter(({ body }) => body.part === part).at(-1) ?? null;
  const [kind, setKind] = useState<TraceKind>(kept?.body.kind ?? watched.kind);
  const [brought, setBrought] = useState<{ trace: Trace; source: string } | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const [sounds, setSounds] = useState<Sound[]>([]);
  const [against, setAgainst] = useState(0);

  useEffect(() => {
    let left = false;
    soundTraces(job.id).then(
      (answer) => {
        if (left) return;
        if ('trouble' in answer) return setTrouble(answer.trouble);
        const own = answer.traces.filter((one) => one.part === part);
        setSounds((now) => [
          ...own.map(({ amps, jobNumber }) => ({ name: `${part}, sound, job ${jobNumber}`, amps })),
          ...now,
        ]);
      },
      // Away from the server there is nothing earlier; what is brought can be held against a file all the same.
      () => undefined,
    );
    return () => {
      left = true;
    };
  }, [job.id, part]);
  // Traces of this job's other coils: a twin is the next best.
  const others = traces
    .filter(({ body, id }) => id !== kept?.id && body.kind === kind)
    .map(({ body }) => ({ name: `${body.part}, this job`, amps: body.amps }));
  const choices = [...sounds, ...others];
  const sound = choices[against] ?? null;

  const shown = useMemo(() => brought?.trace ?? (kept ? traceOfKept(kept.body.amps) : null), [brought, kept]);
  const amps = useMemo(
    () => (brought ? keepTrace(brought.trace) : (kept?.body.amps ?? null)),
    [brought, kept],
  );
  const dip = kind === 'dip';
  const judged = useJudgement(
    model.compiled.circuit,
    part,
    on?.setup ?? null,
    dip ? amps : null,
    sound?.amps ?? null,
  );
  const start = useStart(part, kind, shown, sound?.amps ?? null, on);
  const features = useMemo(() => (shown ? coilFeatures(shown) : null), [shown]);
  const before = useMemo(() => (sound ? coilFeatures(traceOfKept(sound.amps)) : null), [sound]);

  /** Condition whose expected curve lies behind; the named one until another is pressed. */
  const [behind, setBehind] = useState<CoilCondition | null>(null);
  const sketch = useExpected(model.compiled.circuit, part, !shown && dip ? (on?.setup ?? null) : null);
  const expected = useMemo(() => {
    if (!judged?.ok || !shown) return null;
    const wanted = behind ?? judged.value.named;
    const found = judged.value.standings.find(({ condition }) => condition === wanted);
    return found?.trace
      ? { condition: found.condition, trace: shifted(found.trace, shown.seconds[0]!) }
      : null;
  }, [judged, shown, behind]);

  const keep = () => {
    if (!amps || !features || !on || !brought) return;
    const fixed = fixes.length > 0;
    log.write({
      type: 'trace',
      body: {
        part,
        kind,
        on: on.setup,
        amps,
        source: brought.source.slice(0, 120),
        named: judged?.ok ? judged.value.named : null,
        ...(fixed ? { phase: 'fixed' as const } : {}),
      },
    });
    // After a fix a trace is what the sound machine shows; what proves the fix stands on its own list.
    if (fixed) return;
    const write = (reading: Reading, typed: string) =>
      log.write({ type: 'reading', body: { reading, typed } });
    const settled = dip ? features.settledAmps : start ? start.settled : null;
    if (settled !== null)
      write(
        { kind: 'amps', through: part, setup: on.setup, value: settled },
        `trace settles at ${quantity('amps', settled)}`,
      );
    if (dip && features.moved !== null)
      write(
        { kind: 'click', part, setup: on.setup, value: features.moved },
        features.moved ? 'trace: it moved' : 'trace: no dip',
      );
  };

  const left = (
    <>
      <SheetNav name="trace" />
      <section aria-labelledby="trace">
        <Heading id="trace">Trace of {partWords(speaker, part)}</Heading>
        {parts.length > 1 ? (
          <p className="flex flex-wrap gap-x-4 text-[16.5px]">
            {parts.map(({ ref }) => (
              <StepLink
                key={ref}
                step="test"
                query={{ sheet: 'trace', part: ref }}
                aria-current={ref === part ? 'page' : undefined}
                className="fig min-h-11 py-2.5 underline-offset-4 aria-[current=page]:text-pencil aria-[current=page]:underline"
              >
                {ref}
              </StepLink>
            ))}
          </p>
        ) : null}
        <BringTrace
          onBrought={(trace, source) => {
            setTrouble(null);
            setBrought({ trace, source });
          }}
          onTrouble={setTrouble}
          onSound={(trace, source) => setSounds((now) => [{ name: source, amps: keepTrace(trace) }, ...now])}
        />
        <label className="flex flex-wrap items-center gap-2 text-[16.5px]">
          Watched for
          <select
            className={`${FIELD} w-auto!`}
            value={kind}
            onChange={({ target }) => setKind(target.value as TraceKind)}
          >
            {TRACE_KINDS.filter((one) => one !== 'dip' || watched.kind === 'dip').map((one) => (
              <option key={one} value={one}>
                {KIND_WORDS[one]}
              </option>
            ))}
          </select>
        </label>
        {trouble ? <Trouble>{trouble}</Trouble> : null}
        {shown && features ? (
          <Shown
            key={brought?.source ?? kept?.id}
            part={part}
            shown={shown}
            lines={[
              { name: 'this one', trace: shown, as: 'own' },
              ...(sound
                ? [
                    {
                      name: sound.name,
                      trace: aligned(traceOfKept(sound.amps), before?.onset, features.onset),
                      as: 'before' as const,
                    },
                  ]
                : []),
              ...(expected
                ? [
                    {
                      name: `expected: ${CONDITION_WORDS[expected.condition]}`,
                      trace: expected.trace,
                      as: 'expected' as const,
                    },
                  ]
                : []),
            ]}
            marks={dip ? markWords(features) : (start?.marks ?? [])}
          />
        ) : sketch ? (
          <>
            <TraceChart
              label={`What a sound ${part} draws`}
              lines={[{ name: 'sound', trace: sketch, as: 'expected' }]}
              marks={markWords(coilFeatures(sketch))}
              cursors={[]}
            />
            <p className="text-[15.5px] text-copper-ink">
              Dots: what a sound one draws. Amps and shape are this circuit’s; its milliseconds are those of
              the usual kind.
            </p>
          </>
        ) : null}
        {shown && choices.length > 0 ? (
          <label className="flex flex-wrap items-center gap-2 pt-1 text-[16.5px]">
            Held against
            <select
              className={`${FIELD} w-auto!`}
              value={against}
              onChange={({ target }) => setAgainst(Number(target.value))}
            >
              {choices.map(({ name }, at) => (
                <option key={name} value={at}>
                  {name}
                </option>
              ))}
              <option value={NOTHING}>nothing</option>
            </select>
          </label>
        ) : null}
      </section>
    </>
  );
  const found =
    shown && features ? (
      <section aria-labelledby="found" className="pt-3" data-testid="trace-found">
        <Heading id="found">What it shows</Heading>
        <p className="py-2 text-[18px] leading-[24px] font-[650]" role="status">
          {!dip
            ? start?.head
            : judged === null
              ? 'Weighing what it can be the trace of: some seconds.'
              : judged.ok
                ? judgementWords(judged.value.named, judged.value.standings, judged.value.before !== null)
                : judged.message}
        </p>
        <div className="pb-2 text-[17px]">
          {(dip ? featureLines(features, before, on?.amps ?? null) : (start?.lines ?? [])).map((line) => (
            <p key={line}>{line}</p>
          ))}
        </div>
        {judged?.ok ? (
          <Standings
            rows={standingRows(judged.value.standings, judged.value.before !== null)}
            behind={expected?.condition ?? null}
            onBehind={setBehind}
          />
        ) : null}
        {brought ? (
          <div className="flex flex-wrap items-center gap-3 pt-3">
            <button
              type="button"
              onClick={keep}
              disabled={dip && judged === null}
              className="min-h-11 bg-pencil px-5 text-[17px] font-[750] text-sheet disabled:bg-well disabled:text-ink2"
            >
              Keep it in the job
            </button>
            <PlainKey onClick={() => setBrought(null)}>Leave it</PlainKey>
            <span className="text-[15.5px] text-ink2">
              {fixes.length > 0
                ? 'After the fix: what the next trace of it is held against.'
                : dip
                  ? 'What it settles at and whether it moved count as readings.'
                  : 'What it settles at counts as a reading.'}
            </span>
          </div>
        ) : kept ? (
          <p className="pt-2 text-[15.5px] text-ink2">
            Kept by {kept.person}, from {kept.body.source || 'typed points'}.
          </p>
        ) : null}
      </section>
    ) : null;
  return (
    <StepLayout
      part={part}
      left={left}
      right={
        <>
          {found}
          <HowToTake part={part} dip={dip} />
        </>
      }
    />
  );
}

/** A file, or points that are typed or pasted; and a second one of when it was sound. */
function BringTrace({
  onBrought,
  onTrouble,
  onSound,
}: {
  onBrought: (trace: Trace, source: string) => void;
  onTrouble: (words: string) => void;
  onSound: (trace: Trace, source: string) => void;
}) {
  const [typing, setTyping] = useState(false);
  const [text, setText] = useState('');
  const [file, setFile] = useState<{ read: TraceFile; name: string; take: typeof onBrought } | null>(null);
  const [reading, setReading] = useState(false);
  const cancel = useRef<(() => void) | null>(null);
  useEffect(() => () => cancel.current?.(), []);

  const bring = async (chosen: File | undefined, take: typeof onBrought) => {
    if (!chosen) return;
    setReading(true);
    const run = readTrace(chosen, chosen.name);
    cancel.current = run.cancel;
    const answer = await run.answer;
    setReading(false);
    if (!answer.ok) return onTrouble(`${chosen.name}: ${answer.message}`);
    const { channels } = answer.value;
    setFile(channels.length > 1 ? { read: answer.value, name: chosen.name, take } : null);
    take(channelTrace(answer.value, 0), chosen.name);
  };
  const takeTyped = () => {
    try {
      onBrought(channelTrace(readTraceText(text), 0), 'typed points');
      setTyping(false);
    } catch (error) {
      onTrouble(`${error instanceof Error ? error.message : String(error)}.`);
    }
  };
  return (
    <div className="flex flex-col gap-2 py-2">
      <div className="flex flex-wrap items-center gap-3">
        <FileKey
          label={reading ? 'Reading it' : 'Bring a trace (CSV or WAV)'}
          onFile={(one) => void bring(one, onBrought)}
        />
        <FileKey label="One of when it was sound" onFile={(one) => void bring(one, onSound)} />
        <PlainKey aria-expanded={typing} onClick={() => setTyping(!typing)}>
          Type points
        </PlainKey>
      </div>
      {file ? (
        <label className="flex flex-wrap items-center gap-2 text-[16.5px]">
          Channel of {file.name}
          <select
            className={`${FIELD} w-auto!`}
            onChange={({ target }) =>
              file.take(
                channelTrace(file.read, Number(target.value)),
                `${file.name}, ${file.read.channels[Number(target.value)]!.name}`,
              )
            }
          >
            {file.read.channels.map(({ name }, at) => (
              <option key={name} value={at}>
                {name}
              </option>
            ))}
          </select>
        </label>
      ) : null}
      {typing ? (
        <>
          <label className="text-[16.5px]">
            Seconds and amps, one pair a line
            <textarea
              className={`${FIELD} fig mt-1 h-[130px]! py-2`}
              value={text}
              onChange={({ target }) => setText(target.value)}
              placeholder={'0.000, 0.00\n0.002, 0.41'}
            />
          </label>
          <div>
            <PlainKey onClick={takeTyped}>Draw it</PlainKey>
          </div>
        </>
      ) : null}
    </div>
  );
}

/** A key that opens a file. */
function FileKey({ label, onFile }: { label: string; onFile: (file: File | undefined) => void }) {
  return (
    <label className="flex min-h-11 cursor-pointer items-center border-[1.5px] border-edge bg-sheet px-4 text-[16.5px] font-[650] focus-within:outline-3 focus-within:outline-offset-2 focus-within:outline-pencil">
      {label}
      <input
        type="file"
        accept=".csv,.txt,.tsv,.wav"
        className="sr-only"
        onChange={({ target }) => {
          onFile(target.files?.[0]);
          // The same file again, mended, is another one.
          target.value = '';
        }}
      />
    </label>
  );
}

/** The chart with its two cursors, each a slider under it: by finger, mouse or arrow keys. */
function Shown({
  part,
  shown,
  lines,
  marks,
}: {
  part: string;
  shown: Trace;
  lines: readonly TraceLine[];
  marks: ReturnType<typeof markWords>;
}) {
  const [begin, end] = [shown.seconds[0]!, shown.seconds.at(-1)!];
  const [cursors, setCursors] = useState<[number, number]>([
    begin + 0.25 * (end - begin),
    begin + 0.5 * (end - begin),
  ]);
  const [used, setUsed] = useState(false);
  const values = cursors.map((at) => traceAt(shown, at));
  const move = (which: 0 | 1, at: number) => {
    setUsed(true);
    setCursors((now) => (which === 0 ? [at, now[1]] : [now[0], at]));
  };
  return (
    <>
      <TraceChart
        label={`Current of ${part} over ${timeWords(end - begin)}`}
        lines={lines}
        marks={marks}
        cursors={used ? cursors : []}
      />
      <ul className="flex flex-wrap gap-x-5 text-[15.5px] text-ink2">
        {lines.map(({ name, as }) => (
          <li
            key={name}
            className={as === 'own' ? 'text-pencil' : as === 'expected' ? 'text-copper-ink' : ''}
          >
            {as === 'own' ? 'Full line' : as === 'before' ? 'Dashes' : 'Dots'}: {name}
          </li>
        ))}
      </ul>
      <div className="grid grid-cols-2 gap-x-6">
        {([0, 1] as const).map((which) => (
          <label key={which} className="text-[15.5px]">
            Cursor {which === 0 ? 'A' : 'B'}: <span className="fig">{timeWords(cursors[which] - begin)}</span>
            , <span className="fig">{quantity('amps', values[which]!)}</span>
            <input
              type="range"
              className="block h-8 w-full accent-pencil"
              min={begin}
              max={end}
              step={(end - begin) / 500}
              value={cursors[which]}
              onChange={({ target }) => move(which, Number(target.value))}
            />
          </label>
        ))}
      </div>
      {used ? (
        <p className="text-[15.5px]">
          Between them: <span className="fig">{timeWords(Math.abs(cursors[1] - cursors[0]))}</span>,{' '}
          <span className="fig">{quantity('amps', Math.abs(values[1]! - values[0]!))}</span>
        </p>
      ) : null}
    </>
  );
}

/** What it can be the trace of, in twentieths as everywhere; pressed, its expected curve lies behind. */
function Standings({
  rows,
  behind,
  onBehind,
}: {
  rows: readonly StandingRow[];
  behind: CoilCondition | null;
  onBehind: (condition: CoilCondition) => void;
}) {
  const [all, setAll] = useState(false);
  const seen = rows.filter(({ share, drawn }) => share >= LEAST_TOLD || (all && drawn));
  return (
    <div className="max-w-[460px]" data-testid="trace-standings">
      <ul aria-label="What it can be the trace of">
        {seen.map(({ condition, words, share, drawn }) => (
          <li key={condition} className="border-b-[1.5px] border-rule">
            <button
              type="button"
              disabled={!drawn}
              aria-pressed={behind === condition}
              title={drawn ? 'Lay its expected curve behind' : undefined}
              onClick={() => onBehind(condition)}
              className="flex min-h-9 w-full items-center justify-between gap-3 px-1 text-left text-[16px] font-[600] aria-pressed:bg-pencil-t"
            >
              {words}
              <span className="fig shrink-0 text-copper-ink">
                {share < LEAST_TOLD ? 'under 1' : `${Math.round(20 * share)} in 20`}
              </span>
            </button>
          </li>
        ))}
      </ul>
      {all ? null : (
        <button
          type="button"
          onClick={() => setAll(true)}
          className="min-h-9 text-[15.5px] underline underline-offset-4"
        >
          Every condition, to lay its curve behind
        </button>
      )}
    </div>
  );
}
/** Half a twentieth: less is not told. */
const LEAST_TOLD = 0.025;

/** Another trace on this one's clock: both are switched on at the same moment. */
function aligned(trace: Trace, onset: number | null | undefined, own: number | null): Trace {
  return onset === null || onset === undefined || own === null ? trace : shifted(trace, own - onset);
}

function shifted({ seconds, values }: Trace, by: number): Trace {
  return { seconds: seconds.map((at) => at + by), values };
}
