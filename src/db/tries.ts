import { RateLimiterMySQL, RateLimiterRes } from 'rate-limiter-flexible';
import { driverConnection, schemaNow, within } from './pool';

/** How many wrong tries are borne, over how long, and how long none is taken after that; seconds. */
export interface TryLimit {
  /** Of letters; the key of what is tried goes behind it. */
  name: string;
  most: number;
  over: number;
  pause: number;
}

/** Counts wrong tries in the database, so that they count on every process and after a start. */
export interface Tries {
  /** How many seconds nothing is taken for a key; 0 where a try may be made. */
  waitFor(key: string): Promise<number>;
  /** Counts a wrong one; gives the seconds as {@link waitFor}. */
  wrong(key: string): Promise<number>;
  /** A right one: the wrong ones before it are forgotten. */
  right(key: string): Promise<void>;
}

const MS = 1000;

/** Wrong tries under a limit. Rejects, and so lets nobody in, where the database is away. */
export function triesOf({ name, most, over, pause }: TryLimit): Tries {
  const limiter = new RateLimiterMySQL({
    storeClient: { getConnection: driverConnection },
    storeType: 'pool',
    dbName: schemaNow(),
    tableName: 'tries',
    tableCreated: true,
    keyPrefix: name,
    points: most,
    duration: over,
    blockDuration: pause,
  });
  const waiting = (found: RateLimiterRes | null) =>
    found !== null && found.consumedPoints > most ? Math.max(1, Math.ceil(found.msBeforeNext / MS)) : 0;
  return {
    waitFor: async (key) => waiting(await within('wrong tries', limiter.get(key))),
    wrong: async (key) => {
      try {
        const found = await within('a wrong try', limiter.consume(key));
        return waiting(found);
      } catch (error) {
        if (error instanceof RateLimiterRes) return waiting(error);
        throw error;
      }
    },
    right: async (key) => {
      await within('wrong tries', limiter.delete(key));
    },
  };
}
