import type { KeyboardEvent } from 'react';

/** Small pieces of every drawing: what can be pressed in it, pipes, and words that fit. */

/** A piece of a drawing that does something when it is clicked, or on Enter or Space. */
export function pressable(action: () => void) {
  return {
    role: 'button',
    onClick: (event: { stopPropagation: () => void }) => {
      event.stopPropagation();
      action();
    },
    onKeyDown: (event: KeyboardEvent) => {
      if (event.key !== 'Enter' && event.key !== ' ') return;
      event.preventDefault();
      event.stopPropagation();
      action();
    },
  };
}

/** Air, oil or vacuum: two lines where a wire is one. */
export function Pipe({
  d,
  dashed = false,
  ink = 'currentColor',
}: {
  d: string;
  dashed?: boolean;
  ink?: string;
}) {
  return (
    <g fill="none" strokeLinejoin="round">
      <path d={d} stroke={ink} strokeWidth={7} strokeDasharray={dashed ? '13 7' : undefined} />
      <path d={d} stroke="var(--sheet)" strokeWidth={3} />
    </g>
  );
}

/** Words cut to a room, px, at about so many px a character. */
export function fit(text: string, room: number, character: number): string {
  const most = Math.max(4, Math.floor(room / character));
  return text.length > most ? `${text.slice(0, most - 1).trimEnd()}…` : text;
}
