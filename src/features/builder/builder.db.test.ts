import { changePart } from '@/core/draw/editCircuit';
import { emptyDrawing, layChains } from '@/core/draw/layChain';
import type { Circuit } from '@/core/circuit/schema';
import { drawnFunctions } from '@/db/library';
import { findMachine } from '@/db/jobs';
import { closePool } from '@/db/pool';
import { seedAfresh } from '@/db/testing/seedAfresh';
import type { KeepAnswer, KeepRequest } from './schema';
import { takeFleet } from '../machines/fleet';
import { keepDrawing, openDrawing, openVersion } from './server';

// Outside a request there is no page to bring up to date.
jest.mock('next/cache', () => ({ revalidatePath: jest.fn() }));

const drawn = (text: string) => layChains(emptyDrawing('Lift'), text).circuit;
const lift = drawn('battery G1 12, fuse F1 5, key switch, plug X1, coil Y1 9, ground');
const request = (more: Partial<KeepRequest> = {}): KeepRequest => ({
  machine: 'G-1',
  functionId: null,
  basedOn: 0,
  name: 'Rear lift',
  note: '',
  circuit: lift,
  also: [],
  onto: [],
  ...more,
});
const kept = (answer: KeepAnswer) => {
  if ('trouble' in answer) throw new Error(answer.trouble);
  return answer;
};
const trouble = async (more: Partial<Record<keyof KeepRequest, unknown>>) => {
  const answer = await keepDrawing({ ...request(), ...more }, 'Henrike');
  return 'trouble' in answer ? answer : null;
};
const functionsOf = async (code: string) => drawnFunctions((await findMachine(code))!.id);

beforeAll(seedAfresh);
afterAll(closePool);

describe('opening a drawing', () => {
  it('begins with an empty sheet, a template with its values, or what the library has', async () => {
    expect((await openDrawing('G-1', {}))!.circuit.parts).toEqual([]);
    const usual = (await openDrawing('G-1', { template: 'single-coil' }))!;
    expect(usual).toMatchObject({ functionId: null, version: 0, versions: [] });
    const supply = (circuit: Circuit) => circuit.parts.find(({ kind }) => kind === 'source');
    const asked = (await openDrawing('G-1', { template: 'single-coil', values: { volts: 24 } }))!;
    expect(supply(asked.circuit)).not.toEqual(supply(usual.circuit));
    // A value out of its bounds is left at the usual.
    const absurd = (await openDrawing('G-1', { template: 'single-coil', values: { volts: 90_000 } }))!;
    expect(absurd.circuit).toEqual(usual.circuit);
    const [first] = await functionsOf('G-1');
    const own = (await openDrawing('G-1', { functionId: first!.id }))!;
    expect(own).toMatchObject({ name: first!.name, version: 1, circuit: first!.circuit });
    expect(own.siblings.map(({ id }) => id)).not.toContain(first!.id);
  });

  it('is nothing for a machine or a function that is not there', async () => {
    expect(await openDrawing('Z-99', {})).toBeNull();
    const [other] = await functionsOf('G-2');
    expect(await openDrawing('G-1', { functionId: other!.id })).toBeNull();
    expect(await openVersion('01900000-0000-7000-8000-000000000000', 1)).toBeNull();
  });
});

describe('keeping a drawing', () => {
  it('adds a function, then versions of it; a second person on an old version is told', async () => {
    const { functionId } = kept(await keepDrawing(request(), 'Henrike'));
    const wider = changePart(lift, 'F1', { amps: 7.5 });
    expect(
      kept(await keepDrawing(request({ functionId, basedOn: 1, circuit: wider }), 'Henrike')).version,
    ).toBe(2);
    const late = await keepDrawing(request({ functionId, basedOn: 1, circuit: lift }), 'Henrike');
    expect(late).toEqual({ trouble: expect.stringMatching(/version/i) });
    const now = (await openDrawing('G-1', { functionId }))!;
    expect(now.versions.map(({ version }) => version)).toEqual([2, 1]);
    expect(now.circuit).toMatchObject({ ...wider, name: 'Rear lift' });
    expect((await openVersion(functionId, 1))!.parts).toEqual(lift.parts);
  });

  it('changes shared parts in the functions that are named, and in no other', async () => {
    const first = kept(await keepDrawing(request({ name: 'Front lift' }), 'Henrike'));
    const second = kept(
      await keepDrawing(
        request({
          name: 'Front tilt',
          circuit: layChains(emptyDrawing('Tilt'), 'battery G1, fuse F1, tilt switch, coil Y2 9, ground', {
            parts: lift.parts,
            controls: lift.controls,
          }).circuit,
        }),
        'Henrike',
      ),
    );
    const third = kept(
      await keepDrawing(
        request({
          name: 'Front lamp',
          circuit: layChains(emptyDrawing('Lamp'), 'battery G1, fuse F1, lamp switch, lamp E1 4, ground', {
            parts: lift.parts,
            controls: lift.controls,
          }).circuit,
        }),
        'Henrike',
      ),
    );
    const wider = changePart(lift, 'F1', { amps: 10 });
    await keepDrawing(
      request({
        name: 'Front lift',
        functionId: first.functionId,
        basedOn: 1,
        circuit: wider,
        also: [second.functionId],
      }),
      'Henrike',
    );
    const fuse = async (id: string) =>
      (await functionsOf('G-1')).find((one) => one.id === id)!.circuit.parts.find(({ ref }) => ref === 'F1');
    expect(await fuse(second.functionId)).toMatchObject({ amps: 10 });
    expect(await fuse(third.functionId)).toMatchObject({ amps: 5 });
  });

  it('goes onto the other machines of the class that are named, shared parts and new name with it, all or nothing', async () => {
    await takeFleet(
      'code,name,equipment,like\r\nG-60,Groomer OR-260,Groomer,G-1\r\nG-61,Groomer OR-261,Groomer,G-1\r\n',
      'Tove',
    );
    const on = async (code: string, name: string) =>
      (await functionsOf(code)).find((one) => one.name === name);
    const lifted = (await on('G-1', 'Front lift'))!;
    const { alike } = (await openDrawing('G-1', { functionId: lifted.id }))!;
    expect(alike.map(({ machine }) => machine)).toEqual(['G-60', 'G-61']);
    const tilt = (await on('G-1', 'Front tilt'))!;
    const wider = { ...changePart(lifted.circuit, 'F1', { amps: 15 }), name: 'Front lift arm' };
    const wanted = (more: Partial<KeepRequest>) =>
      keepDrawing(
        request({
          name: 'Front lift arm',
          functionId: lifted.id,
          basedOn: lifted.version,
          circuit: wider,
          also: [tilt.id],
          ...more,
        }),
        'Henrike',
      );
    const amps = async (code: string, name: string) =>
      (await on(code, name))?.circuit.parts.find(({ ref }) => ref === 'F1');
    // A machine that nobody drew alike is none of them.
    const stranger = (await functionsOf('G-2'))[0]!;
    expect(await wanted({ onto: [alike[0]!.id, stranger.id] })).toMatchObject({ field: 'onto' });
    expect(await on('G-60', 'Front lift arm')).toBeUndefined();
    kept(await wanted({ onto: [alike[0]!.id] }));
    for (const name of ['Front lift arm', 'Front tilt']) {
      expect(await amps('G-1', name)).toMatchObject({ amps: 15 });
      expect(await amps('G-60', name)).toMatchObject({ amps: 15 });
    }
    expect(await amps('G-61', 'Front lift')).toMatchObject({ amps: 10 });
    expect(await amps('G-61', 'Front tilt')).toMatchObject({ amps: 10 });
    // G-61 is drawn otherwise now, and is not offered any more.
    const again = (await openDrawing('G-1', { functionId: lifted.id }))!;
    expect(again.alike.map(({ machine }) => machine)).toEqual(['G-60']);
    expect(again.versions[0]!.version).toBe(lifted.version + 1);
  });

  it.each([
    [{ name: 'x' }, 'name', /^Give the function a name\.$/],
    [{ machine: 'Z-99' }, undefined, /no machine Z-99/],
    [
      { functionId: '01900000-0000-7000-8000-000000000000', name: 'Nowhere' },
      undefined,
      /not on the machine any more/,
    ],
    [{ circuit: { ...lift, parts: [{ ...lift.parts[0], ref: '' }] }, name: 'Bad' }, 'circuit', /./],
  ])('refuses %j with one sentence', async (more, field, words) => {
    const before = await functionsOf('G-1');
    const answer = (await trouble(more))!;
    expect(answer.trouble).toMatch(words);
    if (field) expect(answer.field).toBe(field);
    expect(await functionsOf('G-1')).toEqual(before);
  });

  it('refuses a name that the machine has, and a circuit that cannot be solved', async () => {
    const [taken] = await functionsOf('G-1');
    expect(await trouble({ name: taken!.name })).toMatchObject({ field: 'name' });
    const relay = { ref: 'K1', kind: 'relay', nodes: { com: 'a', no: 'b' }, ohms: 80 };
    const answer = await trouble({ name: 'Coilless', circuit: { ...lift, parts: [...lift.parts, relay] } });
    expect(answer!.trouble).toMatch(/K1|relay|coil|a1/i);
  });
});
