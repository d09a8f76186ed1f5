'use client';

import { useEffect, useRef } from 'react';

/** Ctrl Z, or Cmd Z, outside of fields and dialogs, where what is typed has its own; null while there is nothing to undo. */
export function useUndoKey(undo: (() => void) | null): void {
  const latest = useRef(undo);
  useEffect(() => {
    latest.current = undo;
  });
  useEffect(() => {
    const listen = (event: KeyboardEvent) => {
      const { target } = event;
      const elsewhere =
        target instanceof Element && target.closest('[role=dialog],[role=menu],textarea,select') !== null;
      const typing =
        target instanceof HTMLInputElement && target.type !== 'checkbox' && target.value.trim() !== '';
      if (!latest.current || event.defaultPrevented || elsewhere || typing) return;
      if (!(event.ctrlKey || event.metaKey) || event.shiftKey || event.key.toLowerCase() !== 'z') return;
      event.preventDefault();
      latest.current();
    };
    window.addEventListener('keydown', listen);
    return () => window.removeEventListener('keydown', listen);
  }, []);
}
