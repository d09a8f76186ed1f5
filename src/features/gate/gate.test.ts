import { NextRequest } from 'next/server';
import { z } from 'zod';
import { InputError } from '@/core/circuit/inputError';
import { DatabaseAway } from '@/db/databaseAway';
import { signedFor } from '../people/testing/signedFor';
import { signedIn } from '../people/session';
import { leaveTrail } from '../people/trail';
import { action, whoever } from './action';
import { Refused } from './failure';
import { id, machineCode, text } from './fields';
import { bodyOf, found, openRoute, route, textOf } from './route';

jest.mock('../serverLog', () => ({ log: { warn: jest.fn(), error: jest.fn() } }));
jest.mock('next/headers', () => ({
  cookies: () => Promise.resolve({ get: () => undefined }),
  headers: () => Promise.resolve(new Headers()),
}));
jest.mock('../people/session', () => ({ signedIn: jest.fn() }));
jest.mock('../people/trail', () => ({ leaveTrail: jest.fn() }));
const here = signedIn as jest.MockedFunction<typeof signedIn>;
beforeEach(() => here.mockResolvedValue(signedFor()));
const AWAY = new DatabaseAway('a statement: nothing for 2.3 s');

describe('what a page may ask of the server', () => {
  const work = jest.fn((code: string, name: string) => Promise.resolve({ trouble: null, code, name }));
  const rename = action('rename', 'draw', z.tuple([machineCode, text(20)]), whoever(work)) as (
    ...given: unknown[]
  ) => Promise<unknown>;
  beforeEach(() => work.mockClear());

  it.each([
    ['a number for a code', [0, 'Hoist']],
    ['a list for a code', [['G-1'], 'Hoist']],
    ['an object', [{ toString: 'G-1' }, 'Hoist']],
    ['half a character', ['G-1', 'Hoist \ud800']],
    ['a character that is no text', ['G-1', 'Ho\u0000ist']],
    ['too little', ['G-1']],
    ['too much', ['G-1', 'Hoist', 'and more']],
    ['nothing', []],
  ])('%s never reaches it', async (_what, given) => {
    expect(await rename(...given)).toEqual({ trouble: expect.stringMatching(/.+/) });
    expect(work).not.toHaveBeenCalled();
  });

  it('answers, and every failure comes back as a sentence', async () => {
    expect(await rename('G-1', 'Hoist')).toEqual({ trouble: null, code: 'G-1', name: 'Hoist' });
    const said = async (error: Error) => {
      work.mockRejectedValueOnce(error);
      return ((await rename('G-1', 'Hoist')) as { trouble: string }).trouble;
    };
    expect(await said(AWAY)).toMatch(/The database does not answer. Look whether it was kept/);
    expect(await said(new InputError('name', 'is taken'))).toBe('name: is taken.');
    expect(await said(new Error('ER_SECRET at 10.0.0.3'))).toBe(
      'The server failed at this; its log says why. Look whether it was kept before you try again.',
    );
  });

  it('an id is one as the server gives them', () => {
    expect(id.safeParse('01900000-0000-7000-8000-00000000000a').success).toBe(true);
    expect(id.safeParse('01900000-0000-7000-8000-00000000000A').success).toBe(false);
  });
});

describe('a route', () => {
  const ask = (
    handle: Parameters<typeof openRoute>[0],
    init: ConstructorParameters<typeof NextRequest>[1] = {},
  ) => openRoute(handle)(new NextRequest('http://127.0.0.1/api/x', init), { params: Promise.resolve({}) });

  it.each([
    [AWAY, 503, 'away'],
    [new InputError('code', 'is none'), 400, 'bad-input'],
    [new Refused(404, 'not-found', 'There is no job 9.'), 404, 'not-found'],
    [new Refused(503, 'busy', 'Its hands are full.', 5), 503, 'busy'],
    [new TypeError('x is not a function'), 500, 'failed'],
  ])('answers %s with a status and a sentence', async (error, status, code) => {
    const answer = await ask(() => Promise.reject(error));
    expect(answer.status).toBe(status);
    const body = (await answer.json()) as { code: string; message: string };
    expect(body.code).toBe(code);
    expect(body.message).toMatch(/^[A-Z].*\.$|^code: is none\.$/);
    expect(body.message).not.toMatch(/is not a function/);
    if (status === 503) expect(answer.headers.get('retry-after')).toMatch(/^[25]$/);
  });

  it('a thing that is not there is 404', async () => {
    const answer = await ask(() => Promise.resolve(found<Response>(null, 'There is no job 9.')));
    expect([answer.status, await answer.json()]).toEqual([
      404,
      { code: 'not-found', message: 'There is no job 9.' },
    ]);
  });

  it('a body is counted as it comes in, announced or not, and one that came in cut is told so', async () => {
    const read = (init: ConstructorParameters<typeof NextRequest>[1]) =>
      ask(async (request) => new Response(await bodyOf(request, 1000, 'The picture')), {
        method: 'POST',
        ...init,
      });
    expect((await read({ body: 'x'.repeat(1000) })).status).toBe(200);
    const large = await read({ body: 'x'.repeat(1001) });
    expect([large.status, await large.json()]).toEqual([
      413,
      { code: 'too-large', message: 'The picture is over 1 kB; the server takes no larger one.' },
    ]);
    expect((await read({ body: 'x', headers: { 'content-length': '5000' } })).status).toBe(413);
    const cut = await read({ body: 'x', headers: { 'content-length': '500' } });
    expect([cut.status, ((await cut.json()) as { message: string }).message]).toEqual([
      400,
      'The picture came in cut: 1 of 500 bytes. Send it again.',
    ]);
  });

  it('bytes that are no text are refused', async () => {
    const answer = await ask(async (request) => new Response(await textOf(request, 10, 'The request')), {
      method: 'POST',
      body: new Uint8Array([0xff, 0xfe]),
    });
    expect(answer.status).toBe(400);
  });
});

describe('who asks', () => {
  const work = jest.fn(() => Promise.resolve(new Response('done')));
  const ask = (deed: Parameters<typeof route>[0]) =>
    route(deed, work)(new NextRequest('http://127.0.0.1/api/x'), { params: Promise.resolve({}) });
  const rename = action('rename', 'settle', z.tuple([]), () => Promise.resolve({ trouble: null }));
  beforeEach(() => work.mockClear());

  it('nobody is told to sign in, and the work is not begun', async () => {
    here.mockResolvedValue(null);
    const answer = await ask('look');
    expect([answer.status, await answer.json()]).toEqual([
      401,
      { code: 'signed-out', message: expect.stringMatching(/^Nobody is signed in here any more/) },
    ]);
    expect(await rename()).toMatchObject({ trouble: expect.stringMatching(/Sign in/), signedOut: true });
    expect(work).not.toHaveBeenCalled();
  });

  it('somebody whose role may not is told who may, and it is kept in the trail', async () => {
    const reader = signedFor('Ansgar', { role: 'reader' });
    here.mockResolvedValue(reader);
    const answer = await ask('work');
    expect([answer.status, ((await answer.json()) as { message: string }).message]).toEqual([
      403,
      'A reader does not do this: a learner or a technician or a lead writes into a job.',
    ]);
    expect(leaveTrail).toHaveBeenCalledWith('mayNot', reader, 'GET /api/x');
    expect(work).not.toHaveBeenCalled();
    expect((await rename()) as object).toMatchObject({
      trouble: 'A reader does not do this: a lead settles what the site allows.',
    });
    expect((await ask('look')).status).toBe(200);
  });

  it('who came with a first word changes it, and does nothing else before', async () => {
    here.mockResolvedValue({ ...signedFor('Lead', { role: 'lead' }), oneTime: true });
    expect((await ask('look')).status).toBe(403);
    expect((await ask('own')).status).toBe(200);
  });
});
