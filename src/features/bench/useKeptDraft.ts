'use client';

import { useEffect, useReducer, useRef } from 'react';
import type { SheetName } from '@/core/sheets/sheets';
import { move, startSteps } from '@/ui/undoSteps';
import { BLANK, isDraft, type Draft } from './benchDraft';

/** Letters that follow each other so fast in one field are one step. */
const ONE_STEP_MS = 1200;

export interface KeptDraft {
  draft: Draft;
  change: (draft: Draft) => void;
  undo: (() => void) | null;
  redo: (() => void) | null;
}

/** A half-filled sheet with undo and redo, kept on this device until it is cleared. */
export function useKeptDraft(sheet: SheetName): KeptDraft {
  const key = `spiraxis-bench-${sheet}`;
  const [{ steps, at }, act] = useReducer(move<Draft>, BLANK, startSteps<Draft>);
  const last = useRef({ what: '', atMs: -Infinity });
  const draft = steps[at]!;
  /** Of another sheet, until its own was looked for. */
  const fresh = useRef(true);
  useEffect(() => {
    // The server knows nothing of it: it is taken up once the page is here.
    fresh.current = true;
    act({ is: 'start', to: keptUnder(key) });
  }, [key]);
  useEffect(() => {
    // What stands before the page has looked is not what was typed here.
    if (fresh.current) fresh.current = false;
    else keep(key, draft);
  }, [key, draft]);
  const step = (is: 'undo' | 'redo') => () => {
    last.current = { what: '', atMs: -Infinity };
    act({ is });
  };
  return {
    draft,
    change: (to) => {
      const now = { what: changedIn(draft, to), atMs: performance.now() };
      const goesOn = now.what === last.current.what && now.atMs - last.current.atMs < ONE_STEP_MS;
      act({ is: goesOn ? 'goOn' : 'put', to });
      last.current = now;
    },
    undo: at > 0 ? step('undo') : null,
    redo: at < steps.length - 1 ? step('redo') : null,
  };
}

/** What of a sheet a change is about: a field, or a line of a table. */
function changedIn(before: Draft, after: Draft): string {
  const differ = (one: object, other: object, path: string): string[] =>
    [...new Set([...Object.keys(one), ...Object.keys(other)])].flatMap((key) => {
      const [a, b] = [one, other].map((from) => (from as Record<string, unknown>)[key]);
      if (a === b) return [];
      const both = a instanceof Object && b instanceof Object;
      return both ? differ(a, b, `${path}/${key}`) : [`${path}/${key}`];
    });
  return differ(before, after, '').join();
}

function keep(key: string, draft: Draft): void {
  try {
    localStorage.setItem(key, JSON.stringify(draft));
  } catch {
    // A full tablet keeps nothing; what is typed stays on the screen and can be kept as a file.
  }
}

function keptUnder(key: string): Draft {
  const stored = localStorage.getItem(key);
  if (!stored) return BLANK;
  try {
    const parsed: unknown = JSON.parse(stored);
    return isDraft(parsed) ? parsed : BLANK;
  } catch {
    return BLANK;
  }
}
