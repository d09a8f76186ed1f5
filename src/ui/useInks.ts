import { useEffect, useState } from 'react';

const NAMES = [
  'sheet',
  'ink',
  'ink2',
  'copper',
  'pencil',
  'verdi',
  'stamp',
  'stamp-t',
  'rule',
  'edge',
] as const;
export type Inks = Record<(typeof NAMES)[number], string>;

/** The theme's inks as colours, for what is drawn on a canvas; read again when the theme changes. */
export function useInks(): Inks {
  const [inks, setInks] = useState(readInks);
  useEffect(() => {
    const observer = new MutationObserver(() => setInks(readInks()));
    observer.observe(document.documentElement, { attributes: true, attributeFilter: ['data-theme'] });
    return () => observer.disconnect();
  }, []);
  return inks;
}

function readInks(): Inks {
  const style = getComputedStyle(document.documentElement);
  return Object.fromEntries(NAMES.map((name) => [name, style.getPropertyValue(`--${name}`).trim()])) as Inks;
}
