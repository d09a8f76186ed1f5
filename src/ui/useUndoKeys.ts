'use client';

import { useEffect } from 'react';

/** Keys of something that is worked on: keep it, a step back, a step forth. A field's own undo goes first while something is typed in it. */
export function useUndoKeys({
  enabled,
  onKeep,
  undo,
  redo,
}: {
  enabled: boolean;
  onKeep?: () => void;
  undo: (() => void) | null;
  redo: (() => void) | null;
}): void {
  useEffect(() => {
    const listen = (event: KeyboardEvent) => {
      if (!(event.ctrlKey || event.metaKey) || !enabled) return;
      const key = event.key.toLowerCase();
      // A tick has no undo of its own.
      const field =
        event.target instanceof HTMLElement &&
        event.target.matches('input:not([type=checkbox]),textarea,select');
      const own = field && (event.target as HTMLInputElement).value !== '';
      const forth = key === 'y' || (key === 'z' && event.shiftKey);
      if (key === 's' && onKeep) onKeep();
      else if (forth && !own) redo?.();
      else if (key === 'z' && !own) undo?.();
      else return;
      event.preventDefault();
    };
    window.addEventListener('keydown', listen);
    return () => window.removeEventListener('keydown', listen);
  }, [enabled, onKeep, undo, redo]);
}
