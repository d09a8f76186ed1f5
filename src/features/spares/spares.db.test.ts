import { v7 as uuidv7 } from 'uuid';
import { findJob } from '@/db/jobs';
import { closePool } from '@/db/pool';
import {
  askForSpare,
  countSpares,
  findSpare,
  listRequisitions,
  listSpares,
  movesOf,
  moveSpare,
  putSpare,
  SpareNumberTaken,
  stepRequisition,
  type SpareFacts,
} from '@/db/spares';
import { seedAfresh } from '@/db/testing/seedAfresh';
import { entryWriter, fitted } from '@/core/testing/entryWriter';
import { takeFitted } from './takeFitted';
import { movePieces, openSpare, sparesFor, stepOn } from './server';
import { somebody } from '@/core/testing/signedAs';

jest.mock('next/cache', () => ({ revalidatePath: jest.fn() }));
jest.mock('../serverLog', () => ({ log: { info: jest.fn(), warn: jest.fn(), error: jest.fn() } }));

const card = (number: string, more: Partial<SpareFacts> = {}): SpareFacts => ({
  number,
  name: 'Coil',
  kind: 'coil',
  ratings: { volts: 12, current: 'DC', ohms: 7.4 },
  fitting: '2-pin',
  place: 'Rack A',
  minimum: 2,
  price: 62,
  leadDays: 5,
  supplier: '',
  ...more,
});
const at = new Date('2026-11-20T08:00:00Z');
const stockOf = async (number: string) => (await findSpare(number))!.stock;

beforeAll(seedAfresh);
afterAll(closePool);

describe('the shelf', () => {
  it('keeps a card for each number, and refuses one that is taken', async () => {
    const id = await putSpare(null, card('OR-1'));
    await expect(putSpare(null, card('OR-1'))).rejects.toThrow(SpareNumberTaken);
    await putSpare(id, card('OR-1', { place: 'Rack B' }));
    expect(await findSpare('OR-1')).toMatchObject({ place: 'Rack B', stock: 0, price: 62 });
    expect((await listSpares(10, { text: 'rack b' })).map(({ number }) => number)).toEqual(['OR-1']);
    expect(await listSpares(10, { text: '%' })).toEqual([]);
    expect(await countSpares()).toEqual({ all: 1, low: 1 });
  });

  it('a fitted spare goes off the shelf once however often its entry comes, and is asked for under its minimum', async () => {
    const spareId = await putSpare(null, card('OR-2'));
    await moveSpare({ spareId, pieces: 2, why: 'counted', person: 'Ilse', at });
    const { id: jobId } = (await findJob(411))!;
    const write = entryWriter();
    const fix = { ...write('fix', fitted('Y7', { spare: 'OR-2' })), id: uuidv7() };
    await takeFitted(jobId, [fix], at);
    await takeFitted(jobId, [fix], at);
    expect(await stockOf('OR-2')).toBe(1);
    const open = (await listRequisitions(10, true)).filter(({ spare_number }) => spare_number === 'OR-2');
    expect(open).toEqual([expect.objectContaining({ pieces: 3, state: 'asked', job: 411, machine: 'G-4' })]);
    // Taken back, it is there again; what was asked for is for people to judge.
    const back = { ...write('withdrawal', {}, { supersedes: fix.id }), id: uuidv7() };
    await takeFitted(jobId, [back], at);
    await takeFitted(jobId, [back], at);
    expect(await stockOf('OR-2')).toBe(2);
    // A number that no card has is somebody's own part.
    await takeFitted(jobId, [{ ...write('fix', fitted('Y7', { spare: 'from the van' })), id: uuidv7() }], at);
    expect((await movesOf(spareId, 10)).map(({ pieces }) => pieces).sort()).toEqual([-1, 1, 2]);
  });

  it('what is asked for goes step by step, and is on the shelf when it is received', async () => {
    const spareId = await putSpare(null, card('OR-3'));
    const number = await askForSpare({ spareId, pieces: 2, person: 'Tove', at });
    const step = (state: 'approved' | 'ordered' | 'received' | 'refused') =>
      stepRequisition(number, { state, person: 'Henrike', at, note: '' }, '2026-11-21');
    expect(await step('received')).toBeNull();
    expect(await step('approved')).toBe('approved');
    expect(await step('ordered')).toBe('ordered');
    // Five days after the site's day, whatever day it was by the server's clock.
    const row = (await listRequisitions(10, true)).find((one) => one.number === number);
    expect(row).toMatchObject({ due: '2026-11-26', person: 'Henrike' });
    expect(await step('received')).toBe('received');
    expect(await step('received')).toBeNull();
    expect(await stockOf('OR-3')).toBe(2);
    expect((await stepOn(number, 'approved', somebody('Henrike', { role: 'lead' }), '')).trouble).toContain(
      `Requisition ${number}`,
    );
    expect((await listRequisitions(10, false)).map((one) => one.number)).toContain(number);
  });

  it('no more goes by hand than is there', async () => {
    await putSpare(null, card('OR-4'));
    expect((await movePieces('OR-4', -1, 'sentBack', 'Ilse')).trouble).toContain('0 are on the shelf');
    expect((await movePieces('OR-4', 0, 'counted', 'Ilse')).trouble).toContain('No piece');
    expect((await movePieces('OR-9', 1, 'counted', 'Ilse')).trouble).toContain('no spare OR-9');
    expect(await movePieces('OR-4', 3, 'counted', 'Ilse')).toEqual({ trouble: null });
    expect(await stockOf('OR-4')).toBe(3);
  });

  it('offers for a part what its own circuit asks for, the best first, and says why not', async () => {
    const { circuit } = (await findJob(411))!;
    const coil = circuit.parts.find(({ ref }) => ref === 'Y7')!;
    const ohms = coil.kind === 'coil' ? coil.ohms! : NaN;
    const volts = circuit.parts.some((part) => part.kind === 'source' && part.volts > 20) ? 24 : 12;
    await putSpare(null, card('OR-5', { ratings: { volts, current: 'DC', ohms } }));
    await putSpare(null, card('OR-6', { ratings: { volts, current: 'AC', ohms } }));
    const offered = (await sparesFor('411', 'Y7'))!;
    expect(offered[0]).toMatchObject({ number: 'OR-5', fit: 'fits', differs: [] });
    expect(offered.find(({ number }) => number === 'OR-6')).toMatchObject({
      fit: 'doesNot',
      differs: ['AC where DC is wanted'],
    });
    expect(await sparesFor('411', 'Y99')).toBeNull();
    expect(await sparesFor('9999', 'Y7')).toBeNull();
  });

  it('says on its card what could stand in for it, another plug named', async () => {
    for (const [number, more] of [
      ['OR-40', { ratings: { volts: 48, current: 'DC', ohms: 60 } }],
      ['OR-41', { ratings: { volts: 48, current: 'DC', ohms: 62 }, fitting: '2-PIN' }],
      ['OR-42', { ratings: { volts: 48, current: 'DC', ohms: 60 }, fitting: '3-pin' }],
      ['OR-43', { ratings: { volts: 36, current: 'DC', ohms: 60 } }],
    ] as const)
      await putSpare(null, card(number, more));
    const { standIns } = (await openSpare('OR-40'))!;
    expect(standIns.map(({ number, fit, differs }) => [number, fit, differs])).toEqual([
      ['OR-41', 'fits', []],
      ['OR-42', 'askLabel', ['3-pin where 2-pin is wanted']],
    ]);
    expect(await openSpare('OR-99')).toBeNull();
  });
});
