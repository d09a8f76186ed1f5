import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { zipSync, strToU8 } from 'fflate';
import { emptyDrawing, layChains } from '@/core/draw/layChain';
import { CircuitModel } from '@/core/circuit/model';
import type { Circuit } from '@/core/circuit/schema';
import { workingPatterns } from '@/core/diagnosis/patterns';
import { TEMPLATES } from '@/core/templates/templates';
import { readMachineArchive, writeMachineArchive } from './machineArchive';
import { unpackZip } from './unpackZip';
import { readSpice, spiceNodes, writeSpice } from './spice';
import { readWireList, writeWireList } from './wireList';

const built = TEMPLATES.map(({ id, build }) => [id, build()] as const);

/** Volts to the frame of every electrical node in every working position, by name; islands that float are left out. */
function operatingPoints(circuit: Circuit): Map<string, number> {
  const model = new CircuitModel(circuit);
  const { nodeNames, domains, frame } = model.compiled;
  const points = new Map<string, number>();
  for (const { setup } of workingPatterns(model)) {
    const { changed } = model.situation(setup).solve({ mode: 'live' });
    nodeNames.forEach((name, node) => {
      const volts = domains[node] === 'electrical' ? changed.pairVolts(node, frame) : NaN;
      if (!Number.isNaN(volts)) points.set(`${JSON.stringify(setup)} ${name}`, volts);
    });
  }
  return points;
}

function expectSamePoints(one: Circuit, other: Circuit): void {
  const [before, after] = [operatingPoints(one), operatingPoints(other)];
  expect(after.size).toBe(before.size);
  for (const [place, volts] of before)
    expect([place, after.get(place)]).toEqual([place, expect.closeTo(volts, 9)]);
}

describe('wiring lists', () => {
  it.each(built)('%s comes back from its circuit without wires and its list', (_id, circuit) => {
    const list = writeWireList(circuit);
    const bare = { ...circuit, parts: circuit.parts.filter(({ kind }) => kind !== 'wire' && kind !== 'pin') };
    if (bare.parts.length === circuit.parts.length) return;
    const { circuit: again, added } = readWireList(list, bare);
    expect(added).toHaveLength(circuit.parts.length - bare.parts.length);
    expectSamePoints(circuit, again);
  });

  const small = layChains(
    emptyDrawing('Small'),
    'battery 12, fuse F7 5; @C:1, key switch, coil Y1 9, ground',
  ).circuit;

  it('becomes wires and pins from what a shop writes down', () => {
    const text =
      'From;To;Mark;Colour;Gauge;Length\nF7.2;X31.2;147;red;18 AWG;4,5\nX31.2;C:1;148;red;1.5 mm2;2\n';
    const { circuit, added } = readWireList(text, small);
    expect(added).toEqual(['X31.2', 'W1', 'W2']);
    const nodes = Object.fromEntries(circuit.parts.map(({ ref, nodes: own }) => [ref, Object.values(own)]));
    expect(nodes).toMatchObject({
      W1: ['F7:2', 'X31.2:1'],
      'X31.2': ['X31.2:1', 'X31.2:2'],
      W2: ['X31.2:2', 'C:1'],
    });
    expect(circuit.parts.find(({ ref }) => ref === 'W1')).toMatchObject({
      awg: 18,
      lengthMetres: 4.5,
      colour: 'red',
    });
    const again = readWireList('from,to,mark,length\nF7:2,X31.2:1,147,9', circuit);
    expect(again.changed).toEqual(['W1']);
    expect(again.circuit.parts.find(({ ref }) => ref === 'W1')).toMatchObject({ lengthMetres: 9, awg: 18 });
  });

  it.each([
    ['from,mark\na,1', /line 1: no column "to"/],
    ['from,to,length\nF7.2,C:1,long', /line 2, length: "long" is no figure; write it in metres/],
    ['from,to,gauge\nF7.2,C:1,thick', /line 2, gauge: "thick" is no gauge; write 1.5 mm2 or 18 AWG/],
    ['from,to\nF7.9,C:1', /line 2, from: "F7.9": F7 has no end "9"; it has 1, 2/],
    ['from,to\nF7:2,F7:2', /line 2, to: "F7:2" is where the wire begins/],
    ['from,to,ref\nF7:2,C:1,Y1', /line 2, ref: Y1 is a coil, not a wire/],
    ['from,to\n', /no wires/],
  ])('refuses %j and changes nothing', (text, words) => {
    const before = structuredClone(small);
    expect(() => readWireList(text, small)).toThrow(words);
    expect(small).toEqual(before);
  });
});

function ngspice(netlist: string): string {
  const folder = mkdtempSync(join(tmpdir(), 'spiraxis-netlist-'));
  const file = join(folder, 'circuit.cir');
  writeFileSync(file, netlist);
  const done = spawnSync('ngspice', ['-b', file], { encoding: 'utf8' });
  rmSync(folder, { recursive: true });
  if (done.error) throw new Error('ngspice is not installed: apt-get install ngspice', { cause: done.error });
  return done.stdout + done.stderr;
}

/** Volts an outside simulator finds for the netlist's nodes: direct ones from its operating point, the others at the line's frequency. */
function simulated(netlist: string, nodes: readonly { name: string; alternating: boolean }[]): number[] {
  const prints = (alternating: boolean) =>
    nodes
      .filter((one) => one.name !== '0' && one.alternating === alternating)
      .map(({ name }) => (alternating ? `print vm(${name})` : `print v(${name})`));
  const hertz = /^\.ac lin 1 (\S+)/m.exec(netlist)?.[1];
  const control = [
    '.control',
    'set numdgt=12',
    ...(prints(false).length > 0 ? ['op', ...prints(false)] : []),
    ...(hertz ? [`ac lin 1 ${hertz} ${hertz}`, ...prints(true)] : []),
    'quit 0',
    '.endc',
  ];
  const printed = ngspice(netlist.replace(/\n\.end\n/, `\n${control.join('\n')}\n.end\n`));
  return nodes.map(({ name }) => {
    if (name === '0') return 0;
    const found = new RegExp(`v?m?\\(${name}\\)\\s*=\\s*([-+0-9.e]+)`, 'm').exec(printed);
    if (!found) throw new Error(`no ${name} in:\n${printed.slice(0, 900)}`);
    return Number(found[1]);
  });
}

describe('netlists', () => {
  const supplies = (circuit: Circuit) =>
    new Set(circuit.parts.flatMap((part) => (part.kind === 'source' ? [part.hz ?? 0] : [])));

  it('are compared for a battery beside a line supply too', () => {
    expect(built.filter(([, circuit]) => supplies(circuit).size > 1).length).toBeGreaterThan(0);
  });

  it.each(built)('%s: an outside simulator takes it and agrees on the operating point', (_id, circuit) => {
    const model = new CircuitModel(circuit);
    const { nodeNames, frame, domains, alternating } = model.compiled;
    const names = spiceNodes(nodeNames, frame);
    const nodes = names
      .map((name, node) => ({ name, node, alternating: alternating[node] === 1 }))
      .filter(({ node }) => domains[node] === 'electrical');
    let compared = 0;
    for (const { setup } of workingPatterns(model).slice(0, 4)) {
      const theirs = simulated(writeSpice(model, setup), nodes);
      const { changed } = model.situation(setup).solve({ mode: 'live' });
      nodes.forEach(({ name, node }, at) => {
        const ours = changed.pairVolts(node, frame);
        if (Number.isNaN(ours)) return;
        compared++;
        const near = Math.abs(Math.abs(theirs[at]!) - Math.abs(ours)) < 2e-4 * Math.abs(ours) + 2e-3;
        expect([name, setup.controls, near]).toEqual([name, setup.controls, true]);
      });
    }
    expect(compared).toBeGreaterThan(1);
  });

  it.each(built)('%s comes back from its netlist as the circuit it was', (_id, circuit) => {
    const model = new CircuitModel(circuit);
    const again = readSpice(writeSpice(model, workingPatterns(model)[0]?.setup));
    expect([...again.parts].sort((a, b) => (a.ref < b.ref ? -1 : 1))).toEqual(
      [...circuit.parts].sort((a, b) => (a.ref < b.ref ? -1 : 1)),
    );
    expectSamePoints(circuit, again);
  });

  it('reads a plain one', () => {
    const circuit = readSpice(
      'a divider\nV1 in 0 DC 12\nR1 in mid 1k\nR2 mid 0 2k ; lower\nD1 0 mid\n.op\n.end\n',
    );
    const model = new CircuitModel(circuit);
    const volts = model
      .situation({})
      .solve({ mode: 'live' })
      .changed.pairVolts(model.compiled.nodeIndex.get('mid')!, model.compiled.frame);
    expect(volts).toBeCloseTo(8, 3);
  });

  it.each([
    ['t\nQ1 a b c', /line 2: "Q1" is no element this reads/],
    ['t\nR1 a 0 ten', /line 2: "ten" is no figure of ohms/],
    ['t\nR1 a 0 10\nR1 b 0 10', /line 3: "R1" stands on two lines/],
    ['t\nL1 a 0 10m', /line 2: L1 has no resistance in series before it/],
    ['t\n.end', /file: no element/],
  ])('refuses %j by its line', (text, words) => {
    expect(() => readSpice(text)).toThrow(words);
  });
});

describe('machine archives', () => {
  const machine = {
    code: 'G-4',
    name: 'Groomer OR-204',
    equipment: 'Groomer',
    serial: 'S 204',
    place: 'Bay 2',
    hours: 4120,
    functions: built.slice(0, 3).map(([id, circuit]) => ({ name: `Function ${id}`, circuit })),
    book: [
      {
        system: 'maker' as const,
        code: '14',
        mode: '5',
        means: 5,
        text: 'too low',
        function: 'Tilt',
        part: 'Y7',
        sheet: '3',
        note: '',
      },
    ],
    drawings: [
      {
        name: 'Sheet 3',
        kind: 'image/png',
        bytes: new Uint8Array([137, 80, 78, 71, 1, 2, 3]),
        pins: [{ part: 'Y7', x: 0.5, y: 0.25 }],
      },
    ],
  };

  it('bring everything of a machine back, byte for byte the same each time', async () => {
    const bytes = writeMachineArchive(machine);
    expect(writeMachineArchive(machine)).toEqual(bytes);
    const again = await readMachineArchive(bytes);
    expect(again).toEqual(machine);
    machine.functions.forEach(({ circuit }, at) => expectSamePoints(circuit, again.functions[at]!.circuit));
  });

  const packed = (files: Record<string, string | Uint8Array>) =>
    zipSync(
      Object.fromEntries(
        Object.entries(files).map(([name, one]) => [name, typeof one === 'string' ? strToU8(one) : one]),
      ),
    );
  const head = {
    format: 'spiraxis-machine',
    version: 1,
    code: 'A-1',
    name: 'Hoist',
    functions: [{ name: 'lift', file: 'f.json' }],
  };
  const listed = (more: object) =>
    packed({ 'machine.json': JSON.stringify({ ...head, ...more }), 'f.json': '{}' });

  it('name the file and the field of a bad one', async () => {
    await expect(readMachineArchive(strToU8('no zip at all'))).rejects.toThrow(/this is no ZIP file/);
    await expect(readMachineArchive(packed({ 'a.txt': 'x' }))).rejects.toThrow(
      /machine.json: is not in the archive/,
    );
    await expect(
      readMachineArchive(packed({ 'machine.json': JSON.stringify(head), 'f.json': '{"parts":[]}' })),
    ).rejects.toThrow(/^f.json, format/);
    await expect(readMachineArchive(listed({ code: '' }))).rejects.toThrow(/machine.json, code/);
  });

  it.each([
    ['a machine that no form would take', { code: '.' }, /machine.json, code: A code is letters/],
    ['a function without a name', { functions: [{ name: ' ', file: 'f.json' }] }, /functions.0.name/],
    [
      'one file for two functions',
      { functions: [head.functions[0], { name: 'lower', file: 'f.json' }] },
      /names the file “f.json” twice/,
    ],
    [
      'two functions of one name',
      { functions: [head.functions[0], { name: 'lift', file: 'g.json' }] },
      /names the function “lift” twice/,
    ],
    [
      'a file by a name of the language',
      { functions: [{ name: 'lift', file: '__proto__' }] },
      /^__proto__: is not in/,
    ],
  ])('take nothing from one with %s', async (_what, more, words) => {
    await expect(readMachineArchive(listed(more))).rejects.toThrow(words);
  });

  it('are counted as they unpack, whatever they say of themselves', async () => {
    const limits = { entries: 4, each: 1_000_000, total: 1_500_000, ratio: 100 };
    const read = (files: Record<string, string | Uint8Array>) => unpackZip(packed(files), limits);
    const noise = (size: number) => {
      let state = 1;
      return Uint8Array.from({ length: size }, () => (state = (state * 48_271) % 2_147_483_647) >> 8);
    };
    expect([...(await read({ a: 'x', b: 'y' })).keys()]).toEqual(['a', 'b']);
    await expect(read({ a: '1', b: '2', c: '3', d: '4', e: '5' })).rejects.toThrow(/holds 5 files/);
    await expect(read({ a: noise(1_000_001) })).rejects.toThrow(/“a” is over 1 MB unpacked/);
    await expect(read({ a: noise(900_000), b: noise(900_000) })).rejects.toThrow(
      /unpacked it is over 1.5 MB/,
    );
    await expect(read({ a: new Uint8Array(900_000) })).rejects.toThrow(/packed as no drawing or table is/);
    // The size that it states is not the size that it has: neither is believed.
    const lying = packed({ 'machine.json': 'x'.repeat(2000) });
    const view = new DataView(lying.buffer, lying.byteOffset);
    for (let at = 0; at < lying.length - 4; at++) {
      const sign = view.getUint32(at, true);
      if (sign === 0x04034b50) view.setUint32(at + 22, 7, true);
      if (sign === 0x02014b50) view.setUint32(at + 24, 7, true);
    }
    await expect(unpackZip(lying, limits)).rejects.toThrow(/no ZIP file/);
    // The same name twice.
    const twice = packed({ 'a.txt': 'one', 'b.txt': 'two' });
    const renamed = Uint8Array.from(twice, (byte) => (byte === 'b'.charCodeAt(0) ? 'a'.charCodeAt(0) : byte));
    await expect(unpackZip(renamed, limits)).rejects.toThrow(/holds “a.txt” twice/);
  });
});
