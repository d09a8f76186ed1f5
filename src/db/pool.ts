import type { FieldPacket, PoolConnection, QueryResult } from 'mysql2/promise';
import { addressesOf, type Addresses } from './addresses';
import { awayOr, codeOf, DatabaseAway, DatabaseSilent, NoSuchShed, setbackOf } from './databaseAway';
import { DatabaseNodes } from './nodes';
import { ofProcess, schemaOf, shedNow } from './shed';

const MOST_TRIES = 4;
const CONNECTIONS = 16;
/** A database that says nothing for so long is away; a person at a screen is told so within three seconds. */
const PATIENCE_MS = Number(process.env.SPIRAXIS_DB_PATIENCE_MS ?? 2300);
/** Where there is another server to go to, one that cannot be reached is not waited for as long. */
const REACH_MS = 700;
/** As many as may wait for a connection. More than that would only wait to be told that it took too long. */
const MOST_WAITING = 400;
/** What is sent is taken as it is or refused; half a value is never kept, and a lock is not waited for long. */
const SESSION = [
  "SESSION sql_mode = 'STRICT_ALL_TABLES,ERROR_FOR_DIVISION_BY_ZERO,NO_ENGINE_SUBSTITUTION,NO_AUTO_CREATE_USER'",
  `SESSION max_statement_time = ${PATIENCE_MS / 1000}`,
  `SESSION innodb_lock_wait_timeout = ${Math.max(1, Math.floor(PATIENCE_MS / 1000))}`,
];
/** On a cluster a reading waits for what was acknowledged before it on another node: who is signed out there is signed out here. */
const ON_A_CLUSTER = 'SESSION wsrep_sync_wait = 1';

/** What a statement takes for a question mark: never something that the driver would spread into more than one value. */
export type Value = string | number | bigint | boolean | null | Date | Uint8Array;

/** Runs statements, each within the time a person would wait for it. */
export interface Statements {
  /** `values` may hold a list, for `IN (?)`. */
  query<T extends QueryResult>(sql: string, values?: unknown[]): Promise<[T, FieldPacket[]]>;
  /** Takes single values and nothing else. */
  execute<T extends QueryResult>(sql: string, values?: Value[]): Promise<[T, FieldPacket[]]>;
}

/** Of a connection that was not taken to a schema yet. */
const NO_SCHEMA = '';

/** The connections of the process, for one and the same addresses. */
interface Open extends Pick<Addresses, 'schema'> {
  nodes: DatabaseNodes;
  /** Connections that are set up, and the schema that each is in. */
  schemas: WeakMap<object, string>;
  /** When each connection was made, and when one last went silent: all that were open then are as suspect as it is. */
  made: WeakMap<object, number>;
  silentAt: number;
}
const kept = ofProcess<{ open: Open | null }>('pool', () => ({ open: null }));
/** Of this module and not of the process: a runner of tests takes the process's own things away between two files. */
let closed = false;

function opened(): Open {
  // What comes late, such as a digest that waited for its turn, must not keep a process alive that is done.
  if (closed) throw new DatabaseAway('closed');
  if (kept.open) return kept.open;
  const { servers, schema } = addressesOf(process.env.SPIRAXIS_DATABASE_URL);
  // Times go in and out as UTC text: the driver must not shift them by the server's zone.
  const nodes = new DatabaseNodes(servers, {
    connectionLimit: CONNECTIONS,
    queueLimit: MOST_WAITING,
    timezone: 'Z',
    charset: 'utf8mb4',
    connectTimeout: servers.length > 1 ? Math.min(REACH_MS, PATIENCE_MS) : PATIENCE_MS,
    // JSON comes as text: what is read often is known by its text, and parsed once.
    jsonStrings: true,
  });
  return (kept.open = { nodes, schema, schemas: new WeakMap(), made: new WeakMap(), silentAt: 0 });
}

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
      if (kept.open) kept.open.silentAt = Date.now();
      reject(new DatabaseSilent(`${what}: nothing for ${PATIENCE_MS / 1000} s`));
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

/** A connection that is set up, in the schema of the shed that is worked for. */
async function connect(wanted = schemaNow()): Promise<PoolConnection> {
  const open = opened();
  for (;;) {
    const connection = await within('connecting', open.nodes.connection(), (late) => late.release());
    const { connection: own } = connection;
    const made = open.made.get(own) ?? Date.now();
    open.made.set(own, made);
    if (made < open.silentAt) {
      connection.destroy();
      continue;
    }
    try {
      if (!open.schemas.has(own)) {
        const session = open.nodes.several ? [...SESSION, ON_A_CLUSTER] : SESSION;
        await within('setting up', connection.query(`SET ${session.join(', ')}`));
        open.schemas.set(own, NO_SCHEMA);
      }
      if (wanted !== NO_SCHEMA && open.schemas.get(own) !== wanted) {
        // A shed's name holds nothing that could end the quotes; see `isShedName`.
        await within('choosing a shed', connection.query(`USE \`${wanted}\``));
        open.schemas.set(own, wanted);
      }
      return connection;
    } catch (error) {
      giveUp(connection, error);
      const code = codeOf(error);
      // A user with no rights on a schema is not told whether there is one.
      if (code === 'ER_BAD_DB_ERROR' || code === 'ER_DBACCESS_DENIED_ERROR') throw new NoSuchShed(wanted);
      throw error;
    }
  }
}

/** Throws a connection away; where its server is at fault, nobody is sent there for a while. */
function giveUp(connection: PoolConnection, error: unknown): void {
  const setback = setbackOf(error);
  if (setback === 'lost' || setback === 'silent' || setback === 'notReady') kept.open?.nodes.lose(connection);
  connection.destroy();
}

function statementsOf(connection: PoolConnection): Statements {
  return {
    query: <T extends QueryResult>(sql: string, values?: unknown[]) =>
      within('a statement', connection.query<T>(sql, values)),
    // Not prepared on the server: what is prepared there stays with the schema that it was prepared in.
    execute: <T extends QueryResult>(sql: string, values: Value[] = []) =>
      within('a statement', connection.query<T>(sql, values.map(single))),
  };
}

function single(value: unknown): unknown {
  if (value instanceof Uint8Array) return Buffer.from(value.buffer, value.byteOffset, value.byteLength);
  if (
    value === null ||
    value instanceof Date ||
    ['string', 'number', 'bigint', 'boolean'].includes(typeof value)
  )
    return value;
  throw new TypeError(`a statement takes no ${Array.isArray(value) ? 'list' : typeof value} for one value`);
}

/**
 * Does something on a connection until it is done, or asking again would change nothing.
 *
 * @param repeatable whether the same may be asked once more where nobody knows if it was done
 * @param harmed whether a connection on which this went wrong is good for nothing else
 */
async function trying<T>(
  repeatable: boolean,
  work: (connection: PoolConnection) => Promise<T>,
  harmed: (error: unknown) => boolean,
): Promise<T> {
  const started = Date.now();
  for (let attempt = 1; ; attempt++) {
    let connection: PoolConnection | null = null;
    try {
      connection = await connect();
      const result = await work(connection);
      connection.release();
      return result;
    } catch (error) {
      if (connection) {
        if (harmed(error)) giveUp(connection, error);
        else connection.release();
      }
      const setback = setbackOf(error);
      const several = kept.open?.nodes.several ?? false;
      const again =
        setback === 'conflict' ||
        setback === 'notReady' ||
        (setback === 'lost' && repeatable) ||
        // The one server there is would be silent again.
        (setback === 'silent' && repeatable && several);
      if (!again) throw error;
      if (attempt >= MOST_TRIES || Date.now() - started > PATIENCE_MS * (several ? 2 : 1))
        throw error instanceof DatabaseAway ? error : new DatabaseAway(codeOf(error), { cause: error });
      await new Promise((resolve) => setTimeout(resolve, 20 * attempt * attempt));
    }
  }
}

/** What only reads may be read twice. */
const READS = /^\s*(SELECT|SHOW|CHECKSUM)\b(?![^]*\bFOR UPDATE\b)/i;

/** One that is merely wrong leaves its connection as it was. */
const isAway = (error: unknown) => error instanceof DatabaseAway;

const SINGLE: Statements = {
  query: (sql, values) =>
    trying(READS.test(sql), (connection) => statementsOf(connection).query(sql, values), isAway),
  execute: (sql, values) =>
    trying(READS.test(sql), (connection) => statementsOf(connection).execute(sql, values), isAway),
};

/**
 * Single statements on the application's connections, made on first use from `SPIRAXIS_DATABASE_URL`. Rejects with
 * {@link DatabaseAway} where the database is not there or says nothing.
 */
export function pool(): Statements {
  return SINGLE;
}

/** Statements on a connection that is in no shed: about the server itself, and which sheds there are. */
export async function onServer<T>(work: (db: Statements) => Promise<T>): Promise<T> {
  const connection = await connect(NO_SCHEMA);
  try {
    const result = await work(statementsOf(connection));
    connection.release();
    return result;
  } catch (error) {
    giveUp(connection, error);
    throw error;
  }
}

/** A connection of the driver's own kind, for a library that brings its statements with it. */
export function driverConnection(given: (error: Error | null, connection?: object) => void): void {
  connect().then(
    ({ connection }) => given(null, connection),
    (error: Error) => given(error),
  );
}

/** How work on one connection begins, and so what it may be of. */
const BEGINS = {
  /** Reads all of it as it stood at one moment, whatever is written meanwhile. */
  reading: 'START TRANSACTION WITH CONSISTENT SNAPSHOT, READ ONLY',
  /** Writes all of it or nothing. */
  writing: 'START TRANSACTION',
} as const;

/** Long work in one go that cannot be done a second time, since it reads or fills a stream: what goes wrong goes wrong once. */
export async function inOneGo<T>(
  begins: keyof typeof BEGINS,
  work: (db: Statements) => Promise<T>,
): Promise<T> {
  const connection = await connect();
  try {
    await within('a transaction', connection.query(BEGINS[begins]));
    const result = await work(statementsOf(connection));
    await within('a commit', connection.commit());
    connection.release();
    return result;
  } catch (error) {
    giveUp(connection, error);
    throw error;
  }
}

/** The schema that the address names: of the one shed there is, or what those of many begin with. */
export function serverSchema(): string {
  return opened().schema;
}

/** The schema of the shed that is worked for. */
export function schemaNow(): string {
  return schemaOf(opened().schema, shedNow());
}

/** Closes the connections for good: a later statement rejects with {@link DatabaseAway}. */
export async function closePool(): Promise<void> {
  const { open } = kept;
  kept.open = null;
  closed = true;
  await open?.nodes.end();
}

/**
 * Runs `work` in one transaction that it neither commits nor rolls back itself. Tries again after a conflict, and where the
 * connection broke: what `work` does a second time, by ids that it was given, changes nothing.
 */
export async function withTransaction<T>(work: (db: Statements) => Promise<T>): Promise<T> {
  return trying(
    true,
    async (connection) => {
      await within('a transaction', connection.beginTransaction());
      const result = await work(statementsOf(connection));
      await within('a commit', connection.commit());
      return result;
    },
    // Whatever it was in the middle of: the database rolls it back.
    () => true,
  );
}
