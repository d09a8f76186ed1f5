import 'server-only';
import { AsyncLocalStorage } from 'node:async_hooks';
import { ofProcess } from '@/db/shed';

/** Who asks, from where, and under which number: what every line of the log and of the trail says. */
export interface Asking {
  requestId: string;
  /** As the socket says it, or a proxy of one's own. */
  address: string;
  person: string | null;
}

const store = ofProcess('asking', () => new AsyncLocalStorage<Asking>());

export function whileAsking<T>(asking: Asking, work: () => T): T {
  return store.run(asking, work);
}

/** Of the request that is under way; null in what the server does by itself. */
export function askingNow(): Asking | null {
  return store.getStore() ?? null;
}

const MOST_LETTERS = 45;

/** What a request's headers say of it. */
export function askingOf(header: (name: string) => string | null, person: string | null): Asking {
  const address = (header('x-forwarded-for') ?? '').split(',').at(-1)!.trim();
  return {
    requestId: header('x-request-id') ?? '',
    address: /^[\d.:a-f]+$/i.test(address) ? address.slice(0, MOST_LETTERS) : '',
    person,
  };
}
