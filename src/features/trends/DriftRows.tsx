'use client';

import { Link } from '@/ui/Link';
import type { TrendWords } from '@/words/en/trends';
import type { DriftFacts } from './driftFacts';
import { DriftStrip } from './DriftStrip';

const TONE: Readonly<Record<TrendWords['tone'], string>> = {
  stamp: 'text-stamp',
  copper: 'text-copper-ink',
  plain: 'text-ink2',
};

/** What drifts: machine, place, its strip, the last figure, and what that comes to. */
export function DriftRows({ rows }: { rows: readonly DriftFacts[] }) {
  return (
    <ul>
      {rows.map(({ place, machine, function: name, title, figure, says, tone, readings, strip }) => (
        <li key={place} className="border-b-[1.5px] border-rule" data-testid="drift">
          <Link
            href={`/drift/${place}`}
            className="grid min-h-[60px] items-center gap-x-4 gap-y-1 py-1.5 hover:bg-film tablet:grid-cols-[minmax(0,1.15fr)_240px_104px_minmax(0,1fr)]"
          >
            <span className="min-w-0">
              <strong className="fig-bold text-[18px]">{machine}</strong>{' '}
              <span className="text-[15.5px] text-ink2">{name}</span>
              <span className="block break-words text-[16px]">{title}</span>
            </span>
            {strip ? <DriftStrip strip={strip} label={`${readings} readings. ${says}`} /> : <span />}
            <span className="fig-bold text-[18px] text-pencil">{figure}</span>
            <span className={`min-w-0 text-[16px] font-[620] ${TONE[tone]}`}>{says}</span>
          </Link>
        </li>
      ))}
    </ul>
  );
}
