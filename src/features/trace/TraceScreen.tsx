'use client';

import { useEffect, useMemo, useState } from 'react';
import { useSearchParams } from 'next/navigation';
import { isMended } from '@/core/job/reduceJob';
import type { Reading } from '@/core/circuit/schema';
import { coilFeatures } from '@/core/trace/coilFeatures';
import { TRACE_KINDS, type CoilCondition, type TraceKind } from '@/core/trace/conditions';
import { keepTrace, traceOfKept, type KeptTrace } from '@/core/trace/keptTrace';
import { watchedParts, workedIn, type WatchedPart } from '@/core/trace/restOf';
import type { Trace } from '@/core/trace/trace';
import { FIELD, Heading, Nothing, PlainKey, Trouble } from '@/ui/sheet';
import { partWords, quantity } from '@/words/en/readings';
import {
  featureLines,
  heardLines,
  judgementWords,
  KIND_WORDS,
  markWords,
  standingRows,
} from '@/words/en/traces';
import { CONDITION_WORDS } from '@/words/en/conditions';
import { useDesk } from '../desk/desk';
import { StepLayout } from '../desk/StepLayout';
import { StepLink } from '../desk/StepLink';
import { SheetNav } from '../sheets/SheetNav';
import { soundTraces } from './actions';
import { sent } from '../sent';
import { BringTrace } from './BringTrace';
import { HowToTake } from './HowToTake';
import { RecordTrace } from './RecordTrace';
import { ShownTrace, TraceChart } from './ShownTrace';
import { Standings } from './Standings';
import { useStart } from './useStart';
import { useExpected, useJudgement } from './useTraceWork';

/** A trace that another is held against: of this coil from when it was sound, or of its twin. */
interface Sound {
  name: string;
  amps: KeptTrace;
}

/** A coil's current while it is switched on: what it shows, held against what it showed before, and what that comes to. */
/** Instead of what is asked for where the server is away. */
const NOTHING_EARLIER = { trouble: '' };

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
/** The sheet of one part: bring a trace, see it, keep it. */
function PartTrace({ watched, parts }: { watched: WatchedPart; parts: readonly WatchedPart[] }) {
  const { ref: part } = watched;
  const { speaker, job, log } = useDesk();
  const { model } = speaker;
  const { traces } = log.state;
  const on = useMemo(() => workedIn(model, part), [model, part]);
  const kept = traces.filter(({ body }) => body.part === part).at(-1) ?? null;
  const [kind, setKind] = useState<TraceKind>(kept?.body.kind ?? watched.kind);
  const [brought, setBrought] = useState<{ trace: Trace; source: string; heard: number[] } | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const [sounds, setSounds] = useState<Sound[]>([]);
  const [against, setAgainst] = useState(0);

  useEffect(() => {
    let left = false;
    // Away from the server there is nothing earlier; what is brought can be held against a file all the same.
    void sent(soundTraces(job.id), NOTHING_EARLIER).then((answer) => {
      if (left || answer === NOTHING_EARLIER) return;
      if ('trouble' in answer) return setTrouble(answer.trouble);
      const own = answer.traces.filter((one) => one.part === part);
      setSounds((now) => [
        ...own.map(({ amps, jobNumber }) => ({ name: `${part}, sound, job ${jobNumber}`, amps })),
        ...now,
      ]);
    });
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
  // How a start should look is laid behind what was brought as well; a plunger's is that of the condition that is asked for.
  const asExpected = dip ? (shown ? null : 'dip') : kind === 'inrush' ? 'inrush' : null;
  const sketch = useExpected(model.compiled.circuit, part, on?.setup ?? null, asExpected);
  const expected = useMemo(() => {
    if (!judged?.ok || !shown) return null;
    const wanted = behind ?? judged.value.named;
    const found = judged.value.standings.find(({ condition }) => condition === wanted);
    return found?.trace
      ? { condition: found.condition, trace: shifted(found.trace, shown.seconds[0]!) }
      : null;
  }, [judged, shown, behind]);

  const clamped = useMemo(
    () => (on ? ({ kind: 'amps', through: part, setup: on.setup } as const) : null),
    [on, part],
  );
  const bring = (trace: Trace, source: string, heard: number[] = []) => {
    setTrouble(null);
    setBrought({ trace, source, heard });
  };
  const keep = () => {
    if (!amps || !features || !on || !brought) return;
    const fixed = isMended(log.state);
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
    const condition = judged?.ok ? judged.value.named : null;
    // A shape that has a name says whether it moved as well.
    if (dip && condition !== null)
      write(
        { kind: 'trace', part, setup: on.setup, value: condition },
        `trace: ${CONDITION_WORDS[condition]}`,
      );
    else if (dip && features.moved !== null)
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
          onBrought={bring}
          onTrouble={setTrouble}
          onSound={(trace, source) => setSounds((now) => [{ name: source, amps: keepTrace(trace) }, ...now])}
        />
        {clamped ? (
          <RecordTrace
            model={model}
            machine={job.machineCode}
            functionName={job.functionName}
            test={clamped}
            onBrought={bring}
            onTrouble={setTrouble}
          />
        ) : null}
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
          <ShownTrace
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
              ...(sketch && start
                ? [
                    {
                      name: `expected: ${part} sound`,
                      trace: shifted(sketch, (start.marks[0]?.at ?? 0) - sketch.seconds[0]!),
                      as: 'expected' as const,
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
            marks={[
              ...(dip ? markWords(features) : (start?.marks ?? [])),
              ...(brought?.heard ?? []).map((at) => ({ at, words: 'heard' })),
            ]}
          />
        ) : sketch ? (
          <>
            <TraceChart
              label={`What a sound ${part} draws`}
              lines={[{ name: 'sound', trace: sketch, as: 'expected' }]}
              marks={dip ? markWords(coilFeatures(sketch)) : []}
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
          {[
            ...(dip ? featureLines(features, before, on?.amps ?? null) : (start?.lines ?? [])),
            ...heardLines(features, brought?.heard ?? []),
          ].map((line) => (
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
              {isMended(log.state)
                ? 'After the fix: what the next trace of it is held against.'
                : dip
                  ? 'What it settles at and what its shape is named count as readings.'
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

/** Another trace on this one's clock: both are switched on at the same moment. */
function aligned(trace: Trace, onset: number | null | undefined, own: number | null): Trace {
  return onset === null || onset === undefined || own === null ? trace : shifted(trace, own - onset);
}

function shifted({ seconds, values }: Trace, by: number): Trace {
  return { seconds: seconds.map((at) => at + by), values };
}
