import { ofProcess } from './shed';

/** So long after it was silent nobody is kept waiting for what a page can do without, milliseconds. */
const JUST_NOW_MS = 3000;

/** When the database last did not answer. The server asks it too: a page that could not be made then is answered with 503. */
const away = ofProcess('away', () => ({ at: 0, isJustNow: () => Date.now() - away.at < JUST_NOW_MS }));

/** Whether the database did not answer a moment ago. */
export function wasJustAway(): boolean {
  return away.isJustNow();
}

/** The database did not answer in time, or not at all. Nothing is known to be kept. */
export class DatabaseAway extends Error {
  constructor(what: string, options?: ErrorOptions) {
    super(`the database does not answer (${what})`, options);
    this.name = 'DatabaseAway';
    away.at = Date.now();
  }
}

/** A server that was asked in time and said nothing: whatever else was asked of it waits in vain too. */
export class DatabaseSilent extends DatabaseAway {}

/** There is no such schema, or none that is open to the application. */
export class NoSuchShed extends Error {
  constructor(schema: string) {
    super(`there is no shed in ${schema}`);
    this.name = 'NoSuchShed';
  }
}

/** Errors of a connection that could not be made or broke; a statement that is merely wrong is none of them. */
const AWAY_CODES: ReadonlySet<string> = new Set([
  'ECONNREFUSED',
  'ECONNRESET',
  'ENOENT',
  'EPIPE',
  'ETIMEDOUT',
  'PROTOCOL_CONNECTION_LOST',
  'PROTOCOL_ENQUEUE_AFTER_FATAL_ERROR',
  'PROTOCOL_ENQUEUE_AFTER_QUIT',
  'ER_CON_COUNT_ERROR',
  'ER_SERVER_SHUTDOWN',
  // A full disk, and a file that cannot be written: it runs, and keeps nothing.
  'ER_DISK_FULL',
  'ER_RECORD_FILE_FULL',
  'ER_ERROR_ON_WRITE',
  'ER_ERROR_DURING_COMMIT',
]);

/** What broke with the connection: whether what was sent last was done is not known. */
const LOST_CODES: ReadonlySet<string> = new Set([
  'PROTOCOL_CONNECTION_LOST',
  'PROTOCOL_ENQUEUE_AFTER_FATAL_ERROR',
  'PROTOCOL_ENQUEUE_AFTER_QUIT',
  'ECONNRESET',
  'EPIPE',
  'ER_SERVER_SHUTDOWN',
  // A node that was cut off from its cluster in the middle of a commit.
  'ER_ERROR_DURING_COMMIT',
]);

/** Somebody else wrote the same: here, or on another node of a cluster, which says so at the commit. */
const CONFLICT_CODES: ReadonlySet<string> = new Set(['ER_LOCK_DEADLOCK', 'ER_LOCK_WAIT_TIMEOUT']);

/** Of MariaDB alone, and without a name in the driver: a statement was stopped for taking too long. */
const STATEMENT_TIMEOUT = 1969;
/** A node that has lost sight of most of its cluster, or is still taking in what it missed: it does nothing that is asked. */
const NOT_READY = 1047;
/** A connection that was ended from the other side. */
const KILLED = 1927;

export function codeOf(error: unknown): string {
  return typeof error === 'object' && error !== null && 'code' in error ? String(error.code) : '';
}

function numberOf(error: unknown): number | null {
  return typeof error === 'object' && error !== null && 'errno' in error ? Number(error.errno) : null;
}

/** Said by the driver alone, and without a code: a connection or all of a server's were closed before anything was sent. */
const UNSENT = /^Pool is closed\.$|connection is in closed state$/;

function isUnsent(error: unknown): boolean {
  return (
    typeof error === 'object' && error !== null && 'message' in error && UNSENT.test(String(error.message))
  );
}

/** The connection itself broke, whatever the driver calls it. */
function isFatal(error: unknown): boolean {
  return typeof error === 'object' && error !== null && 'fatal' in error && error.fatal === true;
}

/** The same error, or what it means where the connection is at fault. */
export function awayOr(error: unknown): unknown {
  if (error instanceof DatabaseAway) return error;
  const code = codeOf(error);
  const number = numberOf(error) ?? 0;
  return AWAY_CODES.has(code) ||
    [STATEMENT_TIMEOUT, NOT_READY, KILLED].includes(number) ||
    isFatal(error) ||
    isUnsent(error)
    ? new DatabaseAway(number === NOT_READY ? 'not a part of its cluster' : code || 'closed', {
        cause: error,
      })
    : error;
}

/**
 * What a failure leaves open. `conflict`: nothing was done, and the same may go through now. `notReady`: nothing was done,
 * and another server, or another connection, may do it. `lost`, `silent`: it may have been done or not. Null: asking again changes nothing.
 */
export type Setback = 'conflict' | 'notReady' | 'lost' | 'silent' | null;

export function setbackOf(error: unknown): Setback {
  if (error instanceof DatabaseSilent) return 'silent';
  const first = error instanceof DatabaseAway && error.cause ? error.cause : error;
  const code = codeOf(first);
  const number = numberOf(first);
  if (number === NOT_READY || isUnsent(first)) return 'notReady';
  if (CONFLICT_CODES.has(code)) return 'conflict';
  if (LOST_CODES.has(code) || number === KILLED || (isFatal(first) && code !== 'ER_ACCESS_DENIED_ERROR'))
    return 'lost';
  return null;
}
