import { Secret, TOTP } from 'otpauth';
import { v7 as uuidv7 } from 'uuid';
import type { Deed } from '@/core/people/roles';
import type { Entry } from '@/core/job/entries';
import { findAccount, findSession, listAccounts } from '@/db/people';
import { findJob } from '@/db/jobs';
import { readEntries } from '@/db/entries';
import { closePool, pool } from '@/db/pool';
import { seedAfresh } from '@/db/testing/seedAfresh';
import {
  askBeside,
  cookieHeader,
  forgetCookies,
  nextHeaders,
  signInAs,
  signOutHere,
  trySignIn,
} from '@/testing/browser';
import { putWordForLead } from '../../../scripts/lib/putPeople';
import { appendToJob } from '../desk/entriesServer';
import { judged } from '../gate/who';
import { isSecret } from './secrets';
import {
  changeOwn,
  changePerson,
  giveNewWord,
  isFeedKey,
  makeAccount,
  namesHere,
  newFeedKey,
  openTrail,
  setUpCode,
  takeCodeOff,
  turnCodeOn,
  type SignedInAnswer,
} from './server';
import { signedIn, type Signed } from './session';

const here = async (now = new Date()) => signedIn(await nextHeaders.cookies(), now);
const me = async (): Promise<Signed> => (await here())!;
const said = async (answer: Response) => [
  answer.status,
  ((await answer.json()) as { message?: string }).message ?? '',
];
const trailOf = async (person?: string) =>
  (await openTrail(undefined, person)).rows.map(({ what, about }) => (about ? `${what}: ${about}` : what));
const PASSWORD = 'the winch pulled in at noon';

beforeAll(async () => {
  process.env.SPIRAXIS_DEMO = '1';
  await seedAfresh();
});
beforeEach(async () => {
  process.env.SPIRAXIS_DEMO = '1';
  forgetCookies();
  await pool().query('DELETE FROM tries');
});
afterAll(closePool);

describe('signing in', () => {
  it('is by a cookie that no script reads, kept as a hash, and ends when it is said to', async () => {
    expect(await here()).toBeNull();
    const answer = await trySignIn({ name: 'tove', demo: true });
    for (const line of answer.headers.getSetCookie()) expect(line).toMatch(/HttpOnly; SameSite=lax/i);
    const who = await me();
    expect(who).toMatchObject({ name: 'Tove', role: 'technician', licences: ['lineVolts'] });
    const [rows] = await pool().query('SELECT key_hash FROM sessions');
    const kept = JSON.stringify(rows);
    for (const pair of cookieHeader().split('; ')) expect(kept).not.toContain(pair.split('=')[1]);
    await signOutHere();
    expect(await here()).toBeNull();
    // The cookie that somebody may have copied is good no longer either.
    expect((await findSession(who.sessionHash))!.endedAt).not.toBeNull();
  });

  it('ends by itself after half an hour of nothing', async () => {
    await signInAs('Tove');
    expect(await here(new Date(Date.now() + 29 * 60_000))).not.toBeNull();
    expect(await here(new Date(Date.now() + 75 * 60_000))).toBeNull();
  });

  it('is one person a device: who comes signs out who was there', async () => {
    await signInAs('Tove');
    const tove = await me();
    await signInAs('Ilse');
    expect((await me()).name).toBe('Ilse');
    expect((await me()).device.id).toBe(tove.device.id);
    expect((await findSession(tove.sessionHash))!.endedAt).not.toBeNull();
  });

  it('a session carried to another device is none', async () => {
    await signInAs('Tove');
    const stolen = cookieHeader()
      .split('; ')
      .filter((pair) => pair.startsWith('spiraxis-person'))
      .map((pair) => pair.split('=').slice(1).join('='));
    forgetCookies();
    const cookies = {
      get: (name: string) => (name === 'spiraxis-person' ? { value: stolen[0]! } : undefined),
    };
    expect(await signedIn(cookies)).toBeNull();
    expect(await signedIn({ get: () => ({ value: 'Fe26.2*1*nonsense' }) })).toBeNull();
  });

  it('with one press is of the demonstration alone', async () => {
    process.env.SPIRAXIS_DEMO = '';
    expect((await trySignIn({ name: 'Tove', demo: true })).status).toBe(401);
    expect(await here()).toBeNull();
    expect(await namesHere(await nextHeaders.cookies())).toEqual([]);
  });
});

describe('PIN and password', () => {
  it('a PIN counts on a device of the shed; a password makes one of it', async () => {
    await signInAs('Henrike');
    const lead = await me();
    const { word } = await makeAccount(lead, { name: 'Bodil', role: 'technician', licences: [] });
    expect((await makeAccount(lead, { name: 'bodil', role: 'reader', licences: [] })).trouble).toMatch(
      /a name signs for good/,
    );
    process.env.SPIRAXIS_DEMO = '';
    forgetCookies();
    expect(await said(await trySignIn({ name: 'Tove', pin: '3190' }))).toEqual([
      401,
      expect.stringMatching(/on a device of the shed only/),
    ]);
    const first = await trySignIn({ name: 'Bodil', password: word! });
    expect(await first.json()).toEqual({ name: 'Bodil', role: 'technician', oneTime: true, notices: [] });
    // Nothing but a password of one's own comes next, and a first word makes no device the shed's.
    expect((await me()).device.trusted).toBe(false);
    expect(await changeOwn(await me(), { now: word!, pin: '8206' })).toMatchObject({ field: 'pin' });
    expect(await changeOwn(await me(), { now: 'not it', password: PASSWORD })).toMatchObject({
      field: 'now',
    });
    const guessed = await changeOwn(await me(), { now: word!, password: 'Password1234' });
    expect(guessed).toMatchObject({
      field: 'password',
      trouble: expect.stringMatching(/first that anybody tries/),
    });
    expect(await changeOwn(await me(), { now: word!, password: PASSWORD })).toEqual({ trouble: null });
    expect(await me()).toMatchObject({ oneTime: false, device: { trusted: true } });
    expect((await trySignIn({ name: 'Bodil', password: word! })).status).toBe(401);
    expect(await changeOwn(await me(), { now: PASSWORD, pin: '8206' })).toEqual({ trouble: null });
    expect((await trySignIn({ name: 'Bodil', pin: '8206' })).status).toBe(200);
    expect((await trySignIn({ name: 'Tove', pin: '3190' })).status).toBe(200);
    expect(await findAccount('Bodil')).toMatchObject({ pin_hash: expect.stringMatching(/^\$argon2id\$/) });
  });

  it('a first word is good for three days, and a new one ends what was before', async () => {
    await signInAs('Henrike');
    const lead = await me();
    await makeAccount(lead, { name: 'Sindre', role: 'reader', licences: [] });
    const { word } = await giveNewWord(lead, 'Sindre');
    const late = new Date(Date.now() - 4 * 86_400_000);
    await pool().query('UPDATE accounts SET one_time_until = ? WHERE name = ?', [late, 'Sindre']);
    forgetCookies();
    expect((await trySignIn({ name: 'Sindre', password: word! })).status).toBe(401);
    await signInAs('Henrike');
    await giveNewWord(await me(), 'Tove');
    const tove = (await findAccount('Tove'))!;
    expect([tove.pin_hash, tove.one_time]).toEqual([null, true]);
    expect(await isSecret(tove.pin_hash, '3190')).toBe(false);
    await pool().query('UPDATE accounts SET one_time = 0, password_hash = NULL WHERE name = ?', ['Tove']);
  });

  it('five wrong ones shut a name on a device for a quarter of an hour, whatever comes next', async () => {
    await signInAs('Ilse');
    const wrong = { name: 'Ilse', pin: '9999' };
    for (let time = 0; time < 5; time++) expect((await trySignIn(wrong)).status).toBe(401);
    const shut = await trySignIn(wrong);
    expect([shut.status, shut.headers.get('retry-after')]).toEqual([
      429,
      expect.stringMatching(/^[89]\d\d$/),
    ]);
    expect((await trySignIn({ name: 'Ilse', pin: '3190' })).status).toBe(429);
    // Others go on, and so does she on another device.
    expect((await trySignIn({ name: 'Rasmus', pin: '3190' })).status).toBe(200);
    forgetCookies();
    await signInAs('Rasmus');
    expect((await trySignIn({ name: 'Ilse', pin: '3190' })).status).toBe(200);
    expect(await trailOf('Ilse')).toEqual(expect.arrayContaining(['wrongTry: PIN', 'lockedOut: PIN']));
  });

  it('a wrong name is told as a wrong PIN is', async () => {
    await signInAs('Ilse');
    const nobody = await said(await trySignIn({ name: 'Nobody', pin: '1' }));
    expect(nobody).toEqual(await said(await trySignIn({ name: 'Ilse', pin: '1' })));
    expect(nobody[1]).toMatch(/Try again, or ask a lead/);
  });
});

describe('a code beside the password', () => {
  const SECOND = 30_000;
  /** What a program shows that was given a secret, at a moment. */
  const shown = (secret: string, at: number) =>
    new TOTP({ secret: Secret.fromBase32(secret.replaceAll(' ', '')) }).generate({ timestamp: at });
  const password = { name: 'Sigrid', password: PASSWORD };
  let secret = '';
  let words: string[] = [];

  beforeAll(async () => {
    process.env.SPIRAXIS_DEMO = '1';
    forgetCookies();
    await signInAs('Henrike');
    const { word } = await makeAccount(await me(), { name: 'Sigrid', role: 'lead', licences: [] });
    process.env.SPIRAXIS_DEMO = '';
    forgetCookies();
    await trySignIn({ name: 'Sigrid', password: word! });
    await changeOwn(await me(), { now: word!, password: PASSWORD });
  });
  beforeEach(async () => {
    process.env.SPIRAXIS_DEMO = '';
    forgetCookies();
  });
  // One lead stays, and that is the demonstration's own.
  afterAll(async () => {
    process.env.SPIRAXIS_DEMO = '1';
    await signInAs('Henrike');
    await changePerson(await me(), 'Sigrid', { role: 'reader', licences: [], closed: true });
  });

  it('is asked of who rules over others, and nothing of that is done without', async () => {
    await trySignIn(password);
    expect(await refusedAs('people')).toMatch(/you have none yet/);
    expect(await refusedAs('work')).toBeNull();
    expect((await setUpCode(await me(), 'not it')).trouble).toMatch(/not the password that stands/);
    const made = await setUpCode(await me(), PASSWORD);
    secret = made.secret!;
    expect(made.picture).toMatch(/^<svg/);
    // It lies there sealed, and nothing is asked for before its first code.
    expect(JSON.stringify(await findAccount('Sigrid'))).not.toContain(secret.replaceAll(' ', ''));
    expect((await trySignIn(password)).status).toBe(200);
    expect(await turnCodeOn(await me(), '000000')).toMatchObject({ field: 'code' });
    const now = Date.now();
    words = (await turnCodeOn(await me(), shown(secret, now), new Date(now))).words!;
    expect(words).toHaveLength(8);
    expect(await refusedAs('people')).toBeNull();
    expect((await setUpCode(await me(), PASSWORD)).trouble).toMatch(/asked for already/);
  });

  it('is good once, near its own time; a spare word is too; a PIN opens nothing that it guards', async () => {
    const wanted = await trySignIn(password);
    expect([wanted.status, await wanted.json()]).toMatchObject([401, { code: 'code-wanted' }]);
    const at = Date.now() + SECOND;
    const code = shown(secret, at);
    expect((await trySignIn({ ...password, code: shown(secret, at - 20 * SECOND) })).status).toBe(401);
    expect((await trySignIn({ ...password, password: 'not it at all', code })).status).toBe(401);
    expect((await trySignIn({ ...password, code })).status).toBe(200);
    expect(await me()).toMatchObject({ twice: true, hasCode: true });
    forgetCookies();
    expect((await trySignIn({ ...password, code })).status).toBe(401);
    expect((await trySignIn({ ...password, code: words[0]!.toUpperCase() })).status).toBe(200);
    expect((await trySignIn({ ...password, code: words[0]! })).status).toBe(401);
    await changeOwn(await me(), { now: PASSWORD, pin: '5127' });
    expect((await trySignIn({ name: 'Sigrid', pin: '5127' })).status).toBe(200);
    expect(await refusedAs('trail')).toMatch(/a PIN does not do/);
    expect(await trailOf('Sigrid')).toEqual(
      expect.arrayContaining(['codeSet', 'wrongTry: code', 'signedIn: with a password and a code']),
    );
  });

  it('five wrong codes shut the name, however right the password is', async () => {
    for (let time = 0; time < 5; time++)
      expect((await trySignIn({ ...password, code: 'none of these' })).status).toBe(401);
    expect((await trySignIn({ ...password, code: 'nor this' })).status).toBe(429);
    expect((await trySignIn({ ...password, code: words[1]! })).status).toBe(429);
  });

  it('whose account was changed is told at the next sign-in, once', async () => {
    const notices = async () =>
      ((await (await trySignIn({ ...password, code: words.pop()! })).json()) as SignedInAnswer).notices;
    const first = (await notices()).map(({ what }) => what);
    expect(first).toContain('lockedOut');
    expect(await notices()).toEqual([]);
    await changeOwn(await me(), { now: PASSWORD, pin: '5128' });
    expect(await notices()).toMatchObject([{ what: 'secretChanged', by: 'Sigrid' }]);
  });

  it('is taken off by who has both, and by a new first word', async () => {
    await trySignIn({ ...password, code: words.pop()! });
    const who = await me();
    expect((await takeCodeOff(who, { password: PASSWORD, code: '000000' })).trouble).toMatch(/code of now/);
    expect(await takeCodeOff(who, { password: PASSWORD, code: words.pop()! })).toEqual({ trouble: null });
    expect(await me()).toMatchObject({ twice: false, hasCode: false });
    const made = await setUpCode(who, PASSWORD);
    await turnCodeOn(who, shown(made.secret!, Date.now()));
    expect(await findAccount('Sigrid')).toMatchObject({ code_since: expect.any(Date) });
    await putWordForLead(Date.now(), 'sigrid');
    expect(await findAccount('Sigrid')).toMatchObject({
      code_since: null,
      code_secret: null,
      one_time: true,
    });
  });
});

/** Why who is signed in may not do something, in the sentence that they get; null where they may. */
async function refusedAs(deed: Deed): Promise<string | null> {
  return judged(deed, await me(), 'test').then(
    () => null,
    (error: Error) => error.message,
  );
}

describe('who works here', () => {
  it('what somebody may ends with their sessions, and one lead stays', async () => {
    await signInAs('Rasmus');
    const rasmus = cookieHeader();
    forgetCookies();
    await signInAs('Henrike');
    const lead = await me();
    expect(await changePerson(lead, 'Rasmus', { role: 'reader', licences: [], closed: false })).toEqual({
      trouble: null,
    });
    const cookies = {
      get: (name: string) => ({
        value: new Map(
          rasmus.split('; ').map((one) => [one.slice(0, one.indexOf('=')), one.slice(one.indexOf('=') + 1)]),
        ).get(name)!,
      }),
    };
    expect(await signedIn(cookies)).toBeNull();
    expect(
      (await changePerson(lead, 'Henrike', { role: 'technician', licences: [], closed: false })).trouble,
    ).toMatch(/the last lead/);
    await changePerson(lead, 'Rasmus', { role: 'reader', licences: [], closed: true });
    expect((await trySignIn({ name: 'Rasmus', demo: true })).status).toBe(401);
    await changePerson(lead, 'Rasmus', { role: 'technician', licences: [], closed: false });
    expect(await trailOf('Henrike')).toEqual(
      expect.arrayContaining(['accountClosed: Rasmus, reader', 'accountChanged: Rasmus, technician']),
    );
    expect((await listAccounts()).some(({ name }) => name === 'Rasmus')).toBe(true);
  });

  it('a calendar’s key opens nothing when a new one is made or its owner has left', async () => {
    await signInAs('Maike');
    const maike = await me();
    const { key: old } = await newFeedKey(maike);
    expect(await isFeedKey(old)).toBe(true);
    const { key } = await newFeedKey(maike);
    expect([await isFeedKey(old), await isFeedKey(key), await isFeedKey('x')]).toEqual([false, true, false]);
    await signInAs('Henrike');
    await changePerson(await me(), 'Maike', { role: 'technician', licences: [], closed: true });
    expect(await isFeedKey(key)).toBe(false);
    await changePerson(await me(), 'Maike', { role: 'technician', licences: ['refrigerant'], closed: false });
  });
});

describe('entries', () => {
  const entry = (person: string, type: string, body: object, more: object = {}): Entry =>
    ({ id: uuidv7(), at: new Date().toISOString(), person, type, body, ...more }) as Entry;
  const send = async (...entries: Entry[]) => {
    const answer = await appendToJob('418', JSON.stringify({ entries }), await me());
    return 'problem' in answer ? (answer.problem.results ?? []) : answer.results;
  };
  const last = async () => (await readEntries((await findJob(418))!.id)).at(-1)!.number;
  const witness = async (name: string) =>
    ((await (await askBeside(name, '3190')).json()) as { witness: string }).witness;
  const looked = (person: string) => entry(person, 'looked', { check: 'plug X1 seated', finding: 'good' });

  it('carry who was signed in and on which device, and nobody writes for somebody else', async () => {
    await signInAs('Ilse');
    const ilse = await me();
    const own = looked('Ilse');
    expect(await send(own)).toMatchObject([{ state: 'added' }]);
    const [rows] = await pool().query('SELECT account_id, device_id, witness_id FROM entries WHERE id = ?', [
      own.id,
    ]);
    expect(rows).toEqual([{ account_id: ilse.accountId, device_id: ilse.device.id, witness_id: null }]);
    expect(await send(looked('Tove'))).toMatchObject([
      {
        state: 'refused',
        code: 'notYourName',
        message: expect.stringMatching(/Nobody signs for somebody else/),
      },
    ]);
  });

  it('a second person’s PIN is good once, for who is signed in, and for a while', async () => {
    await signInAs('Ilse');
    const put = entry('Ilse', 'ledger', { item: 'Plug W3', kind: 'plug' });
    const out = entry(
      'Ilse',
      'ledgerOut',
      { item: 'Plug W3' },
      { against: { number: await last(), own: [put.id] } },
    );
    expect(await send(put, out)).toMatchObject([{ state: 'added' }, { state: 'added' }]);
    const seen = async (token: string | undefined, second = 'Rasmus') =>
      entry(
        'Ilse',
        'ledgerSeen',
        { item: 'Plug W3', second },
        { against: { number: await last(), own: [] }, ...(token ? { witness: token } : {}) },
      );
    expect(await send(await seen(undefined))).toMatchObject([{ code: 'notWitnessed' }]);
    expect((await askBeside('Rasmus', '1111')).status).toBe(401);
    expect((await askBeside('Ilse', '3190')).status).toBe(400);
    const given = await witness('Rasmus');
    // Another's name beside it is not his word.
    expect(await send(await seen(given, 'Henrike'))).toMatchObject([{ code: 'notWitnessed' }]);
    // And what was spent on that is spent.
    expect(await send(await seen(given))).toMatchObject([{ code: 'notWitnessed' }]);
    const late = await witness('Rasmus');
    await pool().query('UPDATE witnesses SET made_at = ? WHERE id = ?', [
      new Date(Date.now() - 11 * 60_000),
      late,
    ]);
    expect(await send(await seen(late))).toMatchObject([{ code: 'notWitnessed' }]);
    const good = await seen(await witness('Rasmus'));
    expect(await send(good)).toMatchObject([{ state: 'added' }]);
    // Sent again because the answer was lost, it is known.
    expect(await send(good)).toMatchObject([{ state: 'known' }]);
    const [rows] = await pool().query('SELECT witness_id FROM entries WHERE id = ?', [good.id]);
    expect(rows).toEqual([{ witness_id: (await findAccount('Rasmus'))!.id }]);
  });

  it('a lock that its owner left is taken off by a lead beside somebody, and the trail says so', async () => {
    await signInAs('Ilse');
    const lock = entry('Ilse', 'isolation', {
      point: 'Bay door',
      energy: 'spring',
      how: 'blocked',
      lock: '12',
      tag: '12',
      released: '',
      tried: 'pushed',
    });
    expect(await send(lock)).toMatchObject([{ state: 'added' }]);
    const off = async (person: string, more: object, token?: string) =>
      entry(
        person,
        'reopened',
        { point: 'Bay door', reason: 'went home with the key', ...more },
        { against: { number: await last(), own: [] }, ...(token ? { witness: token } : {}) },
      );
    await signInAs('Tove');
    expect(await send(await off('Tove', {}))).toMatchObject([{ code: 'notYourLock' }]);
    await signInAs('Henrike');
    const forced = { owner: 'Ilse', second: 'Rasmus' };
    expect(await send(await off('Henrike', forced))).toMatchObject([{ code: 'lockNeedsSecond' }]);
    expect(await send(await off('Henrike', forced, await witness('Rasmus')))).toMatchObject([
      { state: 'added' },
    ]);
    expect(await trailOf('Henrike')).toContain('lockTakenOff: Ilse’s, Bay door, job 418');
    expect(await trailOf('Rasmus')).toContain('witnessed: beside Henrike');
  });
});
