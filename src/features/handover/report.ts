import type { State } from '@/core/path/standing';
import type { JobPast } from '@/core/sheets/onCircuit/jobSheet';
import type { ShopMarks } from '@/core/tables/marks';
import type { ReportSheetPart } from './reportSheets';

/** One line of the report, with what stands beside it. */
export interface ReportLine {
  text: string;
  beside?: string;
  tone?: 'good' | 'bad' | 'left';
}

/** A job's report as plain words: the screen, the print and the PDF show the same. */
export interface Report {
  number: number;
  title: string;
  machine: string;
  function: string;
  person: string;
  opened: string;
  closed: string | null;
  complaint: string;
  codes: ReportLine[];
  /** Guards that are out of action by something left in the machine. */
  defects: ReportLine[];
  /** What was closed, how and by whom, and how it was proved dead. */
  madeSafe: ReportLine[];
  /** Of these, what is closed still. */
  safety: ReportLine[];
  /** What was seen on the machine that was not good. */
  found: ReportLine[];
  /** What was put in for a test, or found in, and how it was shown to be out. */
  putIn: ReportLine[];
  /** What the numbers of the points stand for: "3 is K4:14". */
  points: string | null;
  path: { name: string; state: State; turns: number; load: boolean }[];
  evidence: ReportLine[];
  /** Sheets that were worked on. */
  sheets: ReportSheetPart[];
  verdict: { headline: string; why: string[]; share: string | null };
  decision: ReportLine[];
  parts: ReportLine[];
  proofs: ReportLine[];
  /** What whoever drives it is told. */
  toDriver: string | null;
  left: ReportLine[];
  baselines: ReportLine[];
  retest: string | null;
}

export const NOTICE =
  'This report says what was read and what it means. Local codes, the machine’s own manual and licensed practice come first. If this text differs from them, follow them. If you are not sure, stop.';

export interface ReportJob {
  number: number;
  title: string;
  machineCode: string;
  machineName: string;
  functionName: string;
  person: string | null;
  openedAt: string;
}

/** What a report takes from the shop: the clock its times are on, and what readings are held against. */
export interface ReportShop {
  timeZone: string;
  marks: ShopMarks;
  past: JobPast;
}
