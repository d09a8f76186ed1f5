import { ALL_TURNS } from '@/core/path/turns';

/** Strokes of a winding: slanted up to the right, pitch closing to fit. Centred on (x, y). */
export function TurnStrokes({
  count,
  x,
  y,
  height = 30,
  room = 110,
  upright = true,
  closest = 4.6,
}: {
  count: number;
  x: number;
  y: number;
  height?: number;
  room?: number;
  /** False for a winding around a vertical wire. */
  upright?: boolean;
  /** Closest the strokes may stand. */
  closest?: number;
}) {
  const pitch = Math.max(closest, Math.min(7, (room - 6) / Math.max(count, 1)));
  const lean = height * 0.2;
  const start = -((count - 1) * pitch) / 2;
  return (
    <g stroke="var(--copper)" strokeWidth="var(--turn-width)" strokeLinecap="round">
      {Array.from({ length: count }, (_, k) => {
        const at = start + k * pitch;
        const [x1, y1, x2, y2] = upright
          ? [x + at - lean / 2, y + height / 2, x + at + lean / 2, y - height / 2]
          : [x - height / 2, y + at - lean / 2, x + height / 2, y + at + lean / 2];
        return <line key={k} className="turn" x1={x1} y1={y1} x2={x2} y2={y2} />;
      })}
    </g>
  );
}

/** The bar beside a suspect: its turns on a bare axis that shows what is missing of twenty. */
export function WindingBar({ count, width = 146 }: { count: number; width?: number }) {
  const pitch = width / ALL_TURNS;
  return (
    <svg width={width} height={22} viewBox={`0 0 ${width} 22`} aria-hidden className="shrink-0">
      <line x1={0} x2={width} y1={11} y2={11} stroke="var(--edge)" strokeWidth={1.5} />
      <g stroke="var(--copper)" strokeWidth="var(--turn-width)" strokeLinecap="round">
        {Array.from({ length: count }, (_, k) => (
          <line key={k} className="turn" x1={4 + k * pitch} y1={20} x2={8 + k * pitch} y2={2} />
        ))}
      </g>
    </svg>
  );
}

/** "9 in 20", or "under 1". */
export function inTwenty(turns: number): string {
  return turns === 0 ? 'under 1' : `${turns} in ${ALL_TURNS}`;
}
