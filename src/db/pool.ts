import {
  createPool,
  type FieldPacket,
  type Pool,
  type PoolConnection,
  type QueryResult,
} from 'mysql2/promise';
import { awayOr, codeOf, DatabaseAway } from './databaseAway';

/** Errors after which a short transaction may simply be tried again: deadlock, lock wait, lost connection. */
const RETRY_CODES = new Set([
  'ER_LOCK_DEADLOCK',
  'ER_LOCK_WAIT_TIMEOUT',
  'PROTOCOL_CONNECTION_LOST',
  'ECONNRESET',
  'EPIPE',
]);
const MOST_TRIES = 4;
const CONNECTIONS = 16;
/** A database that says nothing for so long is away; a person at a screen is told so within three seconds. */
const PATIENCE_MS = Number(process.env.SPIRAXIS_DB_PATIENCE_MS ?? 2300);
/** As many as may wait for a connection. More than that would only wait to be told that it took too long. */
const MOST_WAITING = 400;
/** What is sent is taken as it is or refused; half a value is never kept, and a lock is not waited for long. */
const SESSION = [
  "SESSION sql_mode = 'STRICT_ALL_TABLES,ERROR_FOR_DIVISION_BY_ZERO,NO_ENGINE_SUBSTITUTION,NO_AUTO_CREATE_USER'",
  `SESSION max_statement_time = ${PATIENCE_MS / 1000}`,
  `SESSION innodb_lock_wait_timeout = ${Math.max(1, Math.floor(PATIENCE_MS / 1000))}`,
].join(', ');

/** Runs statements, each within the time a person would wait for it. */
export interface Statements {
  query<T extends QueryResult>(sql: string, values?: unknown[]): Promise<[T, FieldPacket[]]>;
  execute<T extends QueryResult>(sql: string, values?: unknown[]): Promise<[T, FieldPacket[]]>;
}

const held = globalThis as typeof globalThis & { spiraxisPool?: Pool };
/** Of this module and not of the process: a runner of tests takes the process's own things away between two files. */
let closed = false;

function connections(): Pool {
  // What comes late, such as a digest that waited for its turn, must not keep a process alive that is done.
  if (closed) throw new DatabaseAway('closed');
  if (!held.spiraxisPool) {
    const uri = process.env.SPIRAXIS_DATABASE_URL;
    if (!uri) throw new Error('SPIRAXIS_DATABASE_URL is not set; start with "npm run demo"');
    // Times go in and out as UTC text: the driver must not shift them by the server's zone.
    const opened = createPool({
      uri,
      connectionLimit: CONNECTIONS,
      queueLimit: MOST_WAITING,
      timezone: 'Z',
      charset: 'utf8mb4',
      connectTimeout: PATIENCE_MS,
      // JSON comes as text: what is read often is known by its text, and parsed once.
      jsonStrings: true,
    });
    opened.pool.on('connection', (connection) => {
      // Sent before whatever the connection was made for; what goes wrong with it goes wrong there too.
      made.set(connection, Date.now());
      connection.query(`SET ${SESSION}`, () => undefined);
    });
    held.spiraxisPool = opened;
  }
  return held.spiraxisPool;
}

/** When each connection was made, and when one last went silent: all that were open then are as suspect as it is. */
const made = new WeakMap<object, number>();
let silentAt = 0;

/** Waits for so long and no longer. What comes too late is given to `late`. */
export function within<T>(
  what: string,
  work: Promise<T>,
  late: (value: T) => void = () => undefined,
): Promise<T> {
  return new Promise((resolve, reject) => {
    let over = false;
    const timer = setTimeout(() => {
      over = true;
      silentAt = Date.now();
      reject(new DatabaseAway(`${what}: nothing for ${PATIENCE_MS / 1000} s`));
    }, PATIENCE_MS);
    work.then(
      (value) => {
        clearTimeout(timer);
        if (over) late(value);
        else resolve(value);
      },
      (error: unknown) => {
        clearTimeout(timer);
        reject(awayOr(error) as Error);
      },
    );
  });
}

async function connect(): Promise<PoolConnection> {
  try {
    for (;;) {
      const connection = await within('connecting', connections().getConnection(), (late) => late.release());
      if ((made.get(connection.connection) ?? Infinity) >= silentAt) return connection;
      connection.destroy();
    }
  } catch (error) {
    // The driver has no code for it.
    if (error instanceof Error && error.message === 'Queue limit reached.')
      throw new DatabaseAway('too many wait for a connection', { cause: error });
    throw error;
  }
}

function statementsOf(connection: PoolConnection): Statements {
  return {
    query: <T extends QueryResult>(sql: string, values?: unknown[]) =>
      within('a statement', connection.query<T>(sql, values)),
    execute: <T extends QueryResult>(sql: string, values?: unknown[]) =>
      within('a statement', connection.execute<T>(sql, values as string[])),
  };
}

/** One statement on a connection of its own. A connection that went silent is thrown away. */
async function once<T>(work: (db: Statements) => Promise<T>): Promise<T> {
  const connection = await connect();
  try {
    const result = await work(statementsOf(connection));
    connection.release();
    return result;
  } catch (error) {
    if (error instanceof DatabaseAway) connection.destroy();
    else connection.release();
    throw error;
  }
}

const SINGLE: Statements = {
  query: (sql, values) => once((db) => db.query(sql, values)),
  execute: (sql, values) => once((db) => db.execute(sql, values)),
};

/**
 * Single statements on the application's connections, made on first use from `SPIRAXIS_DATABASE_URL`. Rejects with
 * {@link DatabaseAway} where the database is not there or says nothing.
 */
export function pool(): Statements {
  return SINGLE;
}

/** A connection of the driver's own kind, for a library that brings its statements with it. */
export function driverConnection(given: (error: Error | null, connection: object) => void): void {
  connections().pool.getConnection(given);
}

/** Closes the connections for good: a later statement rejects with {@link DatabaseAway}. */
export async function closePool(): Promise<void> {
  const open = held.spiraxisPool;
  delete held.spiraxisPool;
  closed = true;
  await open?.end();
}

/** A connection of one's own, for what has to be said on one and the same. It is closed afterwards. */
export async function withConnection<T>(work: (db: Statements) => Promise<T>): Promise<T> {
  const connection = await connect();
  try {
    return await work(statementsOf(connection));
  } finally {
    connection.destroy();
  }
}

/** Runs `work` in one transaction that it neither commits nor rolls back itself; tries again after a deadlock. */
export async function withTransaction<T>(work: (db: Statements) => Promise<T>): Promise<T> {
  const started = Date.now();
  for (let attempt = 1; ; attempt++) {
    const connection = await connect();
    try {
      await within('a transaction', connection.beginTransaction());
      const result = await work(statementsOf(connection));
      await within('a commit', connection.commit());
      connection.release();
      return result;
    } catch (error) {
      // Thrown away, whatever it was in the middle of: the database rolls it back.
      connection.destroy();
      const code = codeOf(error instanceof DatabaseAway && error.cause ? error.cause : error);
      if (!RETRY_CODES.has(code)) throw error;
      if (attempt >= MOST_TRIES || Date.now() - started > PATIENCE_MS)
        throw error instanceof DatabaseAway ? error : new DatabaseAway(code, { cause: error });
      await new Promise((resolve) => setTimeout(resolve, 20 * attempt * attempt));
    }
  }
}
