'use client';

import { Heading, PlainKey } from '@/ui/sheet';
import { featureLines, heardLines, judgementWords, standingRows } from '@/words/en/traces';
import { Standings } from './Standings';
import type { PartTrace } from './usePartTrace';

/** What a trace shows, what it can be the trace of, and whether it is kept; nothing before there is one. */
export function TraceFound({ trace }: { trace: PartTrace }) {
  const { on, dip, shown, features, before, brought, kept, judged, start, expected, setBehind } = trace;
  if (!shown || !features) return null;
  return (
    <section aria-labelledby="found" className="pt-3" data-testid="trace-found">
      <Heading id="found">What it shows</Heading>
      <p className="py-2 text-[18px] leading-[24px] font-[650]" role="status">
        {!dip
          ? start?.head
          : judged === null
            ? 'Weighing what it can be the trace of: some seconds.'
            : judged.ok
              ? judgementWords(judged.value.named, judged.value.standings, judged.value.before !== null)
              : judged.message}
      </p>
      <div className="pb-2 text-[17px]">
        {[
          ...(dip ? featureLines(features, before, on?.amps ?? null) : (start?.lines ?? [])),
          ...heardLines(features, brought?.heard ?? []),
        ].map((line) => (
          <p key={line}>{line}</p>
        ))}
      </div>
      {judged?.ok ? (
        <Standings
          rows={standingRows(judged.value.standings, judged.value.before !== null)}
          behind={expected?.condition ?? null}
          onBehind={setBehind}
        />
      ) : null}
      {brought ? (
        <KeepOrLeave trace={trace} />
      ) : kept ? (
        <p className="pt-2 text-[15.5px] text-ink2">
          Kept by {kept.person}, from {kept.body.source || 'typed points'}.
        </p>
      ) : null}
    </section>
  );
}

function KeepOrLeave({ trace: { dip, judged, mended, keep, leave } }: { trace: PartTrace }) {
  return (
    <div className="flex flex-wrap items-center gap-3 pt-3">
      <button
        type="button"
        onClick={keep}
        disabled={dip && judged === null}
        className="min-h-11 bg-pencil px-5 text-[17px] font-[750] text-sheet disabled:bg-well disabled:text-ink2"
      >
        Keep it in the job
      </button>
      <PlainKey onClick={leave}>Leave it</PlainKey>
      <span className="text-[15.5px] text-ink2">
        {mended
          ? 'After the fix: what the next trace of it is held against.'
          : dip
            ? 'What it settles at and what its shape is named count as readings.'
            : 'What it settles at counts as a reading.'}
      </span>
    </div>
  );
}
