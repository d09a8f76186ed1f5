'use client';

import { Check, ChevronDown, X } from 'lucide-react';
import { Collapsible } from 'radix-ui';
import { useState } from 'react';
import type { Reading } from '@/core/circuit/schema';
import { goneFuses } from '@/core/job/blownFuses';
import type { State } from '@/core/path/standing';
import type { Outlook } from '@/workers/protocol';
import { inTwenty, WindingBar } from '@/ui/Turns';
import { evidenceWords, faultWords } from '@/words/en/findings';
import { type Speaker } from '@/words/en/readings';

const SHOWN = 3;

/** Where the doubt sits: one row a part, the first open, spared parts by name. */
export function SuspectList({
  speaker,
  outlook,
  readings,
  stale,
  supposed,
  openPart,
  onOpen,
}: {
  speaker: Speaker;
  outlook: Outlook | null;
  readings: readonly Reading[];
  stale: boolean;
  /** A value that is only supposed; the list shows what it would leave. */
  supposed?: string | null;
  openPart: string | null;
  onOpen: (part: string | null) => void;
}) {
  const [all, setAll] = useState(false);
  if (!outlook) {
    return (
      <section aria-label="Where the doubt sits" aria-busy className="min-w-0">
        <Title note="working out every fault on this path" />
        {[0, 1, 2, 3].map((row) => (
          <div key={row} className="h-11 border-b-[1.5px] border-rule" />
        ))}
      </section>
    );
  }
  const { standings, diagnosis, soundTurns } = outlook;
  const { parts } = speaker.model.compiled;
  const rows = parts
    .map(({ part, index }) => ({ part, standing: standings[index]! }))
    .filter(({ standing }) => standing.turns > 0 || standing.state === 'bad')
    .sort((a, b) => b.standing.share - a.standing.share);
  const gone = goneFuses(speaker.model, diagnosis.verdict, readings);
  const inState = (state: State) =>
    parts
      .filter(({ part, index }) => standings[index]!.state === state && !gone.has(part.ref))
      .map(({ part }) => part.ref);
  const [spared, held] = [inState('spared'), inState('held')];
  const shown = all ? rows : rows.slice(0, SHOWN);
  const hidden = rows.length - shown.length;
  const first = openPart ?? rows[0]?.part.ref ?? null;
  return (
    <section aria-label="Where the doubt sits" className="flex min-h-0 min-w-0 flex-col">
      <Title
        note={
          supposed
            ? `if it read ${supposed}: not pinned`
            : stale
              ? `trying ${diagnosis.counted.faults} faults, pin on meanwhile`
              : '20 turns, moved by readings'
        }
      />
      <ul className={`min-h-0 flex-1 overflow-y-auto ${stale ? 'opacity-40' : ''}`}>
        {shown.map(({ part, standing }) => {
          const suspect = diagnosis.suspects.find((one) => one.part === part.ref);
          const open = first === part.ref;
          const bad = standing.state === 'bad';
          const proofs =
            'proofs' in diagnosis.verdict && diagnosis.verdict.part === part.ref
              ? diagnosis.verdict.proofs
              : undefined;
          return (
            <li key={part.ref} className={`border-b-[1.5px] border-rule ${bad ? 'bg-stamp-t' : ''}`}>
              <Collapsible.Root open={open} onOpenChange={(next) => onOpen(next ? part.ref : '')}>
                <Collapsible.Trigger
                  data-suspect={part.ref}
                  className="flex h-11 w-full min-w-0 items-center gap-2 text-left"
                >
                  {bad ? <X size={18} strokeWidth={3} className="text-stamp" aria-hidden /> : null}
                  <span className={`fig-bold text-[17px] whitespace-nowrap ${bad ? 'text-stamp' : ''}`}>
                    {part.ref}
                  </span>
                  <span className="min-w-0 flex-1 truncate text-[15.5px] text-ink2">
                    {bad
                      ? 'mended' in diagnosis.verdict
                        ? 'Proved bad, mended since'
                        : 'Proved bad'
                      : [part.label ?? part.place, suspect && open ? faultWords(speaker, suspect) : '']
                          .filter(Boolean)
                          .join(': ')}
                  </span>
                  <WindingBar count={standing.turns} />
                  <span className="w-[72px] text-right text-[17px] font-[750] whitespace-nowrap text-copper-ink">
                    {inTwenty(standing.turns)}
                  </span>
                </Collapsible.Trigger>
                <Collapsible.Content>
                  {suspect ? (
                    <dl className="grid grid-cols-[70px_1fr] gap-x-1 pb-2 text-[15.5px] leading-[1.28]">
                      <dt className="font-[750]">For</dt>
                      <dd className="line-clamp-2">{evidenceWords(speaker, suspect.for, readings)}</dd>
                      <dt className="font-[750]">Against</dt>
                      <dd>
                        {evidenceWords(speaker, suspect.against, readings)} Readings that prove it:{' '}
                        {proofs?.have ?? 0} of {proofs?.need ?? 2}.
                      </dd>
                    </dl>
                  ) : null}
                </Collapsible.Content>
              </Collapsible.Root>
            </li>
          );
        })}
        {soundTurns > 0 ? (
          <li className="flex h-11 items-center gap-2 border-b-[1.5px] border-rule">
            <span className="flex-1 text-[16px]">Nothing wrong on this path</span>
            <WindingBar count={soundTurns} />
            <span className="w-[72px] text-right text-[17px] font-[750] text-copper-ink">
              {inTwenty(soundTurns)}
            </span>
          </li>
        ) : null}
      </ul>
      <div className="flex min-h-11 shrink-0 items-center gap-3 border-t-[1.5px] border-rule text-[15.5px] leading-[18px]">
        {spared.length + held.length > 0 ? (
          <p className="flex min-w-0 items-center gap-2 text-verdi">
            {spared.length > 0 ? <Check size={18} strokeWidth={3} className="shrink-0" aria-hidden /> : null}
            <span className="line-clamp-2">
              {spared.length > 0 ? `Spared: ${spared.join(', ')}. ` : ''}
              {held.length > 0 ? `Held: ${held.join(', ')}.` : ''}
            </span>
          </p>
        ) : null}
        {hidden > 0 || all ? (
          <button
            type="button"
            className="ml-auto flex min-h-11 shrink-0 items-center gap-1 underline underline-offset-4"
            onClick={() => setAll(!all)}
          >
            {all ? 'Fewer' : `${hidden} more`}
            <ChevronDown size={15} className={all ? 'rotate-180' : ''} aria-hidden />
          </button>
        ) : null}
      </div>
    </section>
  );
}

function Title({ note }: { note: string }) {
  return (
    <h2 className="flex h-9 shrink-0 items-baseline gap-3 border-b-2 border-ink text-[18px] font-[750]">
      <span className="whitespace-nowrap">Where the doubt sits</span>
      <span className="truncate text-[15.5px] font-[550] text-ink2">{note}</span>
    </h2>
  );
}
