'use client';

import { useEffect, useState } from 'react';
import type { SheetName } from '@/core/sheets/sheets';
import { BLANK, isDraft, type Draft } from './benchDraft';

/** A half-filled sheet, kept on this device until it is cleared. */
export function useKeptDraft(sheet: SheetName): [Draft, (draft: Draft) => void] {
  const key = `spiraxis-bench-${sheet}`;
  const [draft, setDraft] = useState<Draft>(BLANK);
  useEffect(() => {
    // The server knows nothing of it: it is taken up once the page is here.
    setDraft(keptUnder(key));
  }, [key]);
  return [
    draft,
    (next) => {
      setDraft(next);
      try {
        localStorage.setItem(key, JSON.stringify(next));
      } catch {
        // A full tablet keeps nothing; what is typed stays on the screen and can be kept as a file.
      }
    },
  ];
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
