import sharp from 'sharp';
import { putPin, addDrawing, listDrawings } from '@/db/drawings';
import { findMachine } from '@/db/jobs';
import { drawnFunctions, keepVersions } from '@/db/library';
import { closePool } from '@/db/pool';
import { seedAfresh } from '@/db/testing/seedAfresh';
import { importBook, openBook } from '../codes/server';
import { keepPhoto } from '../photos/server';
import { packMachine, unpackMachine } from './archive';
import { openClass } from './classes';
import { fleetTable, takeFleet } from './fleet';
import { createMachine, nameMachine, openLibrary, openMachine, removeFunction } from './server';

jest.mock('next/cache', () => ({ revalidatePath: jest.fn() }));
// A redirect ends the use case by throwing, as it does in the application.
jest.mock('next/navigation', () => ({
  redirect: (to: string) => {
    throw new Error(`redirect ${to}`);
  },
}));

const create = (fields: Record<string, string>) =>
  createMachine({ code: '', name: '', like: '', ...fields }, 'Henrike');

beforeAll(seedAfresh);
afterAll(closePool);

describe('machines', () => {
  it('are added under a code that nothing else has, and renamed', async () => {
    await expect(create({ code: 'H-1', name: 'Ambulance sled hoist' })).rejects.toThrow(
      'redirect /machines/H-1',
    );
    expect(await create({ code: 'H-1', name: 'Another' })).toMatchObject({
      field: 'code',
      trouble: expect.stringContaining('H-1'),
    });
    const facts = { serial: '', place: '', hours: '' };
    const named = (name: string, equipment = '', more: Partial<typeof facts> = {}) =>
      nameMachine('H-1', { name, equipment, ...facts, ...more });
    expect(await named('Sled hoist, upper station', 'Hoist')).toEqual({ trouble: null });
    expect((await openMachine('H-1'))!.machine.equipment).toBe('Hoist');
    expect((await openMachine('H-1'))!.equipment).toContain('Hoist');
    expect((await named('Sled hoist, upper station', 'a|b')).trouble).toMatch(/no upright stroke/);
    expect(await named('Sled hoist, upper station')).toEqual({ trouble: null });
    expect((await openMachine('H-1'))!.machine.equipment).toBeNull();
    expect(
      (await openLibrary({ q: '', equipment: '' })).machines.find(({ code }) => code === 'H-1')!.name,
    ).toBe('Sled hoist, upper station');
    expect((await named(' ')).trouble).toBe('Say what the machine is.');
    expect((await named('Sled hoist', '', { hours: 'many' })).trouble).toContain('“many” is no figure');
    expect(await named('Sled hoist', '', { serial: 'S 4', place: 'Bay 2', hours: '4120' })).toEqual({
      trouble: null,
    });
    expect((await openMachine('H-1'))!.machine).toMatchObject({ serial: 'S 4', place: 'Bay 2', hours: 4120 });
    for (const q of ['bay hoist', 'S 4', 'h-1'])
      expect((await openLibrary({ q, equipment: '' })).machines.map(({ code }) => code)).toContain('H-1');
    expect((await openLibrary({ q: 'bay winch', equipment: '' })).machines).toEqual([]);
    expect((await nameMachine('Z-99', { name: 'Ghost', equipment: '', ...facts })).trouble).toBe(
      'There is no machine Z-99.',
    );
  });

  it('built like another have its class, functions, code book and sheets from the start; how many are drawn alike is said', async () => {
    const other = (await findMachine('G-2'))!;
    const sheet = await keepPhoto(
      new Uint8Array(
        await sharp({ create: { width: 40, height: 30, channels: 3, background: '#789' } })
          .png()
          .toBuffer(),
      ),
    );
    if ('trouble' in sheet) throw new Error(sheet.trouble);
    const drawing = await addDrawing(other.id, 'Hydraulics, page 9', sheet.hash);
    await putPin(other.id, drawing, { part: 'Y8', x: 0.25, y: 0.5 });
    await importBook('G-2', 'system,code,mode,text\nmaker,91,4,pump starved\n');
    expect(await create({ code: 'G-70', name: 'Groomer OR-270', like: 'Z-99' })).toMatchObject({
      field: 'like',
      trouble: 'There is no machine “Z-99” to be like.',
    });
    await expect(create({ code: 'G-70', name: 'Groomer OR-270', like: 'G-2' })).rejects.toThrow(
      'redirect /machines/G-70',
    );
    const [made, known] = [(await openMachine('G-70'))!, (await openMachine('G-2'))!];
    expect(made.machine).toMatchObject({ equipment: other.equipment, serial: null, hours: null });
    expect(made.functions.map(({ name }) => name)).toEqual(known.functions.map(({ name }) => name));
    for (const { alike } of made.functions) expect(alike).toBeGreaterThan(0);
    expect(made.differs).toEqual([]);
    expect((await openBook('G-70'))!.book.map(({ code }) => code)).toContain('91');
    const page = (await listDrawings(made.machine.id)).find(({ name }) => name === 'Hydraulics, page 9');
    expect(page!.pins).toEqual([{ part: 'Y8', x: 0.25, y: 0.5 }]);
  });

  it.each([
    [{ code: '', name: 'A hoist' }, 'code', /^Give the machine a short code/],
    [{ code: '/etc', name: 'A hoist' }, 'code', /^A code is letters, figures/],
    [{ code: 'H-2', name: 'x' }, 'name', /^Say what the machine is\.$/],
  ])('are refused with one sentence: %j', async (fields, field, words) => {
    const before = (await openLibrary({ q: '', equipment: '' })).all;
    const answer = await create(fields);
    expect([answer.field, answer.trouble]).toEqual([field, expect.stringMatching(words)]);
    expect((await openLibrary({ q: '', equipment: '' })).all).toBe(before);
  });

  it('show the parts that several functions have in common', async () => {
    const { functions, shared } = (await openMachine('G-2'))!;
    expect(functions.length).toBeGreaterThan(2);
    const battery = shared.find(({ kind }) => kind === 'source')!;
    expect(battery.functions.length).toBeGreaterThan(1);
    // What most functions stand on comes first.
    const counts = shared.map(({ functions: names }) => names.length);
    expect(counts).toEqual(counts.toSorted((a, b) => b - a));
    expect(await openMachine('Z-99')).toBeNull();
  });

  it('keep a function that a job stands on, and let go of one that none does', async () => {
    const groomer = (await findMachine('G-2'))!;
    const tilt = (await drawnFunctions(groomer.id)).find(({ name }) => /tilt/i.test(name))!;
    expect((await removeFunction('G-2', tilt.id)).trouble).toMatch(/has jobs in the record; it stays/);
    const spare = (await findMachine('G-4'))!;
    const before = await drawnFunctions(spare.id);
    const unused = before.find(({ name }) => /float/i.test(name))!;
    const answer = await removeFunction('G-4', unused.id);
    const after = await drawnFunctions(spare.id);
    expect(after.length).toBe(answer.trouble === null ? before.length - 1 : before.length);
    expect((await removeFunction('G-4', '01900000-0000-7000-8000-000000000000')).trouble).toMatch(
      /not on this machine/,
    );
  });
});

describe('archives', () => {
  it('carry functions, code book and drawings with their pins to another machine', async () => {
    const groomer = (await findMachine('G-2'))!;
    const picture = await sharp({ create: { width: 40, height: 30, channels: 3, background: '#fff' } })
      .png()
      .toBuffer();
    const kept = await keepPhoto(new Uint8Array(picture), 'drawing');
    if ('trouble' in kept) throw new Error(kept.trouble);
    const sheet = await addDrawing(groomer.id, 'Sheet 9', kept.hash);
    await putPin(groomer.id, sheet, { part: 'F7', x: 0.25, y: 0.5 });
    const packed = (await packMachine('G-2'))!;
    const data = new Uint8Array(packed.bytes);
    expect(await unpackMachine(data, 'Rasmus', 'G-22')).toEqual({ code: 'G-22' });
    const copy = (await findMachine('G-22'))!;
    const plain = async (id: string) =>
      (await drawnFunctions(id)).map(({ name, circuit }) => ({ name, circuit }));
    expect(await plain(copy.id)).toEqual(await plain(groomer.id));
    // Under another code it is another machine: a serial and hours are not copied with it.
    expect(copy).toMatchObject({ equipment: groomer.equipment, serial: null, place: null, hours: null });
    const drawings = await listDrawings(copy.id);
    expect(drawings.find(({ name }) => name === 'Sheet 9')!.pins).toEqual([{ part: 'F7', x: 0.25, y: 0.5 }]);
    const lines = async (code: string) =>
      (await openBook(code))!.book
        .map(({ id: _id, ...row }) => row)
        .map((row) => JSON.stringify(row))
        .sort();
    expect(await lines('G-22')).toEqual(await lines('G-2'));
    // A second time under the same code adds nothing.
    const again = await unpackMachine(data, 'Rasmus', 'G-22');
    expect(again).toEqual({ trouble: expect.stringMatching(/G-22.*another code/) });
    expect(await plain(copy.id)).toEqual(await plain(groomer.id));
  });

  it('are refused whole when they are none, or too long a code is given', async () => {
    const before = (await openLibrary({ q: '', equipment: '' })).all;
    const nonsense = new TextEncoder().encode('not a zip');
    const refused = await unpackMachine(new Uint8Array(nonsense), 'Rasmus');
    expect(refused).toEqual({ trouble: expect.stringMatching(/\.$/) });
    const data = new Uint8Array((await packMachine('G-1'))!.bytes);
    expect(await unpackMachine(data, 'Rasmus', 'G'.repeat(21))).toEqual({
      trouble: expect.stringMatching(/at most 20 characters/),
    });
    expect((await openLibrary({ q: '', equipment: '' })).all).toBe(before);
    expect(await packMachine('Z-99')).toBeNull();
  });
});

describe('pictures', () => {
  it('are scaled and kept under their content; what is none is refused', async () => {
    const big = await sharp({ create: { width: 2400, height: 1200, channels: 3, background: '#345' } })
      .jpeg()
      .toBuffer();
    const [one, two] = [await keepPhoto(new Uint8Array(big)), await keepPhoto(new Uint8Array(big))];
    expect(one).toEqual(two);
    expect(await keepPhoto(new Uint8Array())).toEqual({ trouble: 'The picture is empty.' });
    expect(await keepPhoto(new Uint8Array(new TextEncoder().encode('<svg/>x')))).toEqual({
      trouble: expect.stringMatching(/no picture/),
    });
  });
});

describe('code books', () => {
  it('take in a table whole or not at all', async () => {
    const before = (await openBook('G-1'))!.book.length;
    const good = await importBook('G-1', 'system,code,mode,text\nmaker,77,4,pump starved\n');
    expect(good).toBe(1);
    const bad = importBook('G-1', 'system,code,mode,text\nmaker,78,4,fine\nnoSuch,79,1,bad\n');
    await expect(bad).rejects.toThrow(/line 3.*Nothing was changed\.$/);
    expect((await openBook('G-1'))!.book.length).toBe(before + 1);
    expect(await importBook('Z-99', 'x')).toBeNull();
  });
});

describe('a fleet as a table', () => {
  const table = (...lines: string[]) =>
    ['code,name,equipment,serial,place,hours,like', ...lines].join('\r\n');

  it('adds machines with the functions of those they are like, and brings others up to date; again it changes nothing', async () => {
    const text = table(
      'G-40,Groomer OR-240,Groomer,S 40,Bay 4,12,G-2',
      'G-41,Groomer OR-241,Groomer,,,,G-40',
      'G-2,Groomer OR-202,Groomer,S 2,Bay 1,4120,',
    );
    expect(await takeFleet(text, 'Rasmus')).toEqual({ added: 2, changed: 1 });
    const names = async (code: string) => (await openMachine(code))!.functions.map(({ name }) => name);
    expect(await names('G-40')).toEqual(await names('G-2'));
    expect(await names('G-41')).toEqual(await names('G-2'));
    expect((await openMachine('G-40'))!.machine).toMatchObject({ serial: 'S 40', place: 'Bay 4', hours: 12 });
    expect(await takeFleet(text, 'Rasmus')).toEqual({ added: 0, changed: 3 });
    const out = await fleetTable();
    expect(out).toContain('G-2,Groomer OR-202,Groomer,S 2,Bay 1,4120,');
    expect((await takeFleet(out, 'Rasmus')).added).toBe(0);
  });

  it('a bad line takes nothing in, and is named', async () => {
    const refused = async (text: string) =>
      takeFleet(text, 'Rasmus').then(
        () => null,
        (error: Error) => error.message,
      );
    expect(await refused(table('G-50,Groomer,,,,,', 'G-51,x,,,,,'))).toMatch(
      /^line 3: name: Say what the machine is\.$/,
    );
    expect(await refused(table('G-50,Groomer,,,,,Z-77'))).toBe(
      'G-50: there is no machine “Z-77” to be like.',
    );
    expect(await refused('name\r\nGroomer')).toContain('no column "code"');
    expect(await findMachine('G-50')).toBeNull();
  });

  it('a machine that differs from the others of its class says in what', async () => {
    const machine = (await openMachine('G-41'))!;
    expect(machine.differs).toEqual([]);
    const own = (await drawnFunctions((await findMachine('G-41'))!.id))[0]!;
    const wire = own.circuit.parts.find(({ kind }) => kind === 'wire')!;
    const circuit = {
      ...own.circuit,
      parts: own.circuit.parts.map((part) => (part === wire ? { ...part, mark: '99' } : part)),
    } as typeof own.circuit;
    await keepVersions([{ functionId: own.id, basedOn: own.version, circuit }], 'Tove', 'rewired');
    const [differs] = (await openMachine('G-41'))!.differs;
    expect(differs).toMatchObject({ name: own.name, more: 0 });
    expect(differs!.lines.join()).toContain(wire.ref);
    // The others count each other as before; none of them differs for the one that does.
    const before = machine.functions.find(({ name }) => name === own.name)!;
    const drawn = (await openClass('Groomer'))!.functions.find(({ name }) => name === own.name)!;
    const usual = (await openMachine(drawn.ways[0]!.named[0]!))!;
    expect(usual.functions.find(({ name }) => name === own.name)!.alike).toBe(before.alike - 1);
    expect(usual.differs).toEqual([]);
    expect((await openMachine('G-41'))!.functions.find(({ name }) => name === own.name)!.alike).toBe(0);
  });

  it('a class shows each of its functions in the ways it is drawn, the usual one first', async () => {
    const whole = (await openClass('groomer'))!;
    expect(whole.name).toBe('Groomer');
    const own = (await drawnFunctions((await findMachine('G-41'))!.id))[0]!;
    const drawn = whole.functions.find(({ name }) => name === own.name)!;
    expect(drawn.ways).toHaveLength(2);
    expect(drawn.ways[0]).toMatchObject({ machines: drawn.machines - 1, lines: [] });
    expect(drawn.ways[1]).toMatchObject({ machines: 1, named: ['G-41'], more: 0 });
    expect(drawn.ways[1]!.lines).toEqual((await openMachine('G-41'))!.differs[0]!.lines);
    expect((await openLibrary({ q: '', equipment: 'Groomer' })).total).toBe(whole.machines);
    expect((await openLibrary({ q: 'G-41', equipment: 'Winch' })).machines).toEqual([]);
    expect(await openClass('no such class')).toBeNull();
  });
});
