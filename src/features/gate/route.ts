import 'server-only';
import { NextResponse, type NextRequest } from 'next/server';
import { failureOf, Refused } from './failure';

type Params = Record<string, string>;

/**
 * A route handler. Every failure is answered with a status and a sentence: what is wrong with the request with 400, what is
 * not there with 404, a database that is away or a server that is full with 503. Who may ask for it will be judged here too.
 */
export function route<P extends Params = Params>(
  work: (request: NextRequest, params: P) => Promise<Response>,
): (request: NextRequest, context: { params: Promise<P> }) => Promise<Response> {
  return async (request, { params }) => {
    try {
      return await work(request, await params);
    } catch (error) {
      const { status, code, message, againIn } = failureOf(
        error,
        `${request.method} ${request.nextUrl.pathname}`,
      );
      return NextResponse.json(
        { code, message },
        {
          status,
          headers: { 'cache-control': 'no-store', ...(againIn ? { 'retry-after': String(againIn) } : {}) },
        },
      );
    }
  };
}

/** A thing that has to be there. */
export function found<T>(thing: T | null | undefined, message: string): T {
  if (thing === null || thing === undefined) throw new Refused(404, 'not-found', message);
  return thing;
}

/** The body, counted as it comes in: one that is larger is refused and not read to its end. */
export async function bodyOf(
  request: NextRequest,
  most: number,
  what: string,
): Promise<Uint8Array<ArrayBuffer>> {
  const tooLarge = () =>
    new Refused(413, 'too-large', `${what} is over ${sizeWords(most)}; the server takes no larger one.`);
  const announced = Number(request.headers.get('content-length') ?? 0);
  if (announced > most) throw tooLarge();
  const pieces: Uint8Array[] = [];
  let size = 0;
  if (request.body) {
    for await (const piece of request.body) {
      size += piece.byteLength;
      if (size > most) throw tooLarge();
      pieces.push(piece);
    }
  }
  const whole = new Uint8Array(size);
  let at = 0;
  for (const piece of pieces) {
    whole.set(piece, at);
    at += piece.byteLength;
  }
  if (announced > size)
    throw new Refused(400, 'bad-input', `${what} came in cut: ${size} of ${announced} bytes. Send it again.`);
  return whole;
}

/** The body as text. Bytes that are no UTF-8 are refused. */
export async function textOf(request: NextRequest, most: number, what: string): Promise<string> {
  const bytes = await bodyOf(request, most, what);
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    throw new Refused(400, 'bad-input', `${what} is no UTF-8 text.`);
  }
}

function sizeWords(bytes: number): string {
  return bytes >= 1e6 ? `${Math.round(bytes / 1e6)} MB` : `${Math.round(bytes / 1000)} kB`;
}
