/** When the database last did not answer, for the server: a page that could not be made then is answered with 503. */
const held = globalThis as typeof globalThis & { spiraxisAwayAt?: number };

/** The database did not answer in time, or not at all. Nothing is known to be kept. */
export class DatabaseAway extends Error {
  constructor(what: string, options?: ErrorOptions) {
    super(`the database does not answer (${what})`, options);
    this.name = 'DatabaseAway';
    held.spiraxisAwayAt = Date.now();
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

/** Of MariaDB alone, and without a name in the driver: a statement was stopped for taking too long. */
const STATEMENT_TIMEOUT = 1969;

export function codeOf(error: unknown): string {
  return error instanceof Error && 'code' in error ? String(error.code) : '';
}

/** The same error, or what it means where the connection is at fault. */
export function awayOr(error: unknown): unknown {
  const code = codeOf(error);
  const stopped = error instanceof Error && 'errno' in error && error.errno === STATEMENT_TIMEOUT;
  return stopped || AWAY_CODES.has(code) ? new DatabaseAway(code, { cause: error }) : error;
}
