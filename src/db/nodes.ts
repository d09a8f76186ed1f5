import {
  createConnection,
  createPool,
  type Pool,
  type PoolConnection,
  type PoolOptions,
} from 'mysql2/promise';
import { DatabaseAway } from './databaseAway';

/** How often a server that did not answer is asked whether it does again. */
const PROBE_MS = 500;
const CLOSED = 'Pool is closed.';
const FULL = 'Queue limit reached.';

interface Node {
  uri: string;
  pool: Pool;
  /** It did not answer, or said that it is no part of its cluster; nobody is sent to it before it is well. */
  away: boolean;
}

/**
 * The servers of one database, each with its connections. The first one that is there is asked, so that what one process
 * writes meets itself on one node; the next one when it goes, and the first again when it is back.
 */
export class DatabaseNodes {
  readonly #nodes: Node[];
  readonly #options: PoolOptions;
  readonly #from = new WeakMap<object, Node>();
  readonly #probeMs: number;
  #probing: ReturnType<typeof setInterval> | null = null;

  /** @param options of each server's connections; `connectTimeout` is how long a server may take to be reached, milliseconds */
  constructor(uris: readonly string[], options: PoolOptions, probeMs = PROBE_MS) {
    this.#options = options;
    this.#probeMs = probeMs;
    this.#nodes = uris.map((uri) => ({ uri, pool: createPool({ ...options, uri }), away: false }));
  }

  get several(): boolean {
    return this.#nodes.length > 1;
  }

  /** Rejects with what the last server said where none gives a connection. */
  async connection(): Promise<PoolConnection> {
    let last: unknown = null;
    for (const node of [...this.#nodes]) {
      // Lost while another one was asked: asked again at once, with what is new.
      for (let again = 2; !node.away && again > 0; again--) {
        const { pool } = node;
        try {
          const connection = await pool.getConnection();
          this.#from.set(connection.connection, node);
          return connection;
        } catch (error) {
          last = error;
          // The driver has no codes for these.
          const message = String((error as Error).message);
          if (message === FULL) throw new DatabaseAway('too many wait for a connection', { cause: error });
          if (message !== CLOSED) {
            this.#lose(node);
            break;
          }
        }
      }
    }
    throw last ?? new DatabaseAway('no server is left');
  }

  /** What one of its connections came to tells that its server is away, or of no use; all its connections are as suspect. */
  lose(connection: PoolConnection): void {
    const node = this.#from.get(connection.connection);
    if (node) this.#lose(node);
  }

  /** Sends nobody to a server any more until it answers; to the last one that is left people are sent all the same. */
  #lose(node: Node): void {
    if (node.away || !this.#nodes.some((other) => other !== node && !other.away)) return;
    node.away = true;
    // What is under way on it comes to its end, and what waits for a connection goes to the next server.
    void node.pool.end().catch(() => undefined);
    this.#probing ??= setInterval(() => void this.#probe(), this.#probeMs);
    this.#probing.unref();
  }

  async #probe(): Promise<void> {
    await Promise.all(
      this.#nodes
        .filter(({ away }) => away)
        .map(async (node) => {
          if (!(await this.#answers(node.uri)) || !node.away) return;
          node.pool = createPool({ ...this.#options, uri: node.uri });
          node.away = false;
        }),
    );
    if (this.#probing && this.#nodes.every(({ away }) => !away)) {
      clearInterval(this.#probing);
      this.#probing = null;
    }
  }

  /** Whether a server does what it is asked; a node outside its cluster lets people in and does nothing. */
  async #answers(uri: string): Promise<boolean> {
    const limit = this.#options.connectTimeout;
    try {
      const connection = await createConnection({ uri, connectTimeout: limit });
      try {
        await connection.query({ sql: 'SELECT 1', timeout: limit });
        return true;
      } finally {
        connection.destroy();
      }
    } catch {
      return false;
    }
  }

  async end(): Promise<void> {
    if (this.#probing) clearInterval(this.#probing);
    await Promise.all(this.#nodes.filter(({ away }) => !away).map(({ pool }) => pool.end()));
  }
}
