import { findJob } from './jobs';
import { jobsWithCodes, mergeBook, putBookRow, readBook, removeBookRow } from './codeBook';
import { closePool } from './pool';
import { seedAfresh } from './testing/seedAfresh';

beforeAll(seedAfresh);
afterAll(closePool);

describe('code books', () => {
  const row = {
    system: 'maker',
    code: '31',
    mode: '',
    means: 5,
    text: 'Stop',
    function: '',
    part: '',
    sheet: '',
    note: '',
  } as const;

  it('take in lines, put new ones in the place of old, and let go of them', async () => {
    const machine = (await findJob(412))!.machine_id;
    await mergeBook(machine, [row, { ...row, code: '32' }]);
    await mergeBook(machine, [{ ...row, text: 'Stop relay' }]);
    expect((await readBook(machine)).map(({ code, text }) => [code, text])).toEqual([
      ['31', 'Stop relay'],
      ['32', 'Stop'],
    ]);
    const [first] = await readBook(machine);
    await putBookRow(machine, { ...row, text: 'Stop coil' }, first!.id);
    expect((await readBook(machine))[0]!.text).toBe('Stop coil');
    for (const { id } of await readBook(machine)) await removeBookRow(machine, id);
    expect(await readBook(machine)).toEqual([]);
  });

  it('know the jobs that had a code, and what it turned out to be', async () => {
    const { machine_id } = (await findJob(398))!;
    const [past] = await jobsWithCodes(['14-5', 'P0001'], machine_id, 10);
    expect(past).toMatchObject({ code_key: '14-5', number: 398, decision: { part: 'X31.2' } });
    expect(await jobsWithCodes([], machine_id, 10)).toEqual([]);
  });
});
