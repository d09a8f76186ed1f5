import type { Standing } from '@/core/path/standing';
import { inTwenty } from '../Turns';

/** Ink and words of a part by how it stands. */
export const STATE_INK: Readonly<Record<Standing['state'], string>> = {
  doubt: 'var(--ink)',
  held: 'var(--verdi)',
  spared: 'var(--verdi)',
  bad: 'var(--stamp)',
};

/** Room of a character of the names on a figure, px. */
export const CHARACTER = 6.7;

export function wordState({ state, turns }: Standing): string {
  if (state === 'spared') return 'spared';
  if (state === 'held') return 'held, nothing drawn through it yet';
  if (state === 'bad') return 'proved bad';
  return inTwenty(turns);
}

export function Count({ turns, x, y, short }: { turns: number; x: number; y: number; short: boolean }) {
  return (
    <text
      x={x}
      y={y}
      textAnchor="middle"
      fontSize={16}
      fontWeight={750}
      style={{ fill: 'var(--copper-ink)' }}
    >
      {short && turns > 0 ? turns : inTwenty(turns)}
    </text>
  );
}
