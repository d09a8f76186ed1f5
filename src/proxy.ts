import { NextResponse, type NextRequest } from 'next/server';
import { hostsOf, turnAway } from './door';

const HOSTS = [
  ...hostsOf(process.env.SPIRAXIS_HOSTS),
  // Many sheds: each goes by a name of its own under this one.
  ...hostsOf(process.env.SPIRAXIS_SHEDS).map((name) => `.${name}`),
];
/** Set where a proxy of one's own stands before this server and says under which name it was called. */
const BEHIND_PROXY = process.env.SPIRAXIS_PROXY === '1';

/** Spoken here or by the proxy: a browser that was here once comes over nothing else. */
const TLS = process.env.SPIRAXIS_TLS === '1';
const YEAR_S = 31_536_000;

/** The one door: who may come in is judged here, and every page gets a content security policy with a nonce of its own. */
export function proxy(request: NextRequest) {
  const refused = turnAway(
    {
      method: request.method,
      path: request.nextUrl.pathname,
      header: (name) => request.headers.get(name),
    },
    HOSTS,
  );
  if (refused) {
    const { status, code, message } = refused;
    return NextResponse.json({ code, message }, { status });
  }
  const nonce = Buffer.from(crypto.randomUUID()).toString('base64');
  const policy = [
    "default-src 'self'",
    `script-src 'self' 'nonce-${nonce}' 'strict-dynamic'`,
    // Positions on the drawn path are style attributes.
    "style-src 'self' 'unsafe-inline'",
    "img-src 'self' data: blob:",
    "font-src 'self'",
    "connect-src 'self'",
    "worker-src 'self' blob:",
    "object-src 'none'",
    "base-uri 'self'",
    "form-action 'self'",
    "frame-ancestors 'none'",
  ].join('; ');
  const headers = new Headers(request.headers);
  // Nobody but a proxy of one's own may say that this server was called by another name.
  if (!BEHIND_PROXY) headers.delete('x-forwarded-host');
  // One number for all that is logged of a request.
  const requestId = (BEHIND_PROXY && requestIdOf(headers.get('x-request-id'))) || crypto.randomUUID();
  headers.set('x-request-id', requestId);
  headers.set('x-path', `${request.nextUrl.pathname}${request.nextUrl.search}`);
  headers.set('x-nonce', nonce);
  headers.set('content-security-policy', policy);
  const response = NextResponse.next({ request: { headers } });
  response.headers.set('content-security-policy', policy);
  response.headers.set('x-request-id', requestId);
  if (TLS) response.headers.set('strict-transport-security', `max-age=${YEAR_S}`);
  return response;
}

/** What a proxy calls a request, where that is no more than a name. */
function requestIdOf(text: string | null): string | null {
  return text !== null && /^[\w-]{1,36}$/.test(text) ? text : null;
}

export const config = { matcher: ['/((?!_next/static|_next/image|icon.svg).*)'] };
