'use client';

import { useEffect, useMemo, useState } from 'react';
import type { Circuit, Setup } from '@/core/circuit/schema';
import type { CoilJudgement } from '@/core/trace/judgeCoil';
import type { KeptTrace } from '@/core/trace/keptTrace';
import type { WatchedPart } from '@/core/trace/restOf';
import type { Trace } from '@/core/trace/trace';
import type { Answer } from '@/workers/protocol';
import { expectTrace, weighTrace } from '@/workers/traceClient';

/** What a trace is weighed to be; null while that is worked out, or where there is none. */
export function useJudgement(
  circuit: Circuit,
  part: string,
  on: Setup | null,
  amps: KeptTrace | null,
  sound: KeptTrace | null,
): Answer<CoilJudgement> | null {
  const [found, setFound] = useState<{ of: object; answer: Answer<CoilJudgement> } | null>(null);
  // One object for one question: an answer to another one is none.
  const question = useMemo(
    () => (on && amps ? { circuit, part, on, amps, sound } : null),
    [circuit, part, on, amps, sound],
  );
  useEffect(() => {
    if (!question) return;
    const { answer, cancel } = weighTrace(question);
    void answer.then((value) => setFound({ of: question, answer: value }));
    return cancel;
  }, [question]);
  return question && found?.of === question ? found.answer : null;
}

/** What a sound load of this circuit should draw; null while that is worked out, where nobody can say, and where nobody asks. */
export function useExpected(
  circuit: Circuit,
  part: string,
  on: Setup | null,
  kind: WatchedPart['kind'] | null,
): Trace | null {
  const [found, setFound] = useState<{ of: object; trace: Trace | null } | null>(null);
  const question = useMemo(
    () => (on && kind ? { circuit, part, on, kind } : null),
    [circuit, part, on, kind],
  );
  useEffect(() => {
    if (!question) return;
    const { answer, cancel } = expectTrace(question);
    // Nothing hangs on it: where it fails nothing is drawn behind.
    void answer.then((value) => setFound({ of: question, trace: value.ok ? value.value : null }));
    return cancel;
  }, [question]);
  return question && found?.of === question ? found.trace : null;
}
