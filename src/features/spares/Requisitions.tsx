'use client';

import { Link } from '@/ui/Link';
import { useState, useTransition } from 'react';
import { mayStep, NEXT_STATES, type RequisitionState } from '@/core/shed/requisition';
import type { RequisitionRow } from '@/db/spares';
import { Heading, Nothing, PlainKey, Trouble } from '@/ui/sheet';
import { dueWords, STATE_WORDS, STEP_WORDS } from '@/words/en/spares';
import { useWho } from '@/ui/who';
import { stepOn } from './actions';
import { sent } from '../sent';

/** What was asked for and is not there yet, the longest waiting first, each with what comes next. */
export function Requisitions({
  open,
  done,
  today,
}: {
  open: readonly RequisitionRow[];
  done: readonly RequisitionRow[];
  today: string;
}) {
  const who = useWho();
  const [trouble, setTrouble] = useState<{ at: number; words: string } | null>(null);
  const [busy, start] = useTransition();
  const step = (number: number, state: RequisitionState) =>
    start(async () => {
      const answer = await sent(stepOn(number, state, ''));
      setTrouble(answer.trouble === null ? null : { at: number, words: answer.trouble });
    });
  return (
    <section aria-labelledby="asked">
      <Heading id="asked" aside={`${open.length} on their way`}>
        Requisitions
      </Heading>
      {open.length > 0 ? null : (
        <Nothing>Nothing is on its way. What falls under its minimum is asked for by itself.</Nothing>
      )}
      <ul>
        {open.map((row) => (
          <li key={row.number} className="border-b-[1.5px] border-rule py-2" data-testid="requisition">
            <Line row={row} today={today} />
            <span className="flex flex-wrap gap-x-2 pt-1">
              {NEXT_STATES[row.state]
                .filter((state) => who !== null && mayStep(who.role, state))
                .map((state) => (
                  <PlainKey
                    key={state}
                    className="px-3! text-[15.5px]!"
                    disabled={busy}
                    onClick={() => step(row.number, state)}
                  >
                    {STEP_WORDS[state]}
                  </PlainKey>
                ))}
            </span>
            {trouble?.at === row.number ? <Trouble>{trouble.words}</Trouble> : null}
          </li>
        ))}
      </ul>
      {done.length > 0 ? (
        <details className="pt-2">
          <summary className="flex min-h-11 cursor-pointer items-center text-[16px] underline underline-offset-4">
            The last that came or were refused
          </summary>
          <ul>
            {done.map((row) => (
              <li key={row.number} className="border-b-[1.5px] border-rule py-1.5">
                <Line row={row} today={today} />
              </li>
            ))}
          </ul>
        </details>
      ) : null}
    </section>
  );
}

function Line({ row, today }: { row: RequisitionRow; today: string }) {
  const due = row.state === 'ordered' ? dueWords(row.due, today) : null;
  return (
    <span className="block break-words">
      <strong className="font-[720]">No. {row.number}</strong>: {row.pieces} ×{' '}
      <Link href={`/parts/${encodeURIComponent(row.spare_number)}`} className="underline underline-offset-4">
        {row.spare_number}
      </Link>{' '}
      {row.spare_name}
      <span className="block text-[15.5px] text-ink2">
        {STATE_WORDS[row.state]}
        {row.person ? ` by ${row.person}` : ''}
        {row.machine && row.job ? `, for ${row.machine}, job ${row.job}` : ''}
        {row.supplier ? `, ${row.supplier}` : ''}
        {due ? (
          <span className={due.late ? 'font-[680] text-stamp' : ''}>
            {', '}
            {due.words}
          </span>
        ) : null}
      </span>
    </span>
  );
}
