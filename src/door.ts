/** What of a request decides whether it may come in at all. */
export interface Knock {
  method: string;
  path: string;
  /** A header by its lower-case name, or null. */
  header: (name: string) => string | null;
}

/** Why a request is turned away before anything of it is read. */
export interface TurnedAway {
  status: 400 | 403 | 415 | 421;
  code: 'bad-host' | 'foreign-host' | 'cross-site' | 'not-json';
  message: string;
}

/** Names that a server on loopback goes by. */
const LOOPBACK: readonly string[] = ['localhost', '127.0.0.1', '[::1]'];
const READS: readonly string[] = ['GET', 'HEAD', 'OPTIONS'];
/** Where a body is JSON and nothing else. A form of another page cannot send that without asking first. */
const JSON_ONLY: readonly RegExp[] = [
  /^\/api\/jobs\/[^/]+\/entries$/,
  /^\/api\/machines\/[^/]+\/bus$/,
  /^\/api\/session/,
];

/**
 * Judges a request at the door. It comes in under a name that this server goes by (any other is a page that had its name
 * pointed here), and what changes something comes from this server's own pages, or from a program that is no browser.
 *
 * @param hosts names beside those of loopback, without ports, in lower case; `.sheds.example` is each name right under that
 */
export function turnAway({ method, path, header }: Knock, hosts: readonly string[]): TurnedAway | null {
  const host = header('host') ?? '';
  const name = hostName(host);
  if (name === null) return { status: 400, code: 'bad-host', message: 'The request names no host.' };
  if (!LOOPBACK.includes(name) && !hosts.some((host) => isNamed(name, host))) {
    const message = 'This server does not go by that name; add it to SPIRAXIS_HOSTS to reach it so.';
    return { status: 421, code: 'foreign-host', message };
  }
  if (READS.includes(method)) return null;
  if (isForeign(header('sec-fetch-site'), header('origin'), host)) {
    const message = 'Another site may not change anything here; do it on this server’s own pages.';
    return { status: 403, code: 'cross-site', message };
  }
  const type = (header('content-type') ?? '').split(';')[0]!.trim().toLowerCase();
  if (JSON_ONLY.some((pattern) => pattern.test(path)) && type !== 'application/json') {
    const message = 'Send it as JSON, with the content type application/json.';
    return { status: 415, code: 'not-json', message };
  }
  return null;
}

function isNamed(name: string, host: string): boolean {
  if (!host.startsWith('.')) return name === host;
  return name.endsWith(host) && /^[a-z0-9-]+$/.test(name.slice(0, -host.length));
}

/** Whether a browser says that a request comes from elsewhere. A program that is no browser says nothing of it. */
function isForeign(site: string | null, origin: string | null, host: string): boolean {
  if (site !== null && site !== 'same-origin') return true;
  return origin !== null && originHost(origin) !== host.toLowerCase();
}

/** Name and port of an origin; null for one that hides itself or is none. */
function originHost(origin: string): string | null {
  return URL.canParse(origin) ? new URL(origin).host : null;
}

function hostName(host: string): string | null {
  if (!/^[\w.:[\]-]+$/.test(host)) return null;
  return URL.canParse(`http://${host}`) ? new URL(`http://${host}`).hostname : null;
}

/** Names that the configuration adds: `SPIRAXIS_HOSTS=shed.local,10.0.4.2`. */
export function hostsOf(text: string | undefined): string[] {
  return (text ?? '')
    .split(',')
    .map((name) => name.trim().toLowerCase())
    .filter(Boolean);
}
