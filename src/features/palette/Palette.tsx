'use client';

import dynamic from 'next/dynamic';
import { useEffect, useState } from 'react';

const PaletteDialog = dynamic(() => import('./PaletteDialog').then((one) => one.PaletteDialog), {
  ssr: false,
});

/** Ctrl K from anywhere; `/` goes to a page's own search. The dialog travels to the browser when it is first called. */
export function Palette() {
  const [open, setOpen] = useState(false);
  const [called, setCalled] = useState(false);
  useEffect(() => {
    const listen = (event: KeyboardEvent) => {
      const find = document.querySelector<HTMLInputElement>('[data-find]');
      const typing = event.target instanceof HTMLElement && event.target.matches('input,textarea,select');
      if (event.key === '/' && find && !typing) {
        event.preventDefault();
        find.focus();
      }
      if (event.key.toLowerCase() !== 'k' || !(event.ctrlKey || event.metaKey)) return;
      event.preventDefault();
      setCalled(true);
      setOpen((now) => !now);
    };
    window.addEventListener('keydown', listen);
    return () => window.removeEventListener('keydown', listen);
  }, []);
  return called ? <PaletteDialog open={open} onOpen={setOpen} /> : null;
}
