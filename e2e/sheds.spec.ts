import { spawn, spawnSync } from 'node:child_process';
import { once } from 'node:events';
import { request, type IncomingMessage } from 'node:http';
import { expect, test } from '@playwright/test';

const PORT = 3177 + Number(process.env.TEST_PARALLEL_INDEX ?? 0);
const UNDER = 'sheds.test';
const SHEDS = [`north-${PORT}`, `south-${PORT}`];

/** Asks the server under a name, as a browser would that was led there. */
async function ask(
  host: string,
  path: string,
  { cookie = '', json }: { cookie?: string; json?: object } = {},
) {
  const body = json ? JSON.stringify(json) : null;
  const asked = request({
    host: '127.0.0.1',
    port: PORT,
    path,
    method: body ? 'POST' : 'GET',
    headers: { host, cookie, ...(body ? { 'content-type': 'application/json' } : {}) },
  });
  asked.end(body);
  const [answer] = (await once(asked, 'response')) as [IncomingMessage];
  const pieces: Buffer[] = [];
  for await (const piece of answer) pieces.push(piece as Buffer);
  return {
    status: answer.statusCode,
    text: Buffer.concat(pieces).toString(),
    cookie: (answer.headers['set-cookie'] ?? []).map((line) => line.split(';')[0]).join('; '),
  };
}

test('many sheds on one server: each under its own name, with its own people, and nothing under any other', async () => {
  test.slow();
  const owner = process.env.SPIRAXIS_OWNER_URL!;
  const env = { ...process.env, SPIRAXIS_SHEDS: UNDER, SPIRAXIS_DEMO: '', SPIRAXIS_LOG: 'silent' };
  const words = SHEDS.map((shed) => {
    const made = spawnSync('npx', ['tsx', 'scripts/sheds.ts', 'add', shed], {
      encoding: 'utf8',
      env: { ...env, SPIRAXIS_DATABASE_URL: owner },
    });
    expect(made.stderr).not.toMatch(/spiraxis:/);
    return /with the word (\S+),/.exec(made.stdout)![1]!;
  });
  const server = spawn(process.execPath, ['scripts/serve.mjs'], {
    stdio: ['ignore', 'pipe', 'inherit'],
    env: { ...env, NODE_ENV: 'production', SPIRAXIS_PORT: String(PORT) },
  });
  try {
    await new Promise<void>((resolve) => {
      server.stdout.on('data', (text) => {
        if (String(text).includes('ready on')) resolve();
      });
    });
    const [north, south] = SHEDS.map((shed) => `${shed}.${UNDER}:${PORT}`) as [string, string];
    expect((await ask(north, '/sign-in')).text).toContain('Spiraxis');
    for (const host of [`nobodys.${UNDER}:${PORT}`, `a.${north}`, `127.0.0.1:${PORT}`, 'evil.example']) {
      const turned = await ask(host, '/sign-in');
      expect([host, turned.status]).toEqual([host, 421]);
      expect((JSON.parse(turned.text) as { message: string }).message).toMatch(/[.]$/);
    }
    // What is about the server and no shed.
    expect((await ask(`127.0.0.1:${PORT}`, '/api/health')).status).toBe(200);
    const signIn = (host: string, password: string) =>
      ask(host, '/api/session', { json: { name: 'Lead', password } });
    expect((await signIn(south, words[0]!)).status).toBe(401);
    const lead = await signIn(north, words[0]!);
    expect(lead.status).toBe(200);
    expect((await ask(north, '/api/session', { cookie: lead.cookie })).status).toBe(200);
    // Carried to the other shed it opens nothing.
    expect((await ask(south, '/api/session', { cookie: lead.cookie })).status).toBe(401);
    // Both answer at once, each for itself.
    const both = await Promise.all(
      Array.from({ length: 12 }, (_one, at) =>
        ask(at % 2 === 0 ? north : south, '/api/session', { cookie: lead.cookie }),
      ),
    );
    expect(both.map(({ status }) => status)).toEqual(both.map((_one, at) => (at % 2 === 0 ? 200 : 401)));
  } finally {
    server.kill('SIGTERM');
    await once(server, 'exit');
  }
});
