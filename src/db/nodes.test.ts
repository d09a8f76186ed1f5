import { connect, createServer, type AddressInfo, type Server, type Socket } from 'node:net';
import { addressesOf } from './addresses';
import { DatabaseNodes } from './nodes';
import { ofProcess } from './shed';

const { servers } = addressesOf(process.env.SPIRAXIS_DATABASE_URL);
const real = new URL(servers[0]!);
const PROBE_MS = 50;

/** A way to the database that can be shut, opened again, and made to take what is sent and say nothing. */
class Way {
  readonly #sockets = new Set<Socket>();
  #server: Server | null = null;
  silent = false;
  taken = 0;
  port = 0;

  async open(): Promise<void> {
    const server = createServer((near) => {
      this.taken++;
      const far = connect(Number(real.port), real.hostname);
      for (const [from, to] of [
        [near, far],
        [far, near],
      ] as const) {
        this.#sockets.add(from);
        from.on('data', (bytes) => void (this.silent || to.write(bytes)));
        from.on('close', () => to.destroy());
        from.on('error', () => to.destroy());
      }
    });
    await new Promise<void>((resolve) => server.listen(this.port, '127.0.0.1', resolve));
    this.port = (server.address() as AddressInfo).port;
    this.#server = server;
  }

  async shut(): Promise<void> {
    const server = this.#server;
    this.#server = null;
    const over = new Promise((resolve) => server?.close(resolve) ?? resolve(null));
    for (const socket of this.#sockets) socket.destroy();
    this.#sockets.clear();
    await over;
  }

  get uri(): string {
    const uri = new URL(servers[0]!);
    uri.port = String(this.port);
    return uri.href;
  }
}

const ways = [new Way(), new Way()];
let nodes: DatabaseNodes;
beforeEach(async () => {
  for (const way of ways) {
    way.silent = false;
    way.taken = 0;
    await way.open();
  }
  nodes = new DatabaseNodes(
    ways.map(({ uri }) => uri),
    { connectionLimit: 4, connectTimeout: 1500 },
    PROBE_MS,
  );
});
afterEach(async () => {
  await nodes.end();
  for (const way of ways) await way.shut();
});

async function ask(): Promise<unknown> {
  const connection = await nodes.connection();
  try {
    const [rows] = await connection.query('SELECT 1 AS one');
    return rows;
  } finally {
    connection.release();
  }
}
const ONE = [{ one: 1 }];
/** Asks until the first server is asked again. */
async function back(): Promise<void> {
  const before = ways[0]!.taken;
  // Somebody who only looks whether it is well is counted too: two are one more than that.
  for (let tries = 0; ways[0]!.taken < before + 2; tries++) {
    if (tries > 200) throw new Error('nobody was sent to it again');
    expect(await ask()).toEqual(ONE);
    await new Promise((resolve) => setTimeout(resolve, PROBE_MS));
  }
}

describe('two servers of one database', () => {
  it('are asked in their order', async () => {
    expect(nodes.several).toBe(true);
    expect(await ask()).toEqual(ONE);
    expect(await ask()).toEqual(ONE);
    expect(ways.map(({ taken }) => taken)).toEqual([1, 0]);
  });

  it('that answer are not away: what fails then is the server’s own failure', async () => {
    const away = ofProcess('away', () => ({ at: 0 }));
    const before = away.at;
    expect(await ask()).toEqual(ONE);
    expect(away.at).toBe(before);
  });

  it('the second stands in while the first is gone, and the first is asked again when it is back', async () => {
    await ways[0]!.shut();
    expect(await ask()).toEqual(ONE);
    expect(ways[1]!.taken).toBe(1);
    await ways[0]!.open();
    await back();
  });

  it('one that lets people in and says nothing is left for the next', async () => {
    ways[0]!.silent = true;
    expect(await ask()).toEqual(ONE);
    expect(ways[1]!.taken).toBe(1);
    ways[0]!.silent = false;
    await back();
  });

  it('who waits for a connection of one that is lost goes to the next', async () => {
    const held = await Promise.all(Array.from({ length: 4 }, () => nodes.connection()));
    const waits = ask();
    nodes.lose(held[0]!);
    expect(await waits).toEqual(ONE);
    expect(ways[1]!.taken).toBe(1);
    for (const connection of held) connection.destroy();
  });

  it('the last one that is left is asked, whatever it did before', async () => {
    await ways[0]!.shut();
    expect(await ask()).toEqual(ONE);
    await ways[1]!.shut();
    await expect(ask()).rejects.toMatchObject({
      code: expect.stringMatching(/ECONNREFUSED|PROTOCOL|ECONNRESET/),
    });
    await ways[1]!.open();
    expect(await ask()).toEqual(ONE);
  });
});
