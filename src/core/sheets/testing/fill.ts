import { parseSheet } from '../parseSheet';
import { computeSheet, type SheetName } from '../sheets';

/** Answer of a sheet from its bare fields, checked as the command line checks it. */
export function fill<A>(sheet: SheetName, fields: object): A {
  return computeSheet(parseSheet({ format: 'spiraxis-sheet', version: 1, sheet, ...fields })) as unknown as A;
}

export const codes = ({ findings }: { findings: readonly { code: string }[] }) =>
  findings.map(({ code }) => code);
