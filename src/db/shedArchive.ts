import type { RowDataPacket } from 'mysql2/promise';
import { z } from 'zod';
import { InputError } from '@/core/circuit/inputError';
import { parseCircuit } from '@/core/circuit/parse';
import { entrySchema } from '@/core/job/entries';
import { codeOf } from './databaseAway';
import { inOneGo, type Statements, type Value } from './pool';

/** Tables that an archive of a shed holds, each after those that it points at. */
export const ARCHIVED = [
  'machines',
  'functions',
  'function_versions',
  'code_book',
  'photos',
  'drawings',
  'drawing_pins',
  'jobs',
  'entries',
  'job_codes',
  'settings',
  'proved_measures',
  'outcomes',
  'trends',
  'learnt_odds',
  'spares',
  'spare_moves',
  'requisitions',
  'requisition_steps',
  'accounts',
  'trail',
] as const;
export type Archived = (typeof ARCHIVED)[number];

/** Tables that stay behind: who is signed in where, what counts tries, and what the schema knows of itself. */
export const LEFT_BEHIND = [
  'devices',
  'sessions',
  'witnesses',
  'feed_keys',
  'tries',
  'schema_migrations',
  'migration_lock',
] as const;

/** Columns that are nobody's to carry: with what an archive holds nobody signs in. */
const SECRETS: Readonly<Record<string, readonly string[]>> = {
  accounts: [
    'pin_hash',
    'password_hash',
    'one_time',
    'one_time_until',
    'code_secret',
    'code_since',
    'code_step',
    'code_words',
  ],
};
/** Rows that are read and written at a time; of pictures few make megabytes. */
const ROWS = 500;
const PICTURES = 4;
const VERSION = 1;
const FORMAT = 'spiraxis-shed';

interface Column {
  name: string;
  /** MariaDB's own name of its type. */
  type: string;
  /** JSON is text with a check of its own there. */
  json: boolean;
}

interface Table {
  columns: Column[];
  key: string[];
}

/** What is wrong with rows that the database does not take. */
const UNFIT: readonly (readonly [code: RegExp, why: string])[] = [
  [/^ER_DUP/, 'a row stands there twice'],
  [/^ER_NO_REFERENCED/, 'a row points at one that is not there; take the whole file'],
  [
    /^ER_(TRUNC|DATA|WARN_DATA|BAD_NULL|NO_DEFAULT|CONSTRAINT|WRONG_VALUE)/,
    'a value does not fit its column',
  ],
];

type Cell = unknown;
type ArchivedRow = Record<string, Cell>;

const headSchema = z.object({
  format: z.literal(FORMAT),
  version: z.literal(VERSION),
  schema: z.string(),
});
const endSchema = z.object({ end: z.record(z.string(), z.number().int().nonnegative()) });

async function tableOf(db: Statements, name: Archived): Promise<Table> {
  const [columns] = await db.query<RowDataPacket[]>(
    `SELECT COLUMN_NAME AS name, DATA_TYPE AS type FROM information_schema.COLUMNS
     WHERE TABLE_SCHEMA = DATABASE() AND TABLE_NAME = ? AND IS_GENERATED = 'NEVER' ORDER BY ORDINAL_POSITION`,
    [name],
  );
  const [checks] = await db.query<RowDataPacket[]>(
    `SELECT CONSTRAINT_NAME AS name FROM information_schema.CHECK_CONSTRAINTS
     WHERE CONSTRAINT_SCHEMA = DATABASE() AND TABLE_NAME = ? AND CHECK_CLAUSE LIKE 'json_valid%'`,
    [name],
  );
  const [keys] = await db.query<RowDataPacket[]>(
    `SELECT COLUMN_NAME AS name FROM information_schema.KEY_COLUMN_USAGE
     WHERE TABLE_SCHEMA = DATABASE() AND TABLE_NAME = ? AND CONSTRAINT_NAME = 'PRIMARY' ORDER BY ORDINAL_POSITION`,
    [name],
  );
  const json = new Set(checks.map((row) => String(row.name)));
  return {
    columns: columns
      .map((row) => ({ name: String(row.name), type: String(row.type), json: json.has(String(row.name)) }))
      .filter((column) => !SECRETS[name]?.includes(column.name)),
    key: keys.map((row) => String(row.name)),
  };
}

async function schemaName(db: Statements): Promise<string> {
  const [[last]] = await db.query<RowDataPacket[]>('SELECT MAX(name) AS name FROM schema_migrations');
  return String(last!.name);
}

const quoted = (names: readonly string[]) => names.map((name) => `\`${name}\``).join(', ');

/**
 * Writes a shed as it stands at this moment: lines of JSON, the first with format and schema, then a row a line under its table's name, the
 * last with how many of each there were. Two archives of the same shed are the same text.
 */
export async function writeShed(write: (line: string) => Promise<void>): Promise<Record<string, number>> {
  return inOneGo('reading', async (db) => {
    await write(JSON.stringify({ format: FORMAT, version: VERSION, schema: await schemaName(db) }));
    const end: Record<string, number> = {};
    for (const name of ARCHIVED) {
      const table = await tableOf(db, name);
      end[name] = 0;
      for (let after: Value[] | null = null; ;) {
        const rows: RowDataPacket[] = await pageOf(db, name, table, after);
        for (const row of rows) await write(JSON.stringify({ [name]: rowOut(table, row) }));
        end[name] += rows.length;
        const last = rows.at(-1);
        if (!last) break;
        after = table.key.map((column) => last[column] as Value);
      }
    }
    await write(JSON.stringify({ end }));
    return end;
  });
}

async function pageOf(db: Statements, name: Archived, { columns, key }: Table, after: Value[] | null) {
  const order = quoted(key);
  const [rows] = await db.query<RowDataPacket[]>(
    `SELECT ${quoted(columns.map((one) => one.name))} FROM \`${name}\`
     ${after ? `WHERE (${order}) > (${key.map(() => '?').join(', ')})` : ''}
     ORDER BY ${order} LIMIT ${name === 'photos' ? PICTURES : ROWS}`,
    after ?? [],
  );
  return rows;
}

function rowOut({ columns }: Table, row: RowDataPacket): ArchivedRow {
  return Object.fromEntries(
    columns.map((column) => {
      const value: unknown = row[column.name];
      if (value === null) return [column.name, null];
      if (column.json) return [column.name, JSON.parse(String(value)) as unknown];
      if (value instanceof Date) return [column.name, timeOut(column, value)];
      if (Buffer.isBuffer(value)) return [column.name, value.toString('base64')];
      return [column.name, value];
    }),
  );
}

/** UTC, as the database writes it. */
function timeOut({ type }: Column, value: Date): string {
  const [day, time] = value.toISOString().split('T') as [string, string];
  return type === 'date' ? day : `${day} ${time.replace('Z', '')}`;
}

/**
 * Fills an empty shed from the lines of an archive, all of it or nothing. Throws `InputError` naming the line: for what is no archive, one
 * that ends before its end, a drawing or an entry that the program would not have written, and a shed that is not empty.
 */
export async function readShed(lines: AsyncIterable<string>): Promise<Record<string, number>> {
  return inOneGo('writing', async (db) => {
    await mustBeEmpty(db);
    const filler = new Filler(db);
    let line = 0;
    for await (const text of lines) {
      line++;
      if (text === '') continue;
      await filler.take(text, line);
    }
    return filler.finish(line);
  });
}

async function mustBeEmpty(db: Statements): Promise<void> {
  for (const name of ARCHIVED) {
    const [rows] = await db.query<RowDataPacket[]>(`SELECT 1 FROM \`${name}\` LIMIT 1`);
    if (rows.length > 0)
      throw new InputError('the shed', `it is not empty (${name}); an archive goes into a shed of its own`);
  }
}

/** Takes an archive's lines in their order and writes their rows by the batch. */
class Filler {
  private readonly tables = new Map<Archived, Table>();
  private readonly counts: Record<string, number> = Object.fromEntries(ARCHIVED.map((name) => [name, 0]));
  private batch: { name: Archived; rows: ArchivedRow[] } | null = null;
  private begun = false;
  private ended = false;

  constructor(private readonly db: Statements) {}

  async take(text: string, line: number): Promise<void> {
    const data = readLine(text, line);
    if (!this.begun) return this.begin(data);
    if (this.ended) throw new InputError(`line ${line}`, 'stands after the end');
    if ('end' in data) return this.end(data, line);
    const [[name, row] = []] = Object.entries(data);
    const known = ARCHIVED.find((one) => one === name);
    if (!known || typeof row !== 'object' || row === null || Object.keys(data).length !== 1)
      throw new InputError(`line ${line}`, `no row of a table that a shed has (${String(name)})`);
    judge(known, row as ArchivedRow, line);
    if (this.batch && (this.batch.name !== known || this.batch.rows.length >= sizeOf(known)))
      await this.flush(line - 1);
    this.batch ??= { name: known, rows: [] };
    this.batch.rows.push(row as ArchivedRow);
  }

  finish(line: number): Record<string, number> {
    if (!this.ended)
      throw new InputError(`line ${line}`, 'the archive ends before its end; take the whole file');
    return this.counts;
  }

  private async begin(data: object): Promise<void> {
    const head = headSchema.safeParse(data);
    if (!head.success)
      throw new InputError(
        'line 1',
        `no archive of a shed: its first line names format "${FORMAT}", version ${VERSION}`,
      );
    const [known] = await this.db.query<RowDataPacket[]>('SELECT 1 FROM schema_migrations WHERE name = ?', [
      head.data.schema,
    ]);
    if (known.length === 0)
      throw new InputError(
        'line 1',
        `made by a newer program (${head.data.schema}); bring this one up to date first`,
      );
    this.begun = true;
  }

  private async end(data: object, line: number): Promise<void> {
    await this.flush(line - 1);
    const { end } = endSchema.parse(data);
    for (const name of ARCHIVED)
      if ((end[name] ?? 0) !== this.counts[name])
        throw new InputError(
          `line ${line}`,
          `${end[name] ?? 0} rows of ${name} were written and ${this.counts[name]} are here; take the whole file`,
        );
    this.ended = true;
  }

  private async flush(line: number): Promise<void> {
    if (!this.batch) return;
    const { name, rows } = this.batch;
    this.batch = null;
    const table = this.tables.get(name) ?? (await tableOf(this.db, name));
    this.tables.set(name, table);
    const own = new Map(table.columns.map((column) => [column.name, column]));
    const names = Object.keys(rows[0]!);
    for (const row of rows) {
      const odd =
        Object.keys(row).find((column) => !own.has(column)) ?? names.find((column) => !(column in row));
      if (odd !== undefined || Object.keys(row).length !== names.length)
        throw new InputError(
          `line ${line}`,
          `"${String(odd)}" is no column of ${name}, or is not in each row`,
        );
    }
    const holes = `(${names.map(() => '?').join(', ')})`;
    try {
      await this.db.query(
        `INSERT INTO \`${name}\` (${quoted(names)}) VALUES ${rows.map(() => holes).join(', ')}`,
        rows.flatMap((row) => names.map((column) => cellIn(own.get(column)!, row[column]))),
      );
    } catch (error) {
      const why = UNFIT.find(([code]) => code.test(codeOf(error)))?.[1];
      if (why === undefined) throw error;
      throw new InputError(`up to line ${line}`, `${name}: ${why}`);
    }
    this.counts[name]! += rows.length;
  }
}

function readLine(text: string, line: number): object {
  try {
    const data: unknown = JSON.parse(text);
    if (typeof data === 'object' && data !== null) return data;
  } catch (error) {
    if (!(error instanceof SyntaxError)) throw error;
  }
  throw new InputError(`line ${line}`, 'no line of an archive; it holds an object of JSON');
}

const sizeOf = (name: Archived) => (name === 'photos' ? PICTURES : ROWS);

/** A drawing and an entry are read by more than the database: they are what the program itself would have kept, or nothing is taken. */
function judge(name: Archived, row: ArchivedRow, line: number): void {
  const at = `line ${line}`;
  if (name === 'functions' || name === 'function_versions') {
    try {
      parseCircuit(row['circuit']);
    } catch (error) {
      if (error instanceof InputError) throw new InputError(`${at}, circuit.${error.field}`, error.problem);
      throw error;
    }
  }
  if (name === 'entries') {
    const { type, body, id, person, supersedes } = row;
    const at_ = new Date(`${String(row['written_at']).replace(' ', 'T')}Z`);
    const entry = entrySchema.safeParse({
      id,
      type,
      person,
      body,
      at: Number.isNaN(at_.getTime()) ? '' : at_.toISOString(),
      ...(supersedes === null || supersedes === undefined ? {} : { supersedes }),
    });
    if (!entry.success)
      throw new InputError(
        `${at}, ${entry.error.issues[0]!.path.join('.') || 'entry'}`,
        entry.error.issues[0]!.message,
      );
  }
}

function cellIn(column: Column, value: Cell): Value {
  if (value === null || value === undefined) return null;
  if (column.json) return JSON.stringify(value);
  if (/blob|binary/.test(column.type)) return Buffer.from(String(value), 'base64');
  return value as Value;
}
