/** Under which name this server is reached from elsewhere, with no path behind it. */
export interface Origin {
  address: string;
  /** Only this very device reaches it. */
  onlyHere: boolean;
}

const LOOPBACK = /^(localhost|127\.0\.0\.1|\[::1\])(:\d+)?$/;

/**
 * The origin that codes on labels lead to: what the settings say (`SPIRAXIS_ORIGIN`), else the name under which the page was asked for.
 *
 * @param host the request's own Host, which the door has judged
 */
export function originOf(
  host: string | null,
  forwardedProto: string | null,
  setting = process.env.SPIRAXIS_ORIGIN,
): Origin {
  if (setting && URL.canParse(setting)) {
    const { origin, host: named } = new URL(setting);
    return { address: origin, onlyHere: LOOPBACK.test(named) };
  }
  const name = host ?? 'localhost';
  const scheme = process.env.SPIRAXIS_PROXY === '1' && forwardedProto === 'https' ? 'https' : 'http';
  return { address: `${scheme}://${name}`, onlyHere: LOOPBACK.test(name) };
}
