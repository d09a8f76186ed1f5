import type { Standing } from '@/core/shed/dayPlan';

/** One job on the line of the day: solid what it takes at least, hatched up to what it may take, against the hour the machines go out. */
export function DayBar({
  standing,
  span,
  out,
}: {
  standing: Standing | null;
  /** Minutes that the line is long. */
  span: number;
  /** Minutes to the hour; null where there is none. */
  out: number | null;
}) {
  const percent = (minutes: number) => `${Math.min(100, (100 * minutes) / span).toFixed(2)}%`;
  return (
    <span className="relative block h-8 overflow-x-clip border-l-2 border-pencil" aria-hidden>
      {standing ? (
        <>
          <span
            className="absolute top-3 block h-2 bg-ink"
            style={{
              left: percent(standing.begins.least),
              width: percent(standing.ends.least - standing.begins.least),
            }}
          />
          <span
            className="absolute top-1.5 block h-5 border-2 border-ink"
            style={{
              left: percent(standing.ends.least),
              width: percent(Math.max(standing.ends.most - standing.ends.least, span / 200)),
              backgroundImage: 'repeating-linear-gradient(135deg, var(--ink) 0 1.5px, transparent 1.5px 6px)',
            }}
          />
        </>
      ) : null}
      {out !== null && out <= span ? (
        <span className="absolute -top-1 bottom-0 block w-[3px] bg-ink" style={{ left: percent(out) }} />
      ) : null}
    </span>
  );
}
