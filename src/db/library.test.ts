import type { RowDataPacket } from 'mysql2/promise';
import { v7 as uuidv7 } from 'uuid';
import { changePart } from '@/core/draw/editCircuit';
import { emptyDrawing, layChains } from '@/core/draw/layChain';
import { addDrawing, dropDrawing, dropPin, listDrawings, putPin } from './drawings';
import { findJob, findMachine, insertJob } from './jobs';
import {
  addFunction,
  addMachine,
  addMachineWhole,
  drawnFunctions,
  dropFunction,
  findFunction,
  keepVersions,
  listVersions,
  NameTaken,
  readVersion,
  VersionConflict,
} from './library';
import { closePool, pool } from './pool';
import { putPhoto } from './photos';
import { seedAfresh } from './testing/seedAfresh';

const circuit = layChains(
  emptyDrawing('Lift'),
  'battery 12, fuse F1 5, key switch, plug X1, coil Y1 9, ground',
).circuit;
const wider = changePart(circuit, 'F1', { amps: 7.5 });
const fresh = (machineId: string, name: string) => ({
  machineId,
  name,
  circuit,
  person: 'Henrike',
  note: '',
});

let machineId = '';
beforeAll(async () => {
  await seedAfresh();
  machineId = await addMachine({ code: 'Q-9', name: 'Bench' });
});
afterAll(closePool);

describe('versions of a drawing', () => {
  it('begin at one, go up, and keep every one before', async () => {
    const id = await addFunction(fresh(machineId, 'Lift'));
    expect(
      await keepVersions([{ functionId: id, basedOn: 1, circuit: wider }], 'Tove', 'as on the plate'),
    ).toEqual([2]);
    expect(await findFunction(id)).toMatchObject({ version: 2, circuit: wider });
    expect(await readVersion(id, 1)).toEqual(circuit);
    expect(await readVersion(id, 3)).toBeNull();
    expect((await listVersions(id)).map(({ version, person, note }) => [version, person, note])).toEqual([
      [2, 'Tove', 'as on the plate'],
      [1, 'Henrike', ''],
    ]);
  });

  it('are refused where somebody was faster, and then none of the batch is kept', async () => {
    const [one, other] = [
      await addFunction(fresh(machineId, 'One')),
      await addFunction(fresh(machineId, 'Other')),
    ];
    await keepVersions([{ functionId: other, basedOn: 1, circuit: wider }], 'Tove', '');
    const late = keepVersions(
      [
        { functionId: one, basedOn: 1, circuit: wider },
        { functionId: other, basedOn: 1, circuit: wider },
      ],
      'Ilse',
      '',
    );
    await expect(late).rejects.toThrow(VersionConflict);
    await expect(late).rejects.toThrow(/"Other" has version 2 by now/);
    expect(await findFunction(one)).toMatchObject({ version: 1, circuit });
  });

  it('two people who keep at once get one version and one refusal', async () => {
    const id = await addFunction(fresh(machineId, 'Race'));
    const keep = (person: string) =>
      keepVersions([{ functionId: id, basedOn: 1, circuit: wider }], person, '');
    const done = await Promise.allSettled([keep('Tove'), keep('Ilse')]);
    expect(done.map(({ status }) => status).sort()).toEqual(['fulfilled', 'rejected']);
    expect(await listVersions(id)).toHaveLength(2);
  });

  it('a job keeps the one it was opened on', async () => {
    const id = await addFunction(fresh(machineId, 'Boom'));
    const open = () =>
      insertJob({ id: uuidv7(), functionId: id, title: 'Boom dead', person: null, openedAt: new Date() });
    const before = await open();
    await keepVersions([{ functionId: id, basedOn: 1, circuit: wider, name: 'Boom, up' }], 'Tove', '');
    const after = await open();
    expect(await findJob(before)).toMatchObject({
      function_version: 1,
      newest_version: 2,
      circuit,
      function_name: 'Boom, up',
    });
    expect(await findJob(after)).toMatchObject({ function_version: 2, circuit: wider });
    // With jobs in the record it stays.
    expect(await dropFunction(id)).toBe(false);
    expect(await findFunction(id)).not.toBeNull();
  });

  it('go with their function where no job stands on it', async () => {
    const id = await addFunction(fresh(machineId, 'Short-lived'));
    expect(await dropFunction(id)).toBe(true);
    const [rows] = await pool().query<RowDataPacket[]>(
      'SELECT * FROM function_versions WHERE function_id = ?',
      [id],
    );
    expect(rows).toEqual([]);
  });
});

describe('names', () => {
  it('are each used once: a machine’s code in the shed, a function’s name on its machine', async () => {
    await expect(addMachine({ code: 'Q-9', name: 'Again' })).rejects.toThrow(NameTaken);
    await addFunction(fresh(machineId, 'Twice'));
    await expect(addFunction(fresh(machineId, 'Twice'))).rejects.toThrow(/has a function "Twice" already/);
  });

  it('a machine comes in whole or not at all', async () => {
    const one = { name: 'Same', circuit, person: '', note: '' };
    const empty = {
      code: 'Q-10',
      equipment: null,
      serial: null,
      place: 'Bay 3',
      hours: 7,
      book: [],
      drawings: [],
    };
    // A picture that cannot be kept fails last of all: nothing of the machine may stay.
    const photo = { hash: '0'.repeat(65), kind: 'image/webp', width: 1, height: 1, bytes: Buffer.from('x') };
    const drawings = [{ name: 'Sheet', photo, pins: [] }];
    await expect(addMachineWhole({ ...empty, name: 'Half', functions: [one], drawings })).rejects.toThrow();
    await expect(addMachineWhole({ ...empty, name: 'Half', functions: [one, one] })).rejects.toThrow(
      NameTaken,
    );
    expect(await findMachine('Q-10')).toBeNull();
    const id = await addMachineWhole({
      ...empty,
      name: 'Whole',
      functions: [one, { ...one, name: 'Other' }],
    });
    expect((await drawnFunctions(id)).map(({ name }) => name)).toEqual(['Other', 'Same']);
    expect(await findMachine('Q-10')).toMatchObject({ serial: null, place: 'Bay 3', hours: 7 });
  });
});

describe('drawings', () => {
  it('carry pins of their own machine only', async () => {
    const hash = 'ab'.repeat(32);
    await putPhoto({ hash, kind: 'image/webp', width: 4, height: 3, bytes: Buffer.from('picture') });
    const sheet = await addDrawing(machineId, 'Sheet 1', hash);
    await putPin(machineId, sheet, { part: 'Y1', x: 0.25, y: 0.5 });
    await putPin(machineId, sheet, { part: 'Y1', x: 0.75, y: 0.5 });
    await putPin(uuidv7(), sheet, { part: 'F1', x: 0.1, y: 0.1 });
    expect(await listDrawings(machineId)).toEqual([
      { id: sheet, name: 'Sheet 1', photo: hash, pins: [{ part: 'Y1', x: 0.75, y: 0.5 }] },
    ]);
    await dropPin(machineId, sheet, 'Y1');
    expect((await listDrawings(machineId))[0]!.pins).toEqual([]);
    await dropDrawing(uuidv7(), sheet);
    expect(await listDrawings(machineId)).toHaveLength(1);
    await dropDrawing(machineId, sheet);
    expect(await listDrawings(machineId)).toEqual([]);
  });
});
