import 'server-only';
import { NextResponse, type NextRequest } from 'next/server';
import type { Deed } from '@/core/people/roles';
import type { Signed } from '../people/session';
import { askingOf, whileAsking } from './asking';
import { askedName, metrics } from '../metrics';
import { failureOf, Refused } from './failure';
import { whoMay } from './who';

type Params = Record<string, string>;
type Handler<P> = (request: NextRequest, context: { params: Promise<P> }) => Promise<Response>;

/**
 * A route handler, for who may do it. Every failure is answered with a status and a sentence: 401 where nobody is signed in,
 * 403 where their role may not, what is wrong with the request with 400, what is not there with 404, a database that is away
 * or a server that is full with 503.
 */
export function route<P extends Params = Params>(
  deed: Deed,
  work: (request: NextRequest, params: P, who: Signed) => Promise<Response>,
): Handler<P> {
  const handle = answering<P>(async (request, params) => {
    const who = await whoMay(deed, request.cookies, `${request.method} ${request.nextUrl.pathname}`);
    return whileAsking(askingOf(headerOf(request), who.name), () => work(request, params, who));
  });
  known.set(handle, deed);
  return handle;
}

/** A route that is open to who is not signed in: signing in itself, and whether the server is there. */
export function openRoute<P extends Params = Params>(
  work: (request: NextRequest, params: P) => Promise<Response>,
): Handler<P> {
  const handle = answering(work);
  known.set(handle, 'open');
  return handle;
}

const known = new WeakMap<object, Deed | 'open'>();

/** What one has to be for a route: for a test that asks each of them as everybody. */
export function deedOfRoute(handle: object): Deed | 'open' | undefined {
  return known.get(handle);
}

const headerOf = (request: NextRequest) => (name: string) => request.headers.get(name);

function answering<P extends Params>(
  work: (request: NextRequest, params: P) => Promise<Response>,
): Handler<P> {
  return (request, { params }) =>
    whileAsking(askingOf(headerOf(request), null), async () => {
      const asked = `${request.method} ${askedName(request.nextUrl.pathname)}`;
      const took = metrics.seconds.startTimer({ asked });
      const ended = (answer: Response) => {
        took();
        metrics.answers.inc({ asked, ended: String(answer.status) });
        return answer;
      };
      try {
        return ended(await work(request, await params));
      } catch (error) {
        const { status, code, message, againIn } = failureOf(
          error,
          `${request.method} ${request.nextUrl.pathname}`,
        );
        return ended(
          NextResponse.json(
            { code, message },
            {
              status,
              headers: {
                'cache-control': 'no-store',
                ...(againIn ? { 'retry-after': String(againIn) } : {}),
              },
            },
          ),
        );
      }
    });
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

/** The body as JSON. */
export async function jsonOf(request: NextRequest, most: number): Promise<unknown> {
  try {
    return JSON.parse(await textOf(request, most, 'The request'));
  } catch (error) {
    if (error instanceof SyntaxError) throw new Refused(400, 'bad-input', 'The request is not JSON.');
    throw error;
  }
}

function sizeWords(bytes: number): string {
  return bytes >= 1e6 ? `${Math.round(bytes / 1e6)} MB` : `${Math.round(bytes / 1000)} kB`;
}
