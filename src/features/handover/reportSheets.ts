import type { Reading } from '@/core/circuit/schema';
import { jobSheet } from '@/core/sheets/onCircuit/build';
import { JOB_SHEETS, type JobPast, type SheetRow } from '@/core/sheets/onCircuit/jobSheet';
import type { ShopMarks } from '@/core/tables/marks';
import type { Speaker } from '@/words/en/readings';
import {
  cellWords,
  columnInText,
  rowTitle,
  SHEET_TITLE,
  sheetVerdictWords,
  verdictTone,
} from '@/words/en/sheets';
import { sheetFoundWords } from '@/words/en/sheetFound';
import type { ReportLine } from './report';

/** A sheet of the job as the report prints it: what was found, then a line for each row that anything was read in. */
export interface ReportSheetPart {
  title: string;
  found: string[];
  lines: ReportLine[];
}

/** Cells from which a sheet was worked on: fewer are ordinary readings that happen to lie in it. */
const LEAST_CELLS = 3;
const TONES = { good: 'good', watch: 'left', bad: 'bad' } as const;

/** The sheets of a job that were worked on, computed from its readings. */
export function reportSheets(
  speaker: Speaker,
  readings: readonly Reading[],
  marks: ShopMarks,
  past: JobPast,
): ReportSheetPart[] {
  if (readings.length < LEAST_CELLS) return [];
  return JOB_SHEETS.flatMap((name): ReportSheetPart[] => {
    const sheet = jobSheet(speaker.model, name, readings, marks, past);
    if (!sheet) return [];
    const titleOf = (row: SheetRow) => rowTitle(speaker, sheet, row);
    const rows = sheet.rows.map((row) => ({
      row,
      read: row.cells.flatMap((cell, at) =>
        cell && cell.value !== null
          ? [`${columnInText(sheet.columns[at]!)} ${cellWords(speaker, cell.test, cell.value)}`]
          : [],
      ),
    }));
    if (rows.reduce((count, { read }) => count + read.length, 0) < LEAST_CELLS) return [];
    const lines = rows.flatMap(({ row, read }): ReportLine[] => {
      if (read.length === 0) return [];
      const tone = verdictTone(row.verdict);
      return [
        {
          text: `${titleOf(row)}: ${read.join(', ')}`,
          beside: sheetVerdictWords(name, row.verdict) || 'not known yet',
          ...(tone ? { tone: TONES[tone] } : {}),
        },
      ];
    });
    return [{ title: SHEET_TITLE[name], found: sheetFoundWords(speaker, sheet), lines }];
  });
}
