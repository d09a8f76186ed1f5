import { countJobs } from './jobs';
import { createConnection } from 'mysql2/promise';
import { codeOf } from './databaseAway';
import { closePool, pool, withTransaction } from './pool';
import { seedAfresh } from './testing/seedAfresh';

beforeAll(seedAfresh);
afterAll(closePool);

describe('what the application may do', () => {
  const asApplication = async (sql: string) => {
    const connection = await createConnection(process.env.SPIRAXIS_APP_DATABASE_URL!);
    try {
      await connection.query(sql);
      return 'done';
    } catch (error) {
      return codeOf(error);
    } finally {
      await connection.end();
    }
  };

  it.each([
    ['UPDATE entries SET person = "Nobody"', 'ER_TABLEACCESS_DENIED_ERROR'],
    ['DELETE FROM entries', 'ER_TABLEACCESS_DENIED_ERROR'],
    ['UPDATE trail SET person = "Nobody"', 'ER_TABLEACCESS_DENIED_ERROR'],
    ['DELETE FROM trail', 'ER_TABLEACCESS_DENIED_ERROR'],
    ['UPDATE function_versions SET note = ""', 'ER_TABLEACCESS_DENIED_ERROR'],
    ['DROP TABLE entries', 'ER_TABLEACCESS_DENIED_ERROR'],
    ['CREATE TABLE mine (id INT)', 'ER_TABLEACCESS_DENIED_ERROR'],
    ['SELECT User FROM mysql.global_priv', 'ER_TABLEACCESS_DENIED_ERROR'],
    ['SELECT COUNT(*) FROM entries', 'done'],
    ['UPDATE jobs SET title = title WHERE FALSE', 'done'],
  ])('%s: %s', async (sql, answer) => {
    expect(await asApplication(sql)).toBe(answer);
  });
});

describe('a value that does not fit', () => {
  it('is refused and never cut or bent', async () => {
    await expect(
      pool().execute('INSERT INTO machines (id, code, name) VALUES (?, ?, ?)', [
        'x'.repeat(60),
        'Q-1',
        'Long',
      ]),
    ).rejects.toMatchObject({ code: 'ER_DATA_TOO_LONG' });
  });
});

describe('a statement that is wrong', () => {
  it('is no database that is away', async () => {
    await expect(pool().query('SELEKT 1')).rejects.toMatchObject({ code: 'ER_PARSE_ERROR' });
  });
});

describe('withTransaction', () => {
  it('rolls back when the work fails', async () => {
    const before = await countJobs({});
    await expect(
      withTransaction(async (db) => {
        await db.query('UPDATE jobs SET closed_at = UTC_TIMESTAMP(3)');
        throw new Error('halfway');
      }),
    ).rejects.toThrow('halfway');
    expect(await countJobs({})).toBe(before);
  });

  it('tries a deadlocked transaction again', async () => {
    const numbers = [417, 416];
    const touch = (order: number[]) =>
      withTransaction(async (db) => {
        for (const number of order) {
          await db.query('UPDATE jobs SET person = person WHERE number = ? AND 1 = 1', [number]);
          await db.query('SELECT id FROM jobs WHERE number = ? FOR UPDATE', [number]);
          await new Promise((resolve) => setTimeout(resolve, 60));
        }
        return order;
      });
    await expect(Promise.all([touch(numbers), touch([...numbers].reverse())])).resolves.toHaveLength(2);
  });
});
