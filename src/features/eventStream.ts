import 'server-only';
import { NextResponse, type NextRequest } from 'next/server';
import { inThisShed, ofProcess } from '@/db/shed';
import { askingOf } from './gate/asking';
import { metrics } from './metrics';

/**
 * Lines one client may hold at once. A page that nobody looks at holds none, so that a shop's tablets behind one address
 * stay far below it; a client that opens lines and never closes them stops here.
 */
export const MOST_LINES = 48;

const lines = ofProcess('lines', () => new Map<string, number>());

/** How often it is asked whether who follows is still signed in. */
const STILL_MS = 60_000;

/**
 * Answers with server-sent events, for as long as the client listens and is signed in; refuses a client that holds too many
 * lines.
 *
 * @param still whether who follows may still; a database that does not answer ends the line too
 */
export function answerEvents(
  request: NextRequest,
  open: (signal: AbortSignal) => ReadableStream<Uint8Array>,
  still: () => Promise<boolean>,
): NextResponse {
  // As the last proxy says it: what came before it was said by whoever asked.
  const client = inThisShed(askingOf((name) => request.headers.get(name), null).address);
  const now = lines.get(client) ?? 0;
  if (now >= MOST_LINES) {
    const message = `${MOST_LINES} event lines are open from here already; close some pages.`;
    return NextResponse.json({ code: 'too-many', message }, { status: 429 });
  }
  lines.set(client, now + 1);
  metrics.lines.inc();
  const over = new AbortController();
  const timer = setInterval(() => {
    still().then(
      (yes) => (yes ? undefined : over.abort()),
      () => over.abort(),
    );
  }, STILL_MS);
  timer.unref();
  request.signal.addEventListener('abort', () => over.abort());
  over.signal.addEventListener('abort', () => {
    clearInterval(timer);
    metrics.lines.dec();
    const left = (lines.get(client) ?? 1) - 1;
    if (left > 0) lines.set(client, left);
    else lines.delete(client);
  });
  return new NextResponse(open(over.signal), {
    headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-store', 'x-accel-buffering': 'no' },
  });
}
