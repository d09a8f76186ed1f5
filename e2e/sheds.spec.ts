import { spawn, spawnSync } from 'node:child_process';
import { once } from 'node:events';
import { request, type IncomingMessage } from 'node:http';
import { chromium, expect, test } from '@playwright/test';
import { Secret, TOTP } from 'otpauth';

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

const PASSWORD = 'the winch pulled in at noon';

/** A first lead who comes with a word, as in a shed that is no demonstration: a password, a code, and only then the people. */
async function leadWithCode(url: string, word: string) {
  const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium-headless-shell',
    args: ['--no-sandbox', '--disable-gpu', `--host-resolver-rules=MAP *.${UNDER} 127.0.0.1`],
  });
  try {
    const page = await browser.newPage({ baseURL: url, serviceWorkers: 'block' });
    const signIn = async (password: string) => {
      await page.goto('/sign-in');
      await page.getByLabel('Name').fill('Lead');
      await page.getByLabel('Password').fill(password);
      await page.getByRole('button', { name: 'Sign in' }).click();
    };
    await signIn(word);
    const own = page.getByRole('region', { name: 'Password' });
    await own.getByLabel('The word you came with').fill(word);
    await own.getByLabel('New password').fill(PASSWORD);
    await own.getByRole('button', { name: 'Keep it' }).click();
    const code = page.getByRole('region', { name: 'Code' });
    await expect(code).toBeVisible();
    await page.goto('/people');
    await expect(page.getByText(/you have none yet/)).toBeVisible();
    await page.goto('/account');
    await code.getByLabel('Password as it stands').fill(PASSWORD);
    await code.getByRole('button', { name: 'Set one up' }).click();
    const secret = (await code.getByTestId('code-secret').textContent())!.replaceAll(' ', '');
    await code
      .getByLabel('The code it shows now')
      .fill(new TOTP({ secret: Secret.fromBase32(secret) }).generate());
    await code.getByRole('button', { name: 'Ask for it from now on' }).click();
    const spare = await code.getByTestId('spare-words').locator('li').first().textContent();
    await code.getByRole('button', { name: 'They are written down' }).click();
    await page.goto('/people');
    await expect(page.getByRole('heading', { name: 'People', level: 1 })).toBeVisible();
    // On another day: name and password, and then the other half.
    await page.context().clearCookies();
    await signIn(PASSWORD);
    await page.getByLabel(/Now the code/).fill(spare!);
    await page.getByRole('button', { name: 'Sign in' }).click();
    await expect(page.getByText(/Lead set up a code beside the password/)).toBeVisible();
    await page.getByRole('button', { name: 'Go on' }).click();
    await page.waitForURL(`${url}/`);
    await page.goto('/people');
    await expect(page.getByRole('heading', { name: 'People', level: 1 })).toBeVisible();
  } finally {
    await browser.close();
  }
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
    await leadWithCode(`http://${south}`, words[1]!);
  } finally {
    server.kill('SIGTERM');
    await once(server, 'exit');
  }
});
