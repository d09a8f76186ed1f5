import { askStatus } from './askServer';

/** After this long without a word, heartbeats included, a line is dead however open it looks, milliseconds. */
const SILENCE_MS = 15_000;
const FIRST_RETRY_MS = 1000;
const LONGEST_RETRY_MS = 20_000;

/**
 * Follows server-sent events. A broken or silent line is called again, each time a little later, at the address as it is
 * then, so that nothing is missed; a page that nobody looks at holds no line. Gives the way to stop.
 */
export function followEvents<T>(
  address: () => string,
  on: {
    message: (message: T) => void;
    lost: () => void;
    /** The server is there, and nobody is signed in any more. */
    signedOut?: () => void;
  },
): () => void {
  let events: EventSource | null = null;
  let retry: ReturnType<typeof setTimeout> | undefined;
  let silence: ReturnType<typeof setTimeout> | undefined;
  let attempts = 0;
  const close = () => {
    clearTimeout(retry);
    clearTimeout(silence);
    events?.close();
    events = null;
  };
  const lost = () => {
    close();
    on.lost();
    // A line says nothing of why it ended.
    if (on.signedOut) void askWhy(on.signedOut);
    const base = Math.min(LONGEST_RETRY_MS, FIRST_RETRY_MS * 2 ** attempts++);
    retry = setTimeout(call, base * (0.7 + 0.6 * Math.random()));
  };
  const alive = () => {
    clearTimeout(silence);
    silence = setTimeout(lost, SILENCE_MS);
  };
  const call = () => {
    close();
    if (document.hidden) return;
    events = new EventSource(address());
    alive();
    events.onmessage = ({ data }: MessageEvent<string>) => {
      attempts = 0;
      alive();
      on.message(JSON.parse(data) as T);
    };
    events.onerror = lost;
  };
  const shown = () => {
    attempts = 0;
    call();
  };
  call();
  document.addEventListener('visibilitychange', shown);
  window.addEventListener('online', shown);
  return () => {
    document.removeEventListener('visibilitychange', shown);
    window.removeEventListener('online', shown);
    close();
  };
}

async function askWhy(signedOut: () => void): Promise<void> {
  const { status } = await askStatus('/api/session').catch(() => ({ status: 0 }));
  if (status === 401) signedOut();
}
