'use client';

import { useMemo } from 'react';
import { useSearchParams } from 'next/navigation';
import { TRACE_KINDS, type TraceKind } from '@/core/trace/conditions';
import { keepTrace } from '@/core/trace/keptTrace';
import { watchedParts, type WatchedPart } from '@/core/trace/restOf';
import { FIELD, Heading, Nothing, Trouble } from '@/ui/sheet';
import { partWords } from '@/words/en/readings';
import { KIND_WORDS } from '@/words/en/traces';
import { useDesk } from '../desk/desk';
import { StepLayout } from '../desk/StepLayout';
import { StepLink } from '../desk/StepLink';
import { SheetNav } from '../sheets/SheetNav';
import { BringTrace } from './BringTrace';
import { DrawnTrace } from './DrawnTrace';
import { HowToTake } from './HowToTake';
import { RecordTrace } from './RecordTrace';
import { TraceFound } from './TraceFound';
import { NOTHING } from './useHeldAgainst';
import { usePartTrace, type PartTrace } from './usePartTrace';

/** A part's current while it is switched on: what it shows, held against what it showed before, and what that comes to. */
export function TraceScreen() {
  const { speaker, log } = useDesk();
  const { model } = speaker;
  const asked = useSearchParams().get('part');
  const parts = useMemo(() => watchedParts(model), [model]);
  const part = parts.find(({ ref }) => ref === asked) ?? parts[0];
  if (part) return <OnePart key={`${part.ref} ${log.state.traces.length}`} watched={part} parts={parts} />;
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

/** The sheet of one part: bring a trace, see it, keep it. */
function OnePart({ watched, parts }: { watched: WatchedPart; parts: readonly WatchedPart[] }) {
  const { speaker } = useDesk();
  const trace = usePartTrace(watched);
  const { part, dip, kind, setKind, trouble } = trace;
  return (
    <StepLayout
      part={part}
      left={
        <>
          <SheetNav name="trace" />
          <section aria-labelledby="trace">
            <Heading id="trace">Trace of {partWords(speaker, part)}</Heading>
            {parts.length > 1 ? <PartLinks part={part} parts={parts} /> : null}
            <WaysToBring trace={trace} />
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
            <DrawnTrace trace={trace} />
            <HeldAgainst trace={trace} />
          </section>
        </>
      }
      right={
        <>
          <TraceFound trace={trace} />
          <HowToTake part={part} dip={dip} />
        </>
      }
    />
  );
}

function PartLinks({ part, parts }: { part: string; parts: readonly WatchedPart[] }) {
  return (
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
  );
}

/** From a file or typed, and from a clamp on a wire. */
function WaysToBring({ trace: { part, on, bring, setTrouble, held } }: { trace: PartTrace }) {
  const { speaker, job } = useDesk();
  const clamped = useMemo(
    () => (on ? ({ kind: 'amps', through: part, setup: on.setup } as const) : null),
    [on, part],
  );
  return (
    <>
      <BringTrace
        onBrought={bring}
        onTrouble={setTrouble}
        onSound={(sound, source) => held.add({ name: source, amps: keepTrace(sound) })}
      />
      {clamped ? (
        <RecordTrace
          model={speaker.model}
          machine={job.machineCode}
          functionName={job.functionName}
          test={clamped}
          onBrought={bring}
          onTrouble={setTrouble}
        />
      ) : null}
    </>
  );
}

function HeldAgainst({ trace: { shown, held } }: { trace: PartTrace }) {
  const { choices, against, setAgainst } = held;
  if (!shown || choices.length === 0) return null;
  return (
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
  );
}
