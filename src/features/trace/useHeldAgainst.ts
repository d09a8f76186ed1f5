'use client';

import { useEffect, useState } from 'react';
import type { TraceKind } from '@/core/trace/conditions';
import type { KeptTrace } from '@/core/trace/keptTrace';
import { useDesk } from '../desk/desk';
import { sent } from '../sent';
import { soundTraces } from './actions';

/** A trace that another is held against: of this coil from when it was sound, or of its twin. */
interface Sound {
  name: string;
  amps: KeptTrace;
}

/** Instead of what is asked for where the server is away. */
const NOTHING_EARLIER = { trouble: '' };
export const NOTHING = -1;

/** What a trace of a part can be held against: one that is brought, of an earlier job, of another coil of this one; and which of them it is. */
export function useHeldAgainst(
  part: string,
  kind: TraceKind,
  exceptId: string | undefined,
  onTrouble: (trouble: string) => void,
) {
  const { job, log } = useDesk();
  const [sounds, setSounds] = useState<Sound[]>([]);
  const [against, setAgainst] = useState(0);
  useEffect(() => {
    let left = false;
    // Away from the server there is nothing earlier; what is brought can be held against a file all the same.
    void sent(soundTraces(job.id), NOTHING_EARLIER).then((answer) => {
      if (left || answer === NOTHING_EARLIER) return;
      if ('trouble' in answer) return onTrouble(answer.trouble);
      const own = answer.traces.filter((one) => one.part === part);
      setSounds((now) => [
        ...own.map(({ amps, jobNumber }) => ({ name: `${part}, sound, job ${jobNumber}`, amps })),
        ...now,
      ]);
    });
    return () => {
      left = true;
    };
  }, [job.id, part, onTrouble]);
  // Traces of this job's other coils: a twin is the next best.
  const others = log.state.traces
    .filter(({ body, id }) => id !== exceptId && body.kind === kind)
    .map(({ body }) => ({ name: `${body.part}, this job`, amps: body.amps }));
  const choices = [...sounds, ...others];
  return {
    choices,
    sound: choices[against] ?? null,
    against,
    setAgainst,
    add: (sound: Sound) => setSounds((now) => [sound, ...now]),
  };
}
