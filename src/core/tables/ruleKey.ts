import { isOpen, REFERENCE_TABLES, type ReferenceTable } from './tables';

/** Shop rules by "table|row|column", and those for one class of equipment by "table|row|column|class". */
export type Rules = Readonly<Record<string, number>>;

/** Name of a shop rule: a cell of a table, by what stands in the first column of its row, so that rows may move. */
export function ruleKey(table: ReferenceTable, row: number, column: string): string {
  return `${table.id}|${rowName(table, row)}|${column}`;
}

/** The same rule for one class of equipment alone. */
export function equipmentKey(key: string, equipment: string): string {
  return `${key}|${equipment}`;
}

/** What a row is about: its first column. */
function rowName({ columns, rows }: ReferenceTable, row: number): string {
  return String(rows[row]![columns[0]!.key]);
}

/** Cells that a shop may write over, with the least that may stand there: a standard's own figure, or 0. */
export function ruleLeasts(): ReadonlyMap<string, number> {
  return new Map(
    REFERENCE_TABLES.flatMap((table) =>
      table.rows.flatMap((row, at) =>
        table.columns
          .filter(({ key }) => isOpen(table, at, key))
          .map(
            ({ key, leastOfAll }) =>
              [ruleKey(table, at, key), leastOfAll ? (row[key] as number) : 0] as const,
          ),
      ),
    ),
  );
}

/** A rule's own name, and the class of equipment that it is for; null for all. */
export function splitRule(key: string): { key: string; equipment: string | null } {
  const [table, row, column, ...equipment] = key.split('|');
  return {
    key: [table, row, column].join('|'),
    equipment: equipment.length > 0 ? equipment.join('|') : null,
  };
}

/** Rules kept by the place of their row, as they were until rows had names, under the names of the rows that stood there. */
export function upgradeRules(rules: Rules): Record<string, number> {
  return Object.fromEntries(
    Object.entries(rules).map(([key, value]) => {
      const [id, row, column] = key.split('|');
      const table = REFERENCE_TABLES.find((one) => one.id === id);
      const at = /^\d+$/.test(row ?? '') ? Number(row) : -1;
      return [table && at >= 0 && at < table.rows.length ? ruleKey(table, at, column!) : key, value];
    }),
  );
}
