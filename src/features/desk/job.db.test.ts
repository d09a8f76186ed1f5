import { v7 as uuidv7 } from 'uuid';
import { CircuitModel } from '@/core/circuit/model';
import { firstEntries } from '@/core/job/firstEntries';
import type { Entry } from '@/core/job/entries';
import { reduceJob } from '@/core/job/reduceJob';
import { unpackRuns } from '@/core/job/jobDigest';
import { testKey } from '@/core/diagnosis/observations';
import { appendEntries, readEntries } from '@/db/entries';
import { defectsOf } from '@/db/digests';
import { findJob } from '@/db/jobs';
import { closePool, pool } from '@/db/pool';
import { seedAfresh } from '@/db/testing/seedAfresh';
import { functionsBehind, pastJobsWith } from '../codes/server';
import { jobDocument, readingTable, reportOf, tagSheet } from '../handover/server';
import { findOnMachine } from '../locate/server';
import { findAnything } from '../palette/server';
import { openPolicy, settlePolicy } from '../policy/server';
import { openShed } from '../shed/server';
import { refreshDigest } from './digests';
import { putSetting } from '@/db/settings';
import { openRules, openTables, settleRules } from '../tables/server';
import { appendToJob, entriesAfter, entryEvents } from './entriesServer';
import { functionChoices, trialsOfFunction } from './functionChoices';
import { firstEntryId } from './firstEntryId';
import { openBegunJob, openNewJob } from './newJob';
import type { NewJob } from './newJobSchema';
import { begunFacts, jobFacts } from './server';
import { signedFor } from '../people/testing/signedFor';

jest.mock('next/cache', () => ({ revalidatePath: jest.fn() }));
jest.mock('next/navigation', () => ({
  redirect: (to: string) => {
    throw new Error(`redirect ${to}`);
  },
}));

const who = signedFor();
const entry = (body: object, type = 'reading'): Entry =>
  ({ id: uuidv7(), at: new Date().toISOString(), person: 'Tove', type, body }) as Entry;
const ohms = (from: string, value: number | 'OL', setup: object = { pulled: ['F7'] }) =>
  entry({ reading: { kind: 'ohms', from, to: 'GND', setup, value }, typed: String(value) });
const send = (entries: unknown[], number = '417') => appendToJob(number, JSON.stringify({ entries }), who);
const stored = async (number: number) => (await readEntries((await findJob(number))!.id)).length;
const newJob = (fields: Partial<NewJob>) =>
  openNewJob(who, {
    id: uuidv7(),
    openedAt: new Date().toISOString(),
    functionId: '',
    title: '',
    words: '',
    ...fields,
  });

beforeAll(seedAfresh);
afterAll(closePool);

describe('entries that a browser sends', () => {
  it('are added once, however often they come', async () => {
    const one = ohms('X8:1', 31.4);
    const before = await stored(417);
    expect(await send([one])).toMatchObject({ added: 1, results: [{ id: one.id, state: 'added' }] });
    expect(await send([one])).toMatchObject({ added: 0, results: [{ id: one.id, state: 'known' }] });
    expect(await stored(417)).toBe(before + 1);
    const other = { ...one, body: { ...one.body, typed: 'another' } };
    expect(await send([other])).toMatchObject({ problem: { code: 'conflict' } });
  });

  it.each([
    ['no JSON', 'entries', /not JSON/],
    ['an empty list', JSON.stringify({ entries: [] }), /entries/],
    ['a point that is not on the drawing', JSON.stringify({ entries: [ohms('X99:1', 3)] }), /X99:1/],
    ['ohms on a live run', JSON.stringify({ entries: [ohms('B+', 3, {})] }), /powered|live/i],
    ['a word for a value', JSON.stringify({ entries: [ohms('X8:1', 'wet' as 'OL')] }), /value|entries/],
  ])('are refused whole: %s', async (_what, text, words) => {
    const before = await stored(417);
    const answer = await appendToJob('417', text, who);
    expect(answer).toMatchObject({ problem: { code: 'bad-input', message: expect.stringMatching(words) } });
    expect(await stored(417)).toBe(before);
  });

  it('come back in pieces, each told by the number before it', async () => {
    const all = await readEntries((await findJob(417))!.id);
    expect(await entriesAfter('417', '0')).toEqual({ entries: all });
    expect(await entriesAfter('417', '2')).toEqual({ entries: all.slice(2) });
    expect(await entriesAfter('417', String(all.length))).toEqual({ entries: [] });
    expect(await entriesAfter('417', '-1')).toMatchObject({ problem: { code: 'bad-input' } });
    expect(await entriesAfter('99999', '0')).toMatchObject({ problem: { code: 'no-job' } });
  });

  it('belong to a job that there is', async () => {
    expect(await send([ohms('X8:1', 3)], '99999')).toMatchObject({ problem: { code: 'no-job' } });
    expect(await send([ohms('X8:1', 3)], 'x')).toMatchObject({ problem: { code: 'no-job' } });
    expect(await entryEvents('417', 'yesterday')).toMatchObject({ problem: { code: 'bad-input' } });
    expect(await entryEvents('99999', '0')).toMatchObject({ problem: { code: 'no-job' } });
  });

  it('reach whoever has the job open', async () => {
    const leave = new AbortController();
    const last = (await readEntries((await findJob(416))!.id)).at(-1)?.number ?? 0;
    const opened = await entryEvents('416', String(last));
    if ('problem' in opened) throw new Error(opened.problem.message);
    const reader = opened.stream(leave.signal).getReader();
    const looked = entry({ check: 'plug X1 seated', finding: 'good' }, 'looked');
    await send([looked], '416');
    let seen = '';
    while (!seen.includes(looked.id)) seen += new TextDecoder().decode((await reader.read()).value);
    expect(seen).toMatch(/^data: /);
    leave.abort();
    while (!(await reader.read()).done);
  });
});

describe('a job as its screens get it', () => {
  it('comes with what closed jobs ended with and the shop’s own marks', async () => {
    const closed = (await jobFacts('398', who))!;
    const [choice] = (await functionChoices()).functions.filter(
      ({ name, machine }) => name === closed.functionName && machine.startsWith(closed.machineCode),
    );
    await expect(newJob({ functionId: choice!.id, title: 'Tiller float weak', words: '' })).rejects.toThrow(
      /redirect \/jobs\/\d+/,
    );
    const number = String((await openShed({ text: 'Tiller float weak' }, undefined)).jobs[0]!.number);
    const open = (await jobFacts(number, who))!;
    const { after } = reduceJob(closed.stored.map((one) => one.entry));
    expect(after.length).toBeGreaterThan(2);
    for (const { reading } of after)
      expect(open.past.baselines).toContainEqual({
        key: testKey(reading),
        value: reading.value,
        jobNumber: 398,
        at: expect.any(String),
      });
    // Its own readings are no baseline of itself.
    expect(closed.past.baselines).toEqual([]);
    expect(open.marks.drops.joint).toEqual({ good: 0.05, repair: 0.1 });
    expect(
      await settleRules({ 'contact-drops|One crimp, lug or bolted joint|repair': 0.2 }, 'Rasmus'),
    ).toEqual({ trouble: null });
    expect((await jobFacts(number, who))!.marks.drops.joint).toEqual({ good: 0.05, repair: 0.2 });
    expect(await jobFacts('99999', who)).toBeNull();
    expect(await jobFacts('1; DROP TABLE jobs', who)).toBeNull();
  });

  it('opens from what works and what does not', async () => {
    const [choice] = (await functionChoices()).functions.filter(({ name }) => /tilt/i.test(name));
    const [first, second] = (await trialsOfFunction(choice!.id))!;
    await expect(
      newJob({
        functionId: choice!.id,
        title: 'Tilts one way',
        words: 'since this morning',
        answers: { [first!.key]: 'works', [second!.key]: 'dead' },
      }),
    ).rejects.toThrow(/redirect/);
    const [made] = (await openShed({ text: 'Tilts one way' }, undefined)).jobs;
    const { complaint, readings } = reduceJob(
      (await readEntries((await findJob(made!.number))!.id)).map(({ entry: one }) => one),
    );
    expect(complaint).toBe('since this morning');
    expect(readings.map(({ reading }) => reading.value)).toEqual(['works', 'dead']);
    const [rows] = await pool().query(
      'SELECT DISTINCT e.account_id, e.device_id FROM entries e JOIN jobs j ON j.id = e.job_id WHERE j.number = ?',
      [made!.number],
    );
    expect(rows).toEqual([{ account_id: who.accountId, device_id: who.device.id }]);
  });

  it.each([
    [{ title: 'ab' }, 'title'],
    [{ functionId: 'x' }, 'functionId'],
    [{ functionId: '01900000-0000-7000-8000-000000000000' }, 'functionId'],
  ])('is not opened from a form with %j', async (wrong, field) => {
    const [choice] = (await functionChoices()).functions;
    const fields = { functionId: choice!.id, title: 'Something fails', words: '', ...wrong };
    expect(await newJob(fields)).toMatchObject({ field, trouble: expect.stringMatching(/\.$/) });
  });
});

describe('a job that was begun without the server', () => {
  const begun = (fields: object) => {
    const openedAt = '2026-11-20T08:00:00.000Z';
    return openBegunJob(who, {
      title: 'Begun far out',
      openedAt,
      sentAt: '2026-11-20T11:00:00.000Z',
      ...fields,
    });
  };

  it('is opened once, under its own id, by the drawing it was begun by, at the time that its clock measured', async () => {
    const [choice] = (await functionChoices()).functions;
    const id = uuidv7();
    const facts = (await begunFacts(choice!.id, who))!;
    expect(facts).toMatchObject({ functionId: choice!.id, openedOnVersion: 1, me: { name: who.name } });
    const asked = { id, functionId: choice!.id, functionVersion: 1 };
    const { number } = await begun(asked);
    expect(await begun(asked)).toEqual({ number });
    const job = (await findJob(number))!;
    expect(job).toMatchObject({ id, person: who.name, function_version: 1 });
    // Three hours ago by the device's clock, whatever day that takes it for.
    const ago = Date.now() - job.opened_at.getTime();
    expect(Math.abs(ago - 3 * 3_600_000)).toBeLessThan(60_000);
    expect(await begunFacts(uuidv7(), who)).toBeNull();
  });

  it('that the form had sent already stands there once, with its words once', async () => {
    const [choice] = (await functionChoices()).functions;
    const asked = {
      id: uuidv7(),
      openedAt: new Date().toISOString(),
      functionId: choice!.id,
      title: 'Heard, not answered',
    };
    await expect(newJob(asked)).rejects.toThrow(/redirect/);
    const { number } = await begun({ ...asked, functionVersion: 1 });
    const job = (await findJob(number))!;
    expect(job.id).toBe(asked.id);
    const [complaint, ...more] = (await readEntries(job.id)).map(({ entry: one }) => one);
    expect(more).toEqual([]);
    // As the device made it.
    const own = firstEntries(
      new CircuitModel(job.circuit),
      { title: asked.title, words: '', answers: {} },
      { person: who.name, openedAt: asked.openedAt, idOf: (at) => firstEntryId(asked.id, at) },
    );
    expect(await send(own, String(number))).toMatchObject({
      added: 0,
      results: [{ id: complaint!.id, state: 'known' }],
    });
  });

  it('is refused with a sentence where its drawing is gone or it is none', async () => {
    const [choice] = (await functionChoices()).functions;
    await expect(begun({ id: uuidv7(), functionId: choice!.id, functionVersion: 99 })).rejects.toMatchObject({
      status: 404,
      message: expect.stringMatching(/drawing .*\.$/),
    });
    await expect(begun({ id: 'x', functionId: choice!.id, functionVersion: 1 })).rejects.toThrow();
  });
});

describe('the shed', () => {
  it('finds jobs and machines by a word, and pages without skipping', async () => {
    const found = await findAnything('G-2');
    expect(found.machines.map(({ code }) => code)).toContain('G-2');
    expect(found.jobs.length).toBeGreaterThan(0);
    const after = async (number: number) => {
      const last = (await findJob(number))!;
      return openShed({}, { openedAt: last.opened_at, id: last.id });
    };
    const all: number[] = [];
    let page = await openShed({}, undefined);
    const { total } = page;
    while (page.jobs.length > 0) {
      all.push(...page.jobs.map(({ number }) => number));
      page = await after(all.at(-1)!);
    }
    expect(`${all.length} jobs`).toBe(total);
    expect(new Set(all).size).toBe(all.length);
    const rest = (await after(all[2]!)).jobs.map(({ number }) => number);
    expect(rest).toEqual(all.slice(3, 3 + rest.length));
  });

  it('says of every job what is to be done next, kept with the job and never worked out while a page waits', async () => {
    const { jobs } = await openShed({}, undefined);
    for (const { number, digest } of jobs.filter((one) => one.number < 419)) {
      expect([number, digest?.next]).toEqual([
        number,
        expect.stringMatching(/^(Test|Decide|Fix|Prove|Hand)/),
      ]);
      expect(unpackRuns(digest!.path).length).toBeGreaterThan(2);
    }
  });

  it('tells of a machine that went out without what a tablet knew of it, on its row and on its machine', async () => {
    const job = (await findJob(397))!;
    const put = entry({ item: 'jumper at X4', kind: 'jumper' }, 'ledger');
    await appendEntries(job.id, [put]);
    await refreshDigest(job.id);
    const [row] = (await openShed({ text: '397' }, undefined)).jobs;
    const words = `handed over before this came: something put in: jumper at X4, ${put.person}`;
    expect(row).toMatchObject({
      number: 397,
      digest: { next: 'Look at what came, and hand over anew', defects: [words] },
    });
    expect(await defectsOf(job.machine_id)).toContainEqual({ job: 397, text: words });
  });

  it('never shows a digest of a log, a policy or a drawing that is not the one there is', async () => {
    const { jobs } = await openShed({}, undefined);
    const live = jobs.find(({ digest }) => /volts/.test(digest?.next ?? ''))!;
    const digestNow = async () => (await openShed({ text: String(live.number) }, undefined)).jobs[0]!.digest;
    const job = (await findJob(live.number))!;
    await refreshDigest(job.id);
    const before = (await digestNow())!;
    await appendEntries(job.id, [entry({ check: 'x', finding: 'good' }, 'looked')]);
    expect(await digestNow()).toBeNull();
    await refreshDigest(job.id);
    expect(await digestNow()).toEqual(before);
    const { policy } = await openPolicy();
    // Live work is forbidden from now on: the test that the shed names must be another.
    expect(await settlePolicy({ ...policy, liveWork: false }, 'Henrike')).toEqual({ trouble: null });
    expect(await digestNow()).toBeNull();
    await refreshDigest(job.id);
    const after = (await digestNow())!;
    expect(before.next).toMatch(/volts/);
    expect(after.next).not.toMatch(/volts/);
    await settlePolicy(policy, 'Henrike');
  });

  it('finds a part by its reference, its name and its square, whole references first', async () => {
    const { machineId } = (await jobFacts('417', who))!;
    const found = await findOnMachine(machineId, 'f7');
    expect(found[0]!.ref).toBe('F7');
    const [tilt] = await findOnMachine(machineId, 'tilt right coil');
    expect(tilt).toMatchObject({ ref: 'Y8' });
    expect(await findOnMachine(machineId, '   ')).toEqual([]);
    expect(await findOnMachine(machineId, 'no such thing')).toEqual([]);
  });
});

describe('what leaves the house', () => {
  it('is a report with evidence and its times on the site’s clock', async () => {
    const summer = await reportOf('398');
    expect(summer!.closed).toMatch(/^\d{4}-\d\d-\d\d \d\d:\d\d$/);
    expect(
      await settlePolicy({ ...(await openPolicy()).policy, timeZone: 'Pacific/Auckland' }, 'Rasmus'),
    ).toEqual({
      trouble: null,
    });
    const there = await reportOf('398');
    expect(there!.closed).not.toBe(summer!.closed);
    expect(await settlePolicy({ timeZone: 'Ridge time' }, 'Rasmus')).toEqual({
      trouble: 'Clock of the site: is no time zone; write one such as Europe/Vienna',
    });
    expect(await reportOf('99999')).toBeNull();
  });

  it('is everything of the job as one document and its readings as a table', async () => {
    const whole = (await jobDocument('398')) as { format: string; entries: Entry[]; job: object };
    expect(whole.format).toBe('spiraxis-job');
    expect(whole.job).not.toHaveProperty('id');
    const table = (await readingTable('398'))!;
    const readings = whole.entries.filter(({ type }) => type === 'reading');
    expect(table.trim().split('\n')).toHaveLength(readings.length + 1);
    expect(table.split('\n')[0]).toMatch(/^time,person,kind,place,value/);
    expect((await tagSheet('417'))!.plan.length).toBeGreaterThan(0);
    expect(await tagSheet('99999')).toBeNull();
  });
});

describe('codes', () => {
  it('lead to the functions they may be about and the jobs that had them', async () => {
    const { machineId, functionName } = (await jobFacts('398', who))!;
    const behind = await functionsBehind({ machineId, mode: 5, links: [] });
    expect(behind.map((one) => one.function)).toContain(functionName);
    const shares = behind.map(({ share }) => share);
    expect(shares).toEqual(shares.toSorted((a, b) => b - a));
    const silent = await functionsBehind({ machineId, mode: 5, links: [{ function: 'No such', part: '' }] });
    expect(silent).toEqual([]);
    for (const { number } of await pastJobsWith(machineId, ['14-5', '14-6'], 398))
      expect(number).not.toBe(398);
  });
});

describe('shop rules', () => {
  it('are figures of the tables’ practice columns, settled by name', async () => {
    expect((await settleRules({ 'insulation|0|megohms': 2 }, 'Rasmus')).trouble).toMatch(
      /a standard’s figure/,
    );
    expect(
      (await settleRules({ 'contact-drops|One crimp, lug or bolted joint|good': -1 }, 'Rasmus')).trouble,
    ).toBe('A figure is a number from 0 up.');
    expect(
      await settleRules({ 'contact-drops|One crimp, lug or bolted joint|good': 0.04 }, 'Rasmus'),
    ).toEqual({ trouble: null });
    expect(await openRules()).toEqual({
      rules: { 'contact-drops|One crimp, lug or bolted joint|good': 0.04 },
      by: 'Rasmus',
    });
    const least = 'insulation|Up to 500 V|megohms';
    expect((await settleRules({ [least]: 0.2 }, 'Rasmus')).trouble).toBe(
      'Up to 500 V: 0.2 is less than the standard’s 1; a shop may ask for more only.',
    );
    expect((await settleRules({ [`${least}| `]: 2 }, 'Rasmus')).trouble).toMatch(/names no class/);
    const winches = { 'contact-drops|One closed heavy contact, DC|good|Winch': 0.07 };
    expect(await settleRules(winches, 'Rasmus')).toEqual({ trouble: null });
    expect((await openTables()).equipment).toContain('Winch');
    // A rule of a row that is called otherwise by now stays, and does not stand in the way of others.
    await putSetting('tables', { ...winches, 'contact-drops|A row of before|good': 0.3 }, 'Rasmus');
    const { rules } = await openRules();
    expect(
      await settleRules({ ...rules, 'contact-drops|One crimp, lug or bolted joint|good': 0.03 }, 'Rasmus'),
    ).toEqual({
      trouble: null,
    });
    expect((await openRules()).rules).toMatchObject({ 'contact-drops|A row of before|good': 0.3 });
  });
});
