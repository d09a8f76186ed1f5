'use client';

import type { ReactNode } from 'react';
import { JobStrip } from './JobStrip';

/** A step that keeps the path as a strip above two columns of work. */
export function StepLayout({
  left,
  right,
  foot,
  part,
  onPart,
}: {
  left: ReactNode;
  right: ReactNode;
  foot?: ReactNode;
  part?: string | null;
  onPart?: (ref: string) => void;
}) {
  return (
    <main className="flex min-h-0 flex-1 flex-col print:block">
      <JobStrip part={part ?? null} {...(onPart ? { onPart } : {})} />
      <div className="grid min-h-0 flex-1 content-start gap-x-9 overflow-y-auto bg-film px-6 pb-8 max-tablet:px-3 print:block print:overflow-visible desk:grid-cols-[minmax(0,1fr)_minmax(0,1fr)]">
        <div className="min-w-0">{left}</div>
        <div className="min-w-0">{right}</div>
      </div>
      {foot ? (
        <div className="flex min-h-[64px] shrink-0 flex-wrap items-center gap-4 border-t-2 border-ink bg-sheet px-6 py-2 max-tablet:px-3">
          {foot}
        </div>
      ) : null}
    </main>
  );
}
