'use client';

import { useEffect, useState } from 'react';
import { askServer } from '../askServer';
import type { FunctionChoice } from './functionChoices';

const WAIT_MS = 180;

export interface FunctionSearch {
  functions: readonly FunctionChoice[];
  /** As many as fit the words, listed or not. */
  total: number;
  /** The server did not answer the last question. */
  away: boolean;
}

/** Functions by any words, asked of the server a moment after the last key. */
export function useFunctionSearch(text: string, first: Omit<FunctionSearch, 'away'>): FunctionSearch {
  const [found, setFound] = useState<FunctionSearch>({ ...first, away: false });
  const words = text.trim();
  useEffect(() => {
    if (words === '') return;
    const leave = new AbortController();
    const timer = setTimeout(() => {
      askServer<Omit<FunctionSearch, 'away'>>(
        `/api/functions?${new URLSearchParams({ q: words }).toString()}`,
        { signal: leave.signal },
      )
        .then((answer) => setFound({ ...answer, away: false }))
        .catch(() => {
          if (!leave.signal.aborted) setFound((now) => ({ ...now, away: true }));
        });
    }, WAIT_MS);
    return () => {
      clearTimeout(timer);
      leave.abort();
    };
  }, [words]);
  return words === '' ? { ...first, away: false } : found;
}
