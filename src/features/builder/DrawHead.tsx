'use client';

import { Redo2, Undo2, type LucideIcon } from 'lucide-react';
import { Brand } from '@/ui/Brand';
import { MainKey, PlainKey } from '@/ui/sheet';

export type View = 'schematic' | 'path';
const VIEWS = { schematic: 'Schematic', path: 'Path' } satisfies Record<View, string>;

/** What is drawn, how it is looked at, step by step back and forth, and into the library. */
export function DrawHead({
  title,
  under,
  empty,
  view,
  onView,
  large,
  onLarge,
  undo,
  redo,
  onKeep,
  children,
}: {
  title: string;
  under: string;
  empty: boolean;
  view: View;
  onView: (view: View) => void;
  large: boolean;
  onLarge: (large: boolean) => void;
  undo: (() => void) | null;
  redo: (() => void) | null;
  onKeep: () => void;
  /** The menu of files. */
  children: React.ReactNode;
}) {
  return (
    <header className="flex h-14 shrink-0 items-stretch border-b-2 border-ink bg-film pl-6 max-tablet:pl-3">
      <Brand />
      <div className="flex min-w-0 flex-1 flex-col justify-center border-l border-rule px-4">
        <h1 className="truncate text-[17px] leading-5 font-[750]">{title}</h1>
        <p className="truncate text-[15px] leading-5 text-ink2">{under}</p>
      </div>
      {empty ? null : (
        <div className="flex items-center pr-3 max-tablet:hidden" role="group" aria-label="View">
          {(Object.keys(VIEWS) as View[]).map((one) => (
            <PlainKey
              key={one}
              aria-pressed={view === one}
              className="-ml-[1.5px] px-3.5! text-[16px]!"
              onClick={() => onView(one)}
            >
              {VIEWS[one]}
            </PlainKey>
          ))}
          <PlainKey
            aria-pressed={large}
            className="-ml-[1.5px] px-3.5! text-[16px]! max-desk:hidden!"
            onClick={() => onLarge(!large)}
          >
            More room
          </PlainKey>
        </div>
      )}
      <div className="flex border-l border-rule">
        <StepKey name="Undo" icon={Undo2} step={undo} />
        <StepKey name="Redo" icon={Redo2} step={redo} />
      </div>
      {children}
      <MainKey className="h-full px-6!" disabled={empty} onClick={onKeep}>
        Keep it
      </MainKey>
    </header>
  );
}

function StepKey({ name, icon: Icon, step }: { name: string; icon: LucideIcon; step: (() => void) | null }) {
  return (
    <button
      type="button"
      className="flex min-w-11 items-center justify-center disabled:opacity-40"
      aria-label={name}
      disabled={!step}
      onClick={() => step?.()}
    >
      <Icon size={20} aria-hidden />
    </button>
  );
}
