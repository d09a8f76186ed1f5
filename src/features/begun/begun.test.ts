import 'fake-indexeddb/auto';
import { demoCircuit } from '@/testing/demoCircuits';
import { CircuitModel } from '@/core/circuit/model';
import { trialKey } from '@/core/job/firstEntries';
import { seenWork } from '@/core/job/seenWork';
import { waitingStore } from '../desk/log/waitingStore';
import { factsOfBegun, type BegunFacts } from './begunFacts';
import { beginHere } from './beginHere';
import { findBegun, listBegun } from './begunStore';
import { begunTransport } from './begunTransport';
import { BEGIN } from '../offline/caches';
import { listBegin } from './keepBegin';

const FUNCTION = '0192f1a0-0000-7000-8000-000000000001';
const circuit = demoCircuit('groomer-tiller-float');
const me = { name: 'Ilse', role: 'technician' as const, licences: [] };
const facts = {
  functionId: FUNCTION,
  openedOnVersion: 3,
  circuit,
  machineCode: 'G-1',
  machineName: 'Groomer',
  functionName: 'Tiller float valve',
  me,
} as unknown as BegunFacts;
const asked = (id: string) => ({
  id,
  openedAt: '2026-11-20T08:00:00.000Z',
  functionId: FUNCTION,
  title: 'Float dead',
  words: '',
  answers: { [trialKey(seenWork(new CircuitModel(circuit))[0]!)]: 'dead' as const },
});

/** What the browser keeps by address. */
const cached = new Map<string, string>([[`/api/functions/${FUNCTION}/begin`, JSON.stringify(facts)]]);
const calls: { path: string; body: unknown }[] = [];
let answers: Record<string, { status: number; body: object } | 'away'> = {};
Object.assign(globalThis, {
  caches: {
    open: (name: string) =>
      Promise.resolve({
        match: (asked: string | { url: string }) => {
          const text = name === BEGIN ? cached.get(typeof asked === 'string' ? asked : asked.url) : undefined;
          return Promise.resolve(text === undefined ? undefined : new Response(text));
        },
        keys: () => Promise.resolve([...cached.keys()].map((url) => ({ url }))),
      }),
  },
  localStorage: { getItem: () => null, setItem: () => undefined, removeItem: () => undefined },
  fetch: (path: string, init?: { body?: string }) => {
    calls.push({ path, body: init?.body === undefined ? null : JSON.parse(init.body) });
    const answer = answers[path] ?? 'away';
    return answer === 'away'
      ? Promise.reject(new TypeError('no network'))
      : Promise.resolve(new Response(JSON.stringify(answer.body), { status: answer.status }));
  },
});
const id = (last: number) => `0192f1a0-0000-7000-8000-00000000010${last}`;
const entriesOf = async (local: number) => (await waitingStore(-local).load()).map(({ entry }) => entry);
const begun = async (last: number) => {
  const done = await beginHere(asked(id(last)), me);
  if ('trouble' in done) throw new Error(done.trouble);
  return done.local;
};

beforeEach(() => {
  calls.length = 0;
  answers = {};
});

describe('a job begun without the server', () => {
  it('lies here with its facts and what the form said, once, however often the key is tapped', async () => {
    const local = await begun(1);
    expect(await begun(1)).toBe(local);
    const job = (await findBegun(local))!;
    expect(factsOfBegun(job)).toMatchObject({ id: id(1), number: -local, title: 'Float dead', stored: [] });
    expect((await entriesOf(local)).map(({ type, person }) => `${type} ${person}`)).toEqual([
      'complaint Ilse',
      'reading Ilse',
    ]);
    expect(await listBegin()).toEqual([{ id: FUNCTION, machine: 'G-1 Groomer', name: 'Tiller float valve' }]);
  });

  it.each([
    ['nobody is signed in', null, {}, /Nobody is signed in/],
    ['a reader asks', { ...me, role: 'reader' as const }, {}, /reader/i],
    ['nothing is said', me, { title: ' ' }, /what fails/],
    ['its function is not kept', me, { functionId: id(9) }, /not kept on this device/],
  ])('is refused with a sentence where %s', async (_why, who, changes, words) => {
    const done = await beginHere({ ...asked(id(8)), ...changes }, who);
    expect('trouble' in done ? done.trouble : '').toMatch(words);
    expect((await listBegun()).some((job) => job.id === id(8))).toBe(false);
  });
});

describe('its way to the server', () => {
  const session = { '/api/session': { status: 200, body: { name: 'Ilse' } } };

  it('opens it first, under its own id, and then sends what was written, to the number it was given', async () => {
    const local = await begun(2);
    const entries = await entriesOf(local);
    const results = entries.map((one, at) => ({ id: one.id, state: 'added', number: at + 1 }));
    answers = {
      ...session,
      '/api/jobs': { status: 200, body: { number: 431 } },
      '/api/jobs/431/entries': { status: 200, body: { added: 2, results } },
    };
    expect(await begunTransport(local).send(entries)).toEqual({ added: 2, results });
    expect(calls.map(({ path }) => path)).toEqual(['/api/session', '/api/jobs', '/api/jobs/431/entries']);
    expect(calls[1]!.body).toMatchObject({
      id: id(2),
      functionId: FUNCTION,
      functionVersion: 3,
      title: 'Float dead',
    });
    expect((await findBegun(local))!.number).toBe(431);
    expect((await listBegun()).map((job) => job.local)).not.toContain(local);
    // The second time it is known already.
    calls.length = 0;
    await begunTransport(local).send(entries);
    expect(calls.map(({ path }) => path)).toEqual(['/api/jobs/431/entries']);
  });

  it('waits where the server is away, full, or somebody else is signed in; nothing is opened in their name', async () => {
    const local = await begun(3);
    const entries = await entriesOf(local);
    await expect(begunTransport(local).send(entries)).rejects.toThrow();
    answers = { ...session, '/api/jobs': { status: 503, body: { message: 'Full.' } } };
    expect(await begunTransport(local).send(entries)).toBeNull();
    answers = { '/api/session': { status: 200, body: { name: 'Tove' } } };
    calls.length = 0;
    expect(await begunTransport(local).send(entries)).toBe('signedOut');
    answers = { '/api/session': { status: 401, body: {} } };
    expect(await begunTransport(local).send(entries)).toBe('signedOut');
    expect(calls.every(({ path }) => path === '/api/session')).toBe(true);
    expect((await findBegun(local))!.number).toBeNull();
  });

  it('says of each entry why the server will not have the job, and loses none', async () => {
    const local = await begun(4);
    const entries = await entriesOf(local);
    answers = {
      ...session,
      '/api/jobs': { status: 404, body: { code: 'not-found', message: 'No such drawing.' } },
    };
    expect(await begunTransport(local).send(entries)).toMatchObject({
      added: 0,
      results: entries.map((one) => ({ id: one.id, state: 'refused', message: 'No such drawing.' })),
    });
    expect(await entriesOf(local)).toHaveLength(2);
  });
});
