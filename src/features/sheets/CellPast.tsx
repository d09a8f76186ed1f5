'use client';

import dynamic from 'next/dynamic';
import type { SheetCell } from '@/core/sheets/onCircuit/jobSheet';
import { pastWords } from '@/words/en/sheets';
import { useNow } from '@/ui/useNow';
import { useDesk } from '../desk/desk';
import { trendOf } from './trend';

/** Drawn on a canvas, which only a browser has. */
const SheetChartFigure = dynamic(
  () => import('../bench/SheetChartFigure').then((one) => one.SheetChartFigure),
  { ssr: false },
);

const HOUR_MS = 3_600_000;
/** Values told in words; the picture has them all. */
const MOST_TOLD = 3;

/** What a cell read when earlier jobs were closed, and where it is going. */
export function CellPast({ cell }: { cell: SheetCell }) {
  const { speaker, job } = useDesk();
  const now = useNow(HOUR_MS, true);
  if (cell.past.length === 0) return null;
  const trend = trendOf(cell, job.marks, speaker, now);
  return (
    <div data-testid="past">
      <p className="pt-1 text-[16px] text-ink2">
        {pastWords(cell.test.kind, cell.past.slice(0, MOST_TOLD), job.policy.timeZone, speaker.gaugeUnit)}
      </p>
      {trend ? (
        <div className="h-[150px] pt-1">
          <SheetChartFigure chart={trend} />
        </div>
      ) : null}
    </div>
  );
}
