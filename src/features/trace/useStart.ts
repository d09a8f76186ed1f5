'use client';

import { useMemo } from 'react';
import { fusesOf } from '@/core/sheets/onCircuit/bearing';
import type { TraceKind } from '@/core/trace/conditions';
import { fuseUnder, pulsesOf, startOf } from '@/core/trace/inrush';
import { traceOfKept, type KeptTrace } from '@/core/trace/keptTrace';
import type { workedIn } from '@/core/trace/restOf';
import type { Trace } from '@/core/trace/trace';
import type { Part } from '@/core/circuit/schema';
import {
  fuseUnderWords,
  pulseWords,
  startLines,
  startWords,
  timeWords,
  type Starter,
} from '@/words/en/traces';
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
    const { compiled } = model;
    const own = compiled.parts.find(({ part: { ref } }) => ref === part)!;
    const hz = compiled.hertz[own.branches[0]!.a]!;
    const { trace, rms, answer } = startOf(shown, hz);
    const before = sound ? startOf(traceOfKept(sound), hz).answer : null;
    const fuses = answer.verdict === 'nothing' ? [] : fusesOf(model, part, on.setup);
    const begin = trace.seconds[0]!;
    return {
      head: startWords(answer, starterOf(own.part.kind)),
      lines: [
        ...startLines(answer, before, on.amps, rms, starterOf(own.part.kind)),
        ...fuses.map((fuse) => fuseUnderWords(fuse, fuseUnder(trace, fuse.rated, fuse.besides))),
      ],
      marks: [
        { at: begin, words: 'on' },
        ...(answer.settleSeconds
          ? [{ at: begin + answer.settleSeconds, words: `settled, ${timeWords(answer.settleSeconds)}` }]
          : []),
      ],
      settled: answer.settled,
    };
  }, [model, part, kind, shown, sound, on]);
}

function starterOf(kind: Part['kind']): Starter {
  if (kind === 'motor') return 'motor';
  return kind === 'coil' || kind === 'relay' ? 'coil' : 'other';
}
