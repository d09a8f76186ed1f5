'use client';

import dynamic from 'next/dynamic';
import type { Reading } from '@/core/circuit/schema';
import { judgeInsulation } from '@/core/sheets/insulation/insulation';
import { insulationDocument, runOf } from '@/core/sheets/onCircuit/insulationCell';
import type { JobSheet, SheetCell } from '@/core/sheets/onCircuit/jobSheet';
import type { InsulationTest } from '@/core/sheets/onCircuit/leakSearch';
import { stopwatchWords } from '@/words/en/times';
import { chartOf } from '../bench/benchCharts';
import { InsulationRunPanel, type RunLine } from '../bench/InsulationRunPanel';
import { useDesk } from '../desk/desk';

/** Drawn on a canvas, which only a browser has. */
const SheetChartFigure = dynamic(
  () => import('../bench/SheetChartFigure').then((one) => one.SheetChartFigure),
  { ssr: false },
);

/**
 * A timed test of the chosen pair: each reading of the run is one of the job, with its seconds; the one that stood longest counts. A run
 * that goes on stays with its own pair, whatever is chosen meanwhile.
 */
export function TimedRun({ sheet, cell }: { sheet: JobSheet; cell: SheetCell }) {
  const { job, speaker, readings, log } = useDesk();
  const test = cell.test as InsulationTest;
  const document = insulationDocument(speaker.model, test, cell, readings, cell.past);
  const answer = judgeInsulation(document, job.marks);
  const timed = runOf(cell, readings);
  const chart = timed.length > 1 ? chartOf('insulation', document, answer) : null;
  const pin = ({ from, to, ohms, typed, seconds }: RunLine): string | null => {
    // The chosen place where it is of this pair: with a plug off the same two points are another place.
    const own = [test.from, test.to].every((end) => end === from || end === to)
      ? test
      : pairOf(sheet, from, to);
    if (!own) return `${from} to ${to} is no pair of this sheet any more: stop, and start the test anew.`;
    const reading: Reading = { ...own, value: ohms, seconds };
    log.write({ type: 'reading', body: { reading, typed: `${typed} at ${stopwatchWords(seconds)}` } });
    return null;
  };
  return (
    <div className="pt-2" data-testid="timed">
      <InsulationRunPanel
        sheet={document}
        answer={answer}
        onLine={pin}
        store={`spiraxis-job-${job.number}-run`}
      />
      {chart ? <SheetChartFigure chart={chart} /> : null}
    </div>
  );
}

/** The test of a pair of the sheet, whichever way round it stands there. */
function pairOf({ rows }: JobSheet, from: string, to: string): InsulationTest | null {
  for (const { cells } of rows)
    for (const cell of cells)
      if (cell?.test.kind === 'insulation') {
        const ends = [cell.test.from, cell.test.to];
        if (ends.includes(from) && ends.includes(to)) return cell.test;
      }
  return null;
}
