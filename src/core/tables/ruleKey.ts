/** Name of a shop rule: a cell of a table. */
export const ruleKey = (table: string, row: number, column: string) => `${table}|${row}|${column}`;
