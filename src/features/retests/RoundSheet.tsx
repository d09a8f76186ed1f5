'use client';

import { calendarDay } from '@/core/units/siteTime';
import { Link } from '@/ui/Link';
import { useState, useTransition } from 'react';
import { Heading, MainKey, Nothing, Trouble } from '@/ui/sheet';
import { openRetest } from './actions';
import { sent } from '../sent';
import type { RoundStop } from './server';

/** Looks of every row, said once for the list: a round has a hundred rows. */
const PLACES = `[&>li]:grid [&>li]:min-h-11 [&>li]:grid-cols-[minmax(0,1fr)_auto] tablet:[&>li]:grid-cols-[minmax(0,1fr)_130px_130px]
  [&>li]:items-center [&>li]:gap-x-4 [&>li]:border-b-[1.5px] [&>li]:border-rule
  [&>li>span]:text-[16px] [&>li>span]:break-words [&_.fig]:text-[15.5px]! [&_.fig]:text-ink2
  [&_i]:h-8 [&_i]:border-b-[1.5px] [&_i]:border-edge max-tablet:[&_i]:hidden`;

/** The round on paper and on a phone: machine by machine what to read, what it read last, and a job to write it in. */
export function RoundSheet({ stops, today }: { stops: readonly RoundStop[]; today: string }) {
  const [trouble, setTrouble] = useState<{ at: string; words: string } | null>(null);
  const [busy, start] = useTransition();
  if (stops.length === 0) return <Nothing>Nothing is due in that time.</Nothing>;
  const begin = (functionId: string) =>
    start(async () => {
      const answer = await sent(openRetest(functionId));
      if (answer?.trouble) setTrouble({ at: functionId, words: answer.trouble });
    });
  return (
    <>
      {stops.map(
        ({
          function_id,
          machine_code,
          machine_name,
          machine_place,
          function_name,
          due,
          open_job,
          places,
        }) => (
          <section
            key={function_id}
            aria-label={`${machine_code} ${function_name}`}
            className="break-inside-avoid pt-2"
            data-testid="round-stop"
          >
            <Heading
              aside={
                <span className={due < today ? 'text-stamp' : ''}>
                  {function_name}, {machine_name}
                  {machine_place ? `, ${machine_place}` : ''}; {due < today ? 'was due' : 'due'}{' '}
                  <span className="whitespace-nowrap">{calendarDay(due)}</span>
                </span>
              }
            >
              {machine_code}
            </Heading>
            {places.length === 0 ? (
              <p className="py-2 text-[16px] text-ink2">
                No place was read twice here yet; what shows that it works is asked for on its page.
              </p>
            ) : (
              <ol className={PLACES}>
                {places.map(({ key, title, was }) => (
                  <li key={key}>
                    <span>{title}</span>
                    <span className="fig">was {was}</span>
                    <i aria-hidden />
                  </li>
                ))}
              </ol>
            )}
            <div className="py-2 print:hidden">
              {open_job === null ? (
                <MainKey disabled={busy} onClick={() => begin(function_id)}>
                  Begin here
                </MainKey>
              ) : (
                <Link
                  href={`/jobs/${open_job}?step=prove`}
                  className="inline-flex min-h-11 items-center font-[650] underline underline-offset-4"
                >
                  Job {open_job} is in hand
                </Link>
              )}
              {trouble?.at === function_id ? <Trouble>{trouble.words}</Trouble> : null}
            </div>
          </section>
        ),
      )}
    </>
  );
}
