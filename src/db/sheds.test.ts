/** @jest-environment node */
import { createServer } from 'node:net';
import type { AddressInfo } from 'node:net';
import { createConnection } from 'mysql2/promise';
import { v7 as uuidv7 } from 'uuid';
import { codeOf, NoSuchShed } from './databaseAway';
import { shedIsThere } from './health';
import { addMachine, listFleet } from './library';
import { closePool, onServer, pool, withTransaction } from './pool';
import { inShed, inThisShed, ofShed, shedNow } from './shed';
import { addShed, bringUp, listSheds } from './sheds';
import { triesOf } from './tries';

const SHEDS = ['sheds-test-a', 'sheds-test-b'];
const address = process.env.SPIRAXIS_DATABASE_URL!;

/** A port on which nobody listens any more. */
async function deadPort(): Promise<number> {
  const server = createServer();
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const { port } = server.address() as AddressInfo;
  await new Promise((resolve) => server.close(resolve));
  return port;
}

beforeAll(async () => {
  process.env.SPIRAXIS_SHEDS = 'sheds.test';
  // The first of two servers is gone: every one of these tests goes to the second.
  process.env.SPIRAXIS_DATABASE_URL = address.replace(/@([^/]+)/, `@127.0.0.1:${await deadPort()},$1`);
  for (const shed of SHEDS) await addShed(shed);
});
afterAll(async () => {
  for (const shed of SHEDS)
    await onServer((db) => db.query(`DROP DATABASE \`${new URL(address).pathname.slice(1)}_${shed}\``));
  await closePool();
});

const codesIn = (shed: string) => inShed(shed, async () => (await listFleet(200)).map(({ code }) => code));

describe('two sheds on one server', () => {
  it('are listed, are there, and a third one is not', async () => {
    expect(await listSheds()).toEqual(expect.arrayContaining(SHEDS));
    expect(await shedIsThere(SHEDS[0]!)).toBe(true);
    for (const name of ['nobodys', `a.${SHEDS[0]!}`, '', '../x', SHEDS[0]!.toUpperCase()])
      expect([name, await shedIsThere(name)]).toEqual([name, false]);
    expect(await addShed(SHEDS[0]!)).toBe(false);
    expect(await bringUp(SHEDS[0]!)).toEqual([]);
    await expect(inShed('nobodys', () => pool().query('SELECT 1'))).rejects.toThrow(NoSuchShed);
    await expect(addShed('x`; DROP DATABASE mysql')).rejects.toThrow('no name of a shed');
  });

  it('never see each other’s rows, however their work is mixed', async () => {
    const ids = Array.from({ length: 60 }, () => uuidv7());
    // The same ids in both: a row that strays would be refused, or found in the wrong place.
    await Promise.all(
      ids.flatMap((id, at) =>
        SHEDS.map((shed) =>
          inShed(shed, async () => {
            if (at % 3 === 0)
              await withTransaction(async (db) => {
                await db.execute('INSERT INTO machines (id, code, name) VALUES (?, ?, ?)', [
                  id,
                  `${shed}-${at}`,
                  'A',
                ]);
              });
            else await addMachine({ id, code: `${shed}-${at}`, name: 'A' });
            const [rows] = await pool().query('SELECT code FROM machines WHERE id = ?', [id]);
            expect(rows).toEqual([{ code: `${shed}-${at}` }]);
          }),
        ),
      ),
    );
    for (const shed of SHEDS) {
      const codes = await codesIn(shed);
      expect(codes).toHaveLength(60);
      expect(codes.every((code) => code.startsWith(shed))).toBe(true);
    }
  });

  it('are the application’s to read and add to, and no log of them is its to change', async () => {
    const { username, password, port, pathname } = new URL(process.env.SPIRAXIS_APP_DATABASE_URL!);
    const application = await createConnection({
      host: '127.0.0.1',
      port: Number(port),
      user: username,
      password,
    });
    const as = async (sql: string) => {
      try {
        await application.query(sql);
        return 'done';
      } catch (error) {
        return codeOf(error);
      }
    };
    expect(await as(`USE \`${pathname.slice(1)}_${SHEDS[0]!}\``)).toBe('done');
    expect(await as('SELECT COUNT(*) FROM entries')).toBe('done');
    expect(await as('UPDATE machines SET name = name')).toBe('done');
    expect(await as('DELETE FROM entries')).toBe('ER_TABLEACCESS_DENIED_ERROR');
    expect(await as('UPDATE trail SET person = person')).toBe('ER_TABLEACCESS_DENIED_ERROR');
    expect(await as('CREATE TABLE mine (id INT)')).toBe('ER_TABLEACCESS_DENIED_ERROR');
    expect(await as('DROP TABLE machines')).toBe('ER_TABLEACCESS_DENIED_ERROR');
    await application.end();
  });

  it('count wrong tries apart', async () => {
    const limit = { name: 'apart', most: 1, over: 60, pause: 60 };
    await inShed(SHEDS[0]!, async () => {
      const tries = triesOf(limit);
      await tries.wrong('somebody');
      expect(await tries.wrong('somebody')).toBeGreaterThan(0);
    });
    expect(await inShed(SHEDS[1]!, () => triesOf(limit).waitFor('somebody'))).toBe(0);
  });
});

describe('work that nobody said the shed of', () => {
  it('reaches no shed at all', async () => {
    expect(() => shedNow()).toThrow('nobody said which shed');
    await expect(pool().query('SELECT 1')).rejects.toThrow('nobody said which shed');
    expect(() => inShed('No such', shedNow)).toThrow('nobody said which shed');
  });
});

describe('what the process holds', () => {
  it('is each shed’s own', () => {
    const listOf = ofShed<string[]>('a test’s list', () => []);
    inShed(SHEDS[0]!, () => listOf().push('mine'));
    expect(inShed(SHEDS[1]!, listOf)).toEqual([]);
    expect(inShed(SHEDS[0]!, listOf)).toEqual(['mine']);
    expect(inShed(SHEDS[0]!, () => inThisShed('id'))).not.toBe(inShed(SHEDS[1]!, () => inThisShed('id')));
  });
});

describe('a value for one question mark', () => {
  it('is never spread into more', async () => {
    const given = [{ code: 'X' }, ['X', 'Y']] as unknown as string[];
    for (const value of given)
      await expect(
        inShed(SHEDS[0]!, () => pool().execute('SELECT * FROM machines WHERE code = ?', [value])),
      ).rejects.toThrow(TypeError);
    const error: unknown = await inShed(SHEDS[0]!, () =>
      pool().execute('SELECT ? FROM nothing', ["'; --"]),
    ).catch((caught: unknown) => caught);
    expect(codeOf(error)).toBe('ER_NO_SUCH_TABLE');
  });
});
