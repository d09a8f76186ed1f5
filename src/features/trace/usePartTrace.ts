'use client';

import { useMemo, useState } from 'react';
import { isMended } from '@/core/job/worksOf';
import { coilFeatures } from '@/core/trace/coilFeatures';
import type { CoilCondition, TraceKind } from '@/core/trace/conditions';
import { keepTrace, traceOfKept } from '@/core/trace/keptTrace';
import { workedIn, type WatchedPart } from '@/core/trace/restOf';
import type { Trace } from '@/core/trace/trace';
import { useDesk } from '../desk/desk';
import { readingsOfTrace } from './readingsOfTrace';
import { shifted } from './shifted';
import { useHeldAgainst } from './useHeldAgainst';
import { useStart } from './useStart';
import { useExpected, useJudgement } from './useTraceWork';

export type PartTrace = ReturnType<typeof usePartTrace>;

/** A trace of one part: the one that was brought or else the last that was kept, what it shows, and what it is held against. */
export function usePartTrace(watched: WatchedPart) {
  const { ref: part } = watched;
  const { speaker, log } = useDesk();
  const { model } = speaker;
  const { circuit } = model.compiled;
  const on = useMemo(() => workedIn(model, part), [model, part]);
  const setup = on?.setup ?? null;
  const kept = log.state.traces.filter(({ body }) => body.part === part).at(-1) ?? null;
  const [kind, setKind] = useState<TraceKind>(kept?.body.kind ?? watched.kind);
  const [brought, setBrought] = useState<{ trace: Trace; source: string; heard: number[] } | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const held = useHeldAgainst(part, kind, kept?.id, setTrouble);
  const { sound } = held;

  const shown = useMemo(() => brought?.trace ?? (kept ? traceOfKept(kept.body.amps) : null), [brought, kept]);
  const amps = useMemo(
    () => (brought ? keepTrace(brought.trace) : (kept?.body.amps ?? null)),
    [brought, kept],
  );
  const dip = kind === 'dip';
  const judged = useJudgement(circuit, part, setup, dip ? amps : null, sound?.amps ?? null);
  const start = useStart(part, kind, shown, sound?.amps ?? null, on);
  const features = useMemo(() => (shown ? coilFeatures(shown) : null), [shown]);
  const before = useMemo(() => (sound ? coilFeatures(traceOfKept(sound.amps)) : null), [sound]);

  /** Condition whose expected curve lies behind; the named one until another is pressed. */
  const [behind, setBehind] = useState<CoilCondition | null>(null);
  // How a start should look is laid behind what was brought as well; a plunger's is that of the condition that is asked for.
  const asExpected = dip ? (shown ? null : 'dip') : kind === 'inrush' ? 'inrush' : null;
  const sketch = useExpected(circuit, part, setup, asExpected);
  const expected = useMemo(() => {
    if (!judged?.ok || !shown) return null;
    const wanted = behind ?? judged.value.named;
    const found = judged.value.standings.find(({ condition }) => condition === wanted);
    return found?.trace
      ? { condition: found.condition, trace: shifted(found.trace, shown.seconds[0]!) }
      : null;
  }, [judged, shown, behind]);

  const mended = isMended(log.state);
  return {
    part,
    on,
    kind,
    setKind,
    dip,
    kept,
    brought,
    bring: (trace: Trace, source: string, heard: number[] = []) => {
      setTrouble(null);
      setBrought({ trace, source, heard });
    },
    leave: () => setBrought(null),
    trouble,
    setTrouble,
    held,
    shown,
    features,
    before,
    judged,
    start,
    sketch,
    expected,
    setBehind,
    mended,
    /** Keeps what was brought. */
    keep: () => {
      if (!amps || !features || !setup || !brought) return;
      const named = judged?.ok ? judged.value.named : null;
      log.write({
        type: 'trace',
        body: {
          part,
          kind,
          on: setup,
          amps,
          source: brought.source.slice(0, 120),
          named,
          ...(mended ? { phase: 'fixed' as const } : {}),
        },
      });
      // After a fix a trace is what the sound machine shows; what proves the fix stands on its own list.
      if (mended) return;
      for (const body of readingsOfTrace(part, setup, {
        settledAmps: dip ? features.settledAmps : (start?.settled ?? null),
        plunger: dip ? { named, moved: features.moved } : null,
      }))
        log.write({ type: 'reading', body });
    },
  };
}
