import type { JobLog } from './useJobLog';

/** Says when entries wait for the server, and when one was refused for good. */
export function SaveStrip({ log }: { log: JobLog }) {
  const { waiting, online, refused } = log;
  if (refused) {
    const lines = waiting.map((entry) => `${entry.type} ${JSON.stringify(entry.body)}`);
    return (
      <div
        role="alert"
        className="shrink-0 border-t-2 border-stamp bg-stamp-t px-6 py-2 text-[15.5px] text-stamp"
      >
        <strong>✕ Not saved: {refused}</strong> Copy what was entered:
        <textarea
          readOnly
          className="fig mt-1 block h-14 w-full bg-sheet p-1 text-[15px] text-ink"
          value={lines.join('\n')}
        />
      </div>
    );
  }
  if (online) return null;
  const count = waiting.length;
  return (
    <div
      role="status"
      className="shrink-0 border-t-2 border-ink bg-pencil-t px-6 py-1.5 text-[15.5px]"
      data-testid="offline"
    >
      Kept on this tablet.{' '}
      {count === 0
        ? 'The server does not answer; work goes on.'
        : `${count} ${count === 1 ? 'entry' : 'entries'} will send when it is back in range.`}
    </div>
  );
}
