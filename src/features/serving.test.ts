import { spawnSync } from 'node:child_process';

const SECRET = 'x'.repeat(40);
const start = (script: string, args: string[], env: Record<string, string>) => {
  const {
    SPIRAXIS_SECRET: _s,
    SPIRAXIS_DEMO: _d,
    SPIRAXIS_PROXY: _p,
    SPIRAXIS_TLS: _t,
    ...clean
  } = process.env;
  const done = spawnSync(process.execPath, [script, ...args], {
    encoding: 'utf8',
    env: { ...clean, ...env },
    timeout: 20_000,
  });
  return { status: done.status, said: `${done.stdout}${done.stderr}` };
};

describe('a start that would not be safe does not happen', () => {
  it.each([
    ['without the secret that cookies are sealed with', {}, /SPIRAXIS_SECRET has under 32 characters/],
    [
      'beyond this machine without TLS',
      { SPIRAXIS_SECRET: SECRET, SPIRAXIS_ADDRESS: '0.0.0.0' },
      /heard on 0\.0\.0\.0 without TLS/,
    ],
    [
      'beyond this machine as the demonstration, also with TLS',
      {
        SPIRAXIS_SECRET: SECRET,
        SPIRAXIS_ADDRESS: '0.0.0.0',
        SPIRAXIS_DEMO: '1',
        SPIRAXIS_PROXY: '1',
        SPIRAXIS_TLS: '1',
      },
      /the demonstration lets anybody in/,
    ],
    [
      'beyond this machine where a proxy is said to be there and speaks no TLS',
      { SPIRAXIS_SECRET: SECRET, SPIRAXIS_ADDRESS: '10.0.4.2', SPIRAXIS_PROXY: '1' },
      /without TLS/,
    ],
  ])('%s', (_what, env, words) => {
    const { status, said } = start('scripts/serve.mjs', [], env as Record<string, string>);
    expect(said).toMatch(words);
    expect(status).toBe(1);
  });

  it.each([
    [['--address', '10.0.4.2'], /Give --cert and --key, or put a proxy before it/],
    [['--address', 'shed.local'], /--address shed\.local is no address/],
    [['--cert', 'a.crt'], /--cert and --key go together/],
    [['--cert', 'no-such.crt', '--key', 'no-such.key'], /--cert no-such\.crt cannot be read/],
    [['--host', 'https://shed.local'], /https:\/\/shed\.local is no name of a host/],
    [['--sheds', 'sheds.local/x'], /sheds\.local\/x is no name of a host/],
    [['--port', '0'], /--port 0 is no port/],
  ])('a shop’s start with %j', (args, words) => {
    const { status, said } = start('scripts/shop.mjs', args, {});
    expect(said).toMatch(words);
    expect(status).toBe(1);
  });
});
