import Link from 'next/link';
import type { TrendRow } from '@/db/trends';
import type { GaugeUnit } from '@/core/units/quantities';
import { measureFigure, trendWords, type TrendWords } from '@/words/en/trends';
import { DriftStrip } from './DriftStrip';

const TONE: Readonly<Record<TrendWords['tone'], string>> = {
  stamp: 'text-stamp',
  copper: 'text-copper-ink',
  plain: 'text-ink2',
};

/** What drifts: machine, place, its strip, the last figure, and what that comes to. */
export function DriftRows({
  rows,
  today,
  gaugeUnit,
}: {
  rows: readonly TrendRow[];
  today: string;
  gaugeUnit: GaugeUnit;
}) {
  return (
    <ul>
      {rows.map(({ function_id, place_key, machine_code, function_name, body }) => {
        const { moves, when, tone } = trendWords(body, today);
        const last = body.dots.at(-1)!;
        return (
          <li
            key={`${function_id} ${place_key}`}
            className="border-b-[1.5px] border-rule"
            data-testid="drift"
          >
            <Link
              href={`/drift/${function_id}/${place_key}`}
              className="grid min-h-[60px] items-center gap-x-4 gap-y-1 py-1.5 hover:bg-film tablet:grid-cols-[minmax(0,1.15fr)_240px_104px_minmax(0,1fr)]"
            >
              <span className="min-w-0">
                <strong className="fig-bold text-[18px]">{machine_code}</strong>{' '}
                <span className="text-[15.5px] text-ink2">{function_name}</span>
                <span className="block break-words text-[16px]">{body.title}</span>
              </span>
              <DriftStrip trend={body} label={`${body.dots.length} readings. ${moves} ${when}`} />
              <span className="fig-bold text-[18px] text-pencil">
                {measureFigure(body.kind, last.value, gaugeUnit, last.over)}
              </span>
              <span className={`min-w-0 text-[16px] font-[620] ${TONE[tone]}`}>
                {moves} {when}
              </span>
            </Link>
          </li>
        );
      })}
    </ul>
  );
}
