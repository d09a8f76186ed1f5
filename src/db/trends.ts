import type { RowDataPacket } from 'mysql2/promise';
import { z } from 'zod';
import type { TitledTrend } from '@/core/shed/functionTrends';
import { jsonColumn } from './jsonColumn';
import { pool, withTransaction } from './pool';

/** Days that stand for: past its limit; moving, with no limit that it runs into; steady; too few readings. */
const SORTED = {
  beyond: '1970-01-01',
  moving: '9999-12-29',
  steady: '9999-12-30',
  few: '9999-12-31',
} as const;

/** The worst first: at its limit, then by the day from which it may be, then what moves, what is steady, what is hardly known. */
function sortedOn({ trend, mayReachOn }: TitledTrend): string {
  if (trend.beyond) return SORTED.beyond;
  if (mayReachOn) return mayReachOn;
  if (trend.state === 'few') return SORTED.few;
  return trend.state === 'steady' ? SORTED.steady : SORTED.moving;
}

/** Puts the trends of a function in place of those it had. */
export async function putTrends(functionId: string, trends: readonly TitledTrend[]): Promise<void> {
  await withTransaction(async (db) => {
    await db.execute('DELETE FROM trends WHERE function_id = ?', [functionId]);
    if (trends.length === 0) return;
    const row = '(?, MD5(?), ?, ?, ?, ?, ?, ?, ?)';
    await db.query(
      `INSERT INTO trends (function_id, place_key, kind, place, part, state, sort_on, last_on, body)
       VALUES ${trends.map(() => row).join(', ')}`,
      trends.flatMap((one) => [
        functionId,
        one.place,
        one.kind,
        one.place,
        one.part,
        one.trend.state,
        sortedOn(one),
        one.lastOn,
        JSON.stringify(one),
      ]),
    );
  });
}

const trendRow = z.object({
  function_id: z.string(),
  place_key: z.string(),
  sort_on: z.string(),
  function_name: z.string(),
  machine_code: z.string(),
  machine_name: z.string(),
  body: jsonColumn(z.custom<TitledTrend>((value) => typeof value === 'object' && value !== null)),
});
export type TrendRow = z.infer<typeof trendRow>;

/** Position in the list of what drifts: the last row seen. */
export interface TrendCursor {
  on: string;
  functionId: string;
  place: string;
}

export interface TrendFilter {
  /** Machine by its code. */
  machine?: string;
  /** Machines of a class of equipment. */
  equipment?: string;
  functionId?: string;
  /** Only what moves or is past its limit. */
  moving?: boolean;
}

/** Within so many days is soon. */
const SOON_DAYS = 30;

const COLUMNS = `t.function_id, t.place_key, DATE_FORMAT(t.sort_on, '%Y-%m-%d') AS sort_on, f.name AS function_name,
  m.code AS machine_code, m.name AS machine_name, t.body`;
const TABLES = 'trends t JOIN functions f ON f.id = t.function_id JOIN machines m ON m.id = f.machine_id';

function whereOf(
  { machine, equipment, functionId, moving }: TrendFilter,
  after?: TrendCursor,
): [string, unknown[]] {
  const terms: [string, unknown[]][] = [
    ...(machine ? [['m.code = ?', [machine]] as [string, unknown[]]] : []),
    ...(equipment ? [['m.equipment = ?', [equipment]] as [string, unknown[]]] : []),
    ...(functionId ? [['t.function_id = ?', [functionId]] as [string, unknown[]]] : []),
    ...(moving ? [['t.sort_on <= ?', [SORTED.moving]] as [string, unknown[]]] : []),
    ...(after
      ? [
          [
            '(t.sort_on, t.function_id, t.place_key) > (?, ?, ?)',
            [after.on, after.functionId, after.place],
          ] as [string, unknown[]],
        ]
      : []),
  ];
  if (terms.length === 0) return ['', []];
  return [`WHERE ${terms.map(([sql]) => sql).join(' AND ')}`, terms.flatMap(([, values]) => values)];
}

/** What drifts, the worst first, a page at a time. */
export async function listTrends(
  limit: number,
  filter: TrendFilter = {},
  after?: TrendCursor,
): Promise<TrendRow[]> {
  const [where, values] = whereOf(filter, after);
  const [rows] = await pool().query<RowDataPacket[]>(
    // In the order of their index; of one machine by its functions.
    `SELECT ${filter.machine || filter.functionId ? '' : 'STRAIGHT_JOIN'} ${COLUMNS} FROM ${TABLES} ${where}
     ORDER BY t.sort_on, t.function_id, t.place_key LIMIT ?`,
    [...values, limit],
  );
  return rows.map((row) => trendRow.parse(row));
}

/** Places of functions that can be read again, as their last jobs left them: what a round reads. */
export async function placesToRead(functionIds: readonly string[]): Promise<TrendRow[]> {
  if (functionIds.length === 0) return [];
  const [rows] = await pool().query<RowDataPacket[]>(
    `SELECT ${COLUMNS} FROM ${TABLES} WHERE t.function_id IN (?) ORDER BY t.function_id, t.place`,
    [functionIds],
  );
  return rows.map((row) => trendRow.parse(row)).filter(({ body }) => body.test !== null);
}

/** One place of a function; null where nothing was ever proved there. */
export async function findTrend(functionId: string, placeKey: string): Promise<TrendRow | null> {
  const [rows] = await pool().query<RowDataPacket[]>(
    `SELECT ${COLUMNS} FROM ${TABLES} WHERE t.function_id = ? AND t.place_key = ?`,
    [functionId, placeKey],
  );
  return rows[0] ? trendRow.parse(rows[0]) : null;
}

/** How many places are followed, on how many machines, and how many of them move or are past their limit. */
export async function countTrends(): Promise<{ all: number; moving: number; machines: number }> {
  const [[row]] = await pool().query<RowDataPacket[]>(
    `SELECT (SELECT COUNT(*) FROM trends) AS n, (SELECT COUNT(*) FROM trends WHERE sort_on <= ?) AS moving,
       (SELECT COUNT(DISTINCT f.machine_id)
         FROM (SELECT DISTINCT function_id FROM trends FORCE INDEX (trends_function)) t
         JOIN functions f ON f.id = t.function_id) AS machines`,
    [SORTED.moving],
  );
  return { all: Number(row?.n ?? 0), moving: Number(row?.moving ?? 0), machines: Number(row?.machines ?? 0) };
}

/** How many places are at their limit or may be soon. @param today the site's day, 2026-12-03 */
export async function countSoon(today: string): Promise<number> {
  const [[row]] = await pool().query<RowDataPacket[]>(
    `SELECT COUNT(*) AS n FROM trends WHERE sort_on <= ? + INTERVAL ${SOON_DAYS} DAY`,
    [today],
  );
  return Number(row?.n ?? 0);
}

/** Dots of the same question on other machines of the type, the latest of each: what one is held against. */
export async function fleetDots(
  functionId: string,
  placeKey: string,
  most: number,
): Promise<{ machine: string; value: number; at: string; job: number }[]> {
  const [rows] = await pool().query<RowDataPacket[]>(
    `SELECT m.code AS machine, w.value, w.read_at, j.number FROM proved_measures w
     JOIN jobs j ON j.id = w.job_id JOIN functions f ON f.id = w.function_id JOIN machines m ON m.id = f.machine_id
     WHERE w.function_id <> ? AND w.type_key = (SELECT own.type_key FROM proved_measures own
       WHERE own.function_id = ? AND own.place_key = ? LIMIT 1)
     ORDER BY w.read_at DESC LIMIT ?`,
    [functionId, functionId, placeKey, most],
  );
  return rows.map((row) => ({
    machine: String(row.machine),
    value: Number(row.value),
    at: (row.read_at as Date).toISOString(),
    job: Number(row.number),
  }));
}
