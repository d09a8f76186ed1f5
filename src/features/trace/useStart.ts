'use client';

import { useMemo } from 'react';
import { fusesOf } from '@/core/sheets/onCircuit/bearing';
import type { TraceKind } from '@/core/trace/conditions';
import { fuseUnder, pulsesOf, showsPeak, startOf, starterOf } from '@/core/trace/inrush';
import { traceOfKept, type KeptTrace } from '@/core/trace/keptTrace';
import { hertzOf, type workedIn } from '@/core/trace/restOf';
import type { Trace } from '@/core/trace/trace';
import { fuseUnderWords, pulseWords, startLines, startWords, timeWords } from '@/words/en/traces';
import { useDesk } from '../desk/desk';
import type { TraceMark } from './TraceChart';

/** What a start, or pulses, come to. */
interface StartFound {
  head: string;
  lines: string[];
  marks: TraceMark[];
  /** What it settles at, amperes, where that is a reading. */
  settled: number | null;
}

/** What a trace that is watched for a start or for pulses shows; null for one of a plunger. */
export function useStart(
  part: string,
  kind: TraceKind,
  shown: Trace | null,
  sound: KeptTrace | null,
  on: ReturnType<typeof workedIn>,
): StartFound | null {
  const { model } = useDesk().speaker;
  return useMemo(() => {
    if (!shown || !on || kind === 'dip') return null;
    if (kind === 'pwm') return { head: pulseWords(pulsesOf(shown)), lines: [], marks: [], settled: null };
    const hz = hertzOf(model, part);
    const start = startOf(shown, hz);
    const { trace, answer } = start;
    const of = starterOf(model, part);
    const before = sound ? startOf(traceOfKept(sound), hz).answer : null;
    const held = { start, before, drawnAmps: on.amps, of };
    const begin = trace.seconds[0]!;
    const isBegun = start.apartSeconds !== null;
    // A peak that nobody saw may open what bears the rest.
    const fuses = fusesOf(model, part, on.setup)
      .map((fuse) => ({ fuse, under: fuseUnder(trace, fuse.rated, fuse.besides) }))
      .filter(({ under }) => answer.verdict !== 'nothing' && (showsPeak(start, of) || under === 'opens'));
    return {
      head: startWords(held),
      lines: [...startLines(held), ...fuses.map(({ fuse, under }) => fuseUnderWords(fuse, under))],
      marks: [
        ...(isBegun ? [{ at: begin, words: 'on' }] : []),
        ...(isBegun && answer.settleSeconds
          ? [{ at: begin + answer.settleSeconds, words: `settled, ${timeWords(answer.settleSeconds)}` }]
          : []),
      ],
      settled: answer.settled,
    };
  }, [model, part, kind, shown, sound, on]);
}
