import { CircuitModel } from '../circuit/model';
import { parseCircuit } from '../circuit/parse';
import { branchAmps } from '../circuit/world';
import { readChainItem } from './chainItem';
import { emptyDrawing, layChains } from './layChain';

const draw = (text: string) => layChains(emptyDrawing('Test'), text).circuit;
const parts = (text: string) => draw(text).parts.map(({ ref, kind }) => `${ref} ${kind}`);
const part = (text: string, ref: string) => draw(text).parts.find((one) => one.ref === ref)!;

describe('reading an item of a chain', () => {
  it.each([
    ['fuse 10', 'fuse', { amps: 10 }],
    ['fuse F7 7,5A', 'fuse', { amps: 7.5 }],
    ['coil 7.4', 'coil', { ohms: 7.4 }],
    ['coil 7.4 ohm', 'coil', { ohms: 7.4 }],
    ['sensor 4.7k', 'sensor3', { ohms: 4700 }],
    ['lamp 21 W', 'lamp', { watts: 21 }],
    ['wire 3 m 1.5 mm2 red', 'wire', { lengthMetres: 3, mm2: 1.5 }],
    ['wire 12 ft 18 awg', 'wire', { lengthMetres: 3.6576, awg: 18 }],
    ['line supply 240 V 50 Hz', 'source', { volts: 240, hz: 50 }],
    ['regulator 6 bar', 'regulator', { kPa: 600 }],
    ['control transformer 120/24', 'transformer', { primaryVolts: 120, secondaryVolts: 24 }],
    ['relay coil K4 85', 'relay', { ohms: 85 }],
    ['timer 3 s', 'timer', { seconds: 3 }],
  ])('%s', (text, kind, figures) => {
    expect(readChainItem(text)).toMatchObject({ is: 'part', kind, figures });
  });

  it.each([
    ['seat switch', 'switch', 'Seat switch'],
    ['upper limit NC', 'switch', 'Upper limit'],
    ['motor breaker 20', 'breaker', 'Motor breaker'],
    ['brake switch', 'switch', 'Brake switch'],
    ['tilt left coil Y7 31.5', 'coil', 'Tilt left coil'],
    ['coil', 'coil', ''],
  ])('%s keeps its words', (text, kind, label) => {
    expect(readChainItem(text)).toMatchObject({ kind, label });
  });

  it('takes places, and a control with its positions', () => {
    expect(readChainItem('Ground')).toEqual({ is: 'ground' });
    expect(readChainItem('@F7:2')).toEqual({ is: 'node', node: 'F7:2' });
    expect(readChainItem('after s3')).toEqual({ is: 'after', said: 's3' });
    expect(readChainItem('from the seat switch')).toEqual({ is: 'after', said: 'seat switch' });
    expect(readChainItem('F7')).toMatchObject({ is: 'known', ref: 'F7' });
    expect(readChainItem('lever=left|right switch')).toMatchObject({
      kind: 'switch',
      when: { control: 'lever', positions: ['left', 'right'] },
    });
    expect(readChainItem('switch "upper limit"=free')).toMatchObject({
      when: { control: 'upper limit', positions: ['free'] },
    });
  });

  it('refuses what names no part, with the words and the mend', () => {
    expect(() => readChainItem('frobnicator 12')).toThrow(
      /"frobnicator 12" names no part; begin it with a kind/,
    );
    expect(() => readChainItem('hose 12')).toThrow(/"hose 12": say what 12 is, with its unit/);
  });
});

describe('laying chains', () => {
  it('draws a run from the battery to the ground that can be solved at once', () => {
    const circuit = draw(
      'battery 12.6, fuse 10, wire, seat switch, plug X31, coil 7.4, plug X31, wire, ground',
    );
    expect(circuit.parts.map(({ ref }) => ref)).toEqual([
      'G1',
      'F1',
      'W1',
      'S1',
      'X31.1',
      'Y1',
      'X31.2',
      'W2',
    ]);
    expect(circuit.controls).toEqual({ seat: ['empty', 'taken'] });
    expect(circuit.parts[3]).toMatchObject({ closedWhen: { seat: ['taken'] } });
    // Its name is no answer to whom it protects: that stays open, and counts as a guard.
    expect(circuit.parts[3]).not.toHaveProperty('guards');
    expect(circuit.parts.at(-1)!.nodes).toEqual({ '1': 'X31.2:2', '2': 'GND' });
    const model = new CircuitModel(parseCircuit(circuit));
    const amps = (seat: string) =>
      branchAmps(model.situation({ controls: { seat } }).solve({ mode: 'live' }), 5);
    expect(amps('taken')).toBeCloseTo(12.6 / (7.4 + 0.02 + 0.008 + 0.04 + 0.01 + 0.005 + 0.005 + 0.04), 6);
    expect(amps('empty')).toBeCloseTo(0, 6);
  });

  it('branches where one stands, and ends where it is told', () => {
    const text =
      'battery 12, fuse 10, wire; after W1, lever=left switch, coil 7, @R; after W1, lever=right switch, coil 8, @R; @R, wire, ground';
    const circuit = draw(text);
    expect(circuit.controls).toEqual({ lever: ['rest', 'left', 'right'] });
    const nodes = Object.fromEntries(circuit.parts.map((one) => [one.ref, Object.values(one.nodes)]));
    expect(nodes.S1).toEqual(['W1:2', 'S1:2']);
    expect(nodes.S2).toEqual(['W1:2', 'S2:2']);
    expect(nodes.Y1).toEqual(['S1:2', 'R']);
    expect(nodes.Y2).toEqual(['S2:2', 'R']);
    expect(nodes.W2).toEqual(['R', 'GND']);
  });

  it('draws relays with their contacts, drivers with codes, diodes across coils', () => {
    const relay = 'battery 12, fuse 3, switch, relay K1 85, ground; @B+, fuse 10, K1, lamp 6, ground';
    expect(part(relay, 'K1').nodes).toEqual({ a1: 'S1:2', a2: 'GND', com: 'F2:2', no: 'K1:no' });
    expect(part(relay, 'H1').nodes).toEqual({ '1': 'K1:no', '2': 'GND' });
    const driver = part('battery 25.2, fuse 10, driver, coil 24, ground', 'A1');
    expect(driver).toMatchObject({
      side: 'high',
      codes: { '5': { belowAmps: 0.158 }, '6': { aboveAmps: 1.68 } },
    });
    expect(part('battery 12, fuse 5, coil 9, ground; diode across Y1', 'V1').nodes).toEqual({
      anode: 'GND',
      cathode: 'F1:2',
    });
    expect(part('battery 12, fuse 5, coil 9, low-side driver', 'A1')).toMatchObject({
      side: 'low',
      nodes: { supply: 'B+', out: 'Y1:2', return: 'GND' },
    });
  });

  it('takes a control transformer’s own return, and an air side with its valve', () => {
    const line = draw('line 240, fuse 5, transformer 240/24, fuse 3, switch, coil 20, back');
    expect(line.parts.find(({ ref }) => ref === 'Y1')!.nodes).toEqual({ '1': 'S1:2', '2': 'T1:s2' });
    const air =
      'battery 24, fuse 3, switch, coil 48, ground; air 7 bar, filter, regulator 6 bar, hose, valve 5/2, throttle, hose, cylinder';
    expect(parts(air).slice(4)).toEqual([
      'P1 airSupply',
      'Z1 filter',
      'Z2 regulator',
      'L1 hose',
      'U1 silencer',
      'U2 silencer',
      'Q1 valve',
      'RZ1 throttle',
      'L2 hose',
      'C1 cylinder',
    ]);
    expect(part(air, 'Q1')).toMatchObject({ ways: '5/2', coil: 'Y1', nodes: { '1': 'L1:2', '4': 'Q1:2' } });
  });

  it('takes parts of the machine as they stand there', () => {
    const known = draw('battery 25.2, fuse F7 7.5, key switch S1');
    const circuit = layChains(emptyDrawing('Other'), 'G1, F7, S1, coil 30, ground', known).circuit;
    expect(circuit.parts.slice(0, 2)).toEqual(known.parts.slice(0, 2));
    // What works them comes along.
    expect(circuit.controls).toEqual({ key: ['off', 'on'] });
    expect(() => new CircuitModel(parseCircuit(circuit))).not.toThrow();
    expect(() => layChains(emptyDrawing('Other'), 'G1, S1, coil 30, ground', known)).toThrow(
      /S1 stands at "F7:2" on this machine, and you are at "B\+"/,
    );
  });

  it('goes on from a part by its reference, its name or its kind, and asks where that is not one', () => {
    const before = layChains(emptyDrawing('Test'), 'battery, fuse F1 5, wire, seat switch, wire');
    const behind = (said: string) => {
      const { circuit } = layChains(before, `after ${said}, coil Y9 8, ground`);
      return (circuit.parts.find(({ ref }) => ref === 'Y9')!.nodes as Record<string, string>)['1'];
    };
    const seat = before.circuit.parts.find(({ label }) => label === 'Seat switch')!;
    const end = (seat.nodes as Record<string, string>)['2'];
    expect(['Seat switch', 'seat switch', seat.ref.toLowerCase(), 'the seat switch'].map(behind)).toEqual(
      Array(4).fill(end),
    );
    // There is one fuse, and there are two wires.
    expect(behind('fuse')).toBe(behind('F1'));
    expect(() => behind('wire')).toThrow(/"after wire" may be W1 or W2; say which/);
  });

  it('says what does not fit and changes nothing', () => {
    const before = layChains(emptyDrawing('Test'), 'battery, fuse F1 5');
    const kept = structuredClone(before);
    for (const [text, words] of [
      ['', /nothing is typed/],
      ['wire, fuse F1 5', /F1 is drawn already; write "after F1"/],
      ['after F9, wire', /"after F9": there is no F9 on the drawing; say a part's reference or name/],
      ['after seat switch, wire', /there is no seat switch on the drawing/],
      ['F8, wire', /"F8" is on no other drawing of this machine/],
      ['valve 3/2', /no coil shifts this valve yet/],
      ['diode across Y9', /Y9 is not drawn/],
    ] as const)
      expect(() => layChains(before, text)).toThrow(words);
    expect(before).toEqual(kept);
  });
});
