'use client';

import { useEffect, useRef } from 'react';

export interface TestKeys {
  enabled: boolean;
  onKey: (key: string) => void;
  onErase: () => void;
  onPin: () => void;
  onEscape: () => void;
  /** Along the path; `other` moves the black lead. */
  onStepPoint: (direction: 1 | -1, other: boolean) => void;
  onUndo: () => void;
  onHold: () => void;
  onKeysHelp: () => void;
  onStep: (direction: 1 | -1) => void;
}

/** Keys that type a value from anywhere on the screen. */
const TYPED = /^[0-9.,>~mkMGRΩ-]$/;

/** The test screen without a mouse. One listener; keys in dialogs, menus and fields are left alone. */
export function useTestKeys(keys: TestKeys): void {
  const latest = useRef(keys);
  useEffect(() => {
    latest.current = keys;
  });
  useEffect(() => {
    const listen = (event: KeyboardEvent) => {
      const now = latest.current;
      const target =
        event.target instanceof HTMLElement || event.target instanceof SVGElement ? event.target : null;
      if (
        event.defaultPrevented ||
        event.altKey ||
        target?.closest('[role=menu],[role=dialog],textarea,select')
      )
        return;
      const inField = target instanceof HTMLInputElement && target.type !== 'checkbox';
      if (inField) return;
      const handle = (action: () => void) => {
        event.preventDefault();
        action();
      };
      if (event.ctrlKey || event.metaKey) {
        if (event.key.toLowerCase() === 'z') handle(now.onUndo);
        return;
      }
      const onControl = target?.closest('button,a,[role=button],input') ?? null;
      // A value typed while a button has the focus goes to the keyline, and so does the Enter after it.
      const type = (key: string) => {
        if (onControl instanceof HTMLElement) onControl.blur();
        now.onKey(key);
      };
      switch (event.key) {
        case 'Enter':
          if (now.enabled && (!onControl || target instanceof HTMLInputElement)) handle(now.onPin);
          return;
        case 'Escape':
          return handle(now.onEscape);
        case 'Backspace':
          return handle(now.onErase);
        case 'ArrowLeft':
        case 'ArrowRight':
          return handle(() => now.onStepPoint(event.key === 'ArrowRight' ? 1 : -1, event.shiftKey));
        case 'ArrowUp':
        case 'ArrowDown':
          return handle(() => moveFocus('[data-suspect]', event.key === 'ArrowDown' ? 1 : -1));
        case '[':
          return handle(() => now.onStep(-1));
        case ']':
          return handle(() => now.onStep(1));
        case '?':
          return handle(now.onKeysHelp);
        case 'h':
        case 'H':
          return handle(now.onHold);
        case 'o':
        case 'O':
        case 'l':
        case 'L':
          if (now.enabled) handle(() => type('OL'));
          return;
      }
      if (!now.enabled || !TYPED.test(event.key)) return;
      handle(() => type(event.key));
    };
    window.addEventListener('keydown', listen);
    return () => window.removeEventListener('keydown', listen);
  }, []);
}

function moveFocus(selector: string, direction: 1 | -1): void {
  const all = [...document.querySelectorAll<HTMLElement>(selector)];
  const at = all.indexOf(document.activeElement as HTMLElement);
  all[Math.min(Math.max(at + direction, 0), all.length - 1)]?.focus();
}
