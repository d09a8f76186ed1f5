/** A server that says nothing for so long is away: the page says so within ten seconds. */
const PATIENCE_MS = 8000;

/** The server refused, in its own words; or did not answer at all. */
export class NotAnswered extends Error {
  constructor(
    message: string,
    /** 0 where there was no answer. */
    readonly status: number,
    /** What kind of refusal it is, in the server's own word. */
    readonly code = '',
  ) {
    super(message);
    this.name = 'NotAnswered';
  }
}

export type Asked = RequestInit & { patienceMs?: number };

/**
 * Asks the server, and gives its status with what it says; null where that is no JSON. Given up after a while, body
 * included, and when its page is left; then, and where there is no server, it rejects.
 */
export async function askStatus<T>(
  path: string,
  { patienceMs = PATIENCE_MS, signal, ...init }: Asked = {},
): Promise<{ status: number; answer: T | null }> {
  const limit = new AbortController();
  const leave = () => limit.abort();
  const timer = setTimeout(leave, patienceMs);
  signal?.addEventListener('abort', leave);
  try {
    const response = await fetch(path, { ...init, signal: limit.signal });
    const answer = (await response.json().catch((error: unknown) => {
      if (limit.signal.aborted) throw error;
      return null;
    })) as T | null;
    return { status: response.status, answer };
  } finally {
    clearTimeout(timer);
    signal?.removeEventListener('abort', leave);
  }
}

/** Asks the server for data. Rejects with {@link NotAnswered} where it refuses or does not answer. */
export async function askServer<T>(path: string, init: Asked = {}): Promise<T> {
  const { status, answer } = await askStatus<T & { message?: string; code?: string }>(path, init).catch(
    () => {
      throw new NotAnswered('The server does not answer.', 0);
    },
  );
  if (status >= 400 || answer === null)
    throw new NotAnswered(answer?.message ?? `The server failed (${status}).`, status, answer?.code);
  return answer;
}
