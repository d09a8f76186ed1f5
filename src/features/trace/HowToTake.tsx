'use client';

import { useMemo } from 'react';
import type { Test } from '@/core/circuit/schema';
import { cautionsOf } from '@/core/diagnosis/cautionsOf';
import { restOf, workedIn } from '@/core/trace/restOf';
import { Heading, Hold, Nothing } from '@/ui/sheet';
import { shutWords } from '@/words/en/holds';
import { positionWords, quantity } from '@/words/en/readings';
import { useDesk } from '../desk/desk';
import { HoldRow } from '../measure/HoldRow';
import { useHold } from '../measure/useHold';

/** How the trace of a part is taken, and what is to be cleared before. */
export function HowToTake({ part, dip }: { part: string; dip: boolean }) {
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
