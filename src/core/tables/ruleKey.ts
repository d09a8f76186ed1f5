import { REFERENCE_TABLES, type ReferenceTable } from './tables';

/** Name of a shop rule: a cell of a table, by what stands in the first column of its row, so that rows may move. */
export function ruleKey(table: ReferenceTable, row: number, column: string): string {
  return `${table.id}|${rowName(table, row)}|${column}`;
}

/** What a row is about: its first column. */
function rowName({ columns, rows }: ReferenceTable, row: number): string {
  return String(rows[row]![columns[0]!.key]);
}

/** Cells whose figures are practice and no standard, and may be written over. */
export function ruleKeys(): string[] {
  return REFERENCE_TABLES.flatMap((table) =>
    table.rows.flatMap((_row, at) =>
      table.columns.filter(({ shopRule }) => shopRule).map(({ key }) => ruleKey(table, at, key)),
    ),
  );
}

/** Rules kept by the place of their row, as they were until rows had names, under the names of the rows that stood there. */
export function upgradeRules(rules: Readonly<Record<string, number>>): Record<string, number> {
  return Object.fromEntries(
    Object.entries(rules).map(([key, value]) => {
      const [id, row, column] = key.split('|');
      const table = REFERENCE_TABLES.find((one) => one.id === id);
      const at = /^\d+$/.test(row ?? '') ? Number(row) : -1;
      return [table && at >= 0 && at < table.rows.length ? ruleKey(table, at, column!) : key, value];
    }),
  );
}
