'use client';

import { entryWords } from '@/words/en/refusals';
import { PlainKey } from '@/ui/sheet';
import type { OpenLog } from './log/useJobLog';

/** Says when entries wait for the server, when one stands aside with its reason, and when this browser keeps nothing. */
export function SaveStrip({
  log,
  here,
  person,
}: {
  log: OpenLog;
  /** Its page, to come back to. */
  here: string;
  /** Who writes on it. */
  person: string;
}) {
  const { waiting, online, aside, unkept, signedOut, others, mend, drop } = log;
  const count = waiting.length;
  return (
    <>
      {aside.length > 0 ? (
        <div
          role="alert"
          data-testid="aside"
          className="max-h-[30vh] shrink-0 overflow-y-auto border-t-2 border-stamp bg-stamp-t px-6 py-2 text-[15.5px] text-stamp"
        >
          <strong>✕ Not taken by the server; everything else went on.</strong>
          <ul>
            {aside.map(({ entry, refused }) => (
              <li key={entry.id} className="flex flex-wrap items-center gap-x-3 gap-y-1 py-1">
                <span className="min-w-[240px] flex-1 text-ink">
                  <strong>{entryWords(entry)}</strong>: {refused!.message}
                </span>
                <PlainKey className="px-3! text-[15.5px]!" onClick={() => mend(entry.id)}>
                  Write it again
                </PlainKey>
                <PlainKey className="px-3! text-[15.5px]!" onClick={() => drop(entry.id)}>
                  Let it go
                </PlainKey>
              </li>
            ))}
          </ul>
        </div>
      ) : null}
      {unkept ? (
        <div
          role="alert"
          data-testid="unkept"
          className="shrink-0 border-t-2 border-stamp bg-stamp-t px-6 py-1.5 text-[15.5px] text-stamp"
        >
          <strong>This browser cannot keep what is written:</strong> its storage is full or shut. Leave this
          page open until the server has it.
        </div>
      ) : null}
      {[...others].map(([person, many]) => (
        <div
          key={person}
          role="status"
          data-testid="of-others"
          className="shrink-0 border-t-2 border-ink bg-pencil-t px-6 py-1.5 text-[15.5px]"
        >
          {many} {many === 1 ? 'entry' : 'entries'} of {person} {many === 1 ? 'waits' : 'wait'} on this
          device, and will send when {person} signs in here.
        </div>
      ))}
      {signedOut ? (
        <div
          role="alert"
          data-testid="signed-out"
          className="flex shrink-0 flex-wrap items-center gap-x-3 border-t-2 border-stamp bg-stamp-t px-6 py-1.5 text-[15.5px] text-stamp"
        >
          <span>
            <strong>{person} is not signed in here any more.</strong>
            {count === 0
              ? null
              : ` ${count === 1 ? '1 entry is' : `${count} entries are`} kept on this device.`}
          </span>
          <a
            href={`/sign-in?to=${encodeURIComponent(here)}`}
            className="inline-flex min-h-11 items-center font-[700] underline underline-offset-4"
          >
            Sign in
          </a>
        </div>
      ) : null}
      {online ? null : (
        <div
          role="status"
          className="shrink-0 border-t-2 border-ink bg-pencil-t px-6 py-1.5 text-[15.5px]"
          data-testid="offline"
        >
          {unkept ? 'Kept on this page.' : 'Kept on this device.'}{' '}
          {count === 0
            ? 'The server does not answer; work goes on.'
            : `${count} ${count === 1 ? 'entry' : 'entries'} will send when it is back in range.`}
        </div>
      )}
    </>
  );
}
