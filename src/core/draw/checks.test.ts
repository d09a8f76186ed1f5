import { CircuitModel } from '../circuit/model';
import { parseCircuit } from '../circuit/parse';
import type { Circuit, Setup } from '../circuit/schema';
import { TEMPLATES } from '../templates/templates';
import { checkCircuit, type Finding } from './checkCircuit';
import { compareCircuits } from './compareCircuits';
import { changePart, insertBefore, removePart, renameNode } from './editCircuit';
import { emptyDrawing, layChains } from './layChain';
import { mendCircuit } from './mendCircuit';

const draw = (text: string) => layChains(emptyDrawing('Test'), text).circuit;
const codes = (circuit: Circuit) => checkCircuit(circuit).map(({ code }) => code);
const find = (circuit: Circuit, code: Finding['code']) =>
  checkCircuit(circuit).find((one) => one.code === code)!;
const GOOD = 'battery 12.6, fuse 5, wire, key switch, plug X1, coil 9, plug X1, wire, ground';

describe('live checks', () => {
  it('find nothing on an empty sheet, and of a sound first run only what no drawing can tell', () => {
    expect(checkCircuit(emptyDrawing('Test').circuit)).toEqual([]);
    expect(checkCircuit(draw(GOOD))).toEqual([
      { code: 'noIsolation', part: 'G1' },
      { code: 'guardUnanswered', part: 'S1', proposed: 'none' },
      { code: 'electronicUnanswered', part: 'S1' },
    ]);
  });

  it.each([
    ['operator presence switch', 'person'],
    ['tether switch', 'person'],
    ['pendant switch', 'person'],
    ['upper limit switch', 'limit'],
    ['load holding contact', 'load'],
    ['key switch', 'none'],
  ])('proposes whom a %s protects, and waits for the answer', (name, proposed) => {
    const circuit = draw(`battery 12.6, fuse 5, ${name}, plug X1, coil 9, ground`);
    const open = find(circuit, 'guardUnanswered');
    expect(open).toMatchObject({ part: 'S1', proposed });
    const answered = mendCircuit(circuit, open)!;
    expect(answered.parts.find(({ ref }) => ref === 'S1')).toMatchObject({ guards: proposed });
    expect(codes(answered)).not.toContain('guardUnanswered');
  });

  it.each([
    ['a loose end', 'battery, fuse 5, key switch, coil 9', 'floating', 'Y1'],
    ['no way home', 'battery, fuse 5, key switch, coil 9', 'noReturn', 'Y1'],
    ['a short over the supply', 'battery, wire, ground', 'sourceShort', 'G1'],
    ['a short behind a fuse', 'battery, fuse 5, wire, key switch, ground', 'sourceShort', 'F1'],
    [
      'a fuse under the healthy current',
      'battery 12.6, fuse 1, key switch, plug, coil 9, ground',
      'fuseSmall',
      'F1',
    ],
    [
      'a coil that nothing lets be measured alone',
      'battery, key switch, wire, coil 9, wire, ground',
      'cannotBeAlone',
      'Y1',
    ],
    ['a supply nobody can cut off', GOOD, 'noIsolation', 'G1'],
    ['no supply', '@B+, fuse 5, coil 9, ground', 'noSource', ''],
  ])('%s', (_name, text, code, ref) => {
    const found = find(draw(text), code as Finding['code']);
    expect(found).toBeDefined();
    if (ref) expect(found).toMatchObject({ part: ref });
  });

  it('a control that is not there, by the field a file would name', () => {
    expect(find({ ...draw(GOOD), controls: {} }, 'broken')).toMatchObject({
      field: 'circuit.parts[3].closedWhen.key',
    });
  });

  it('a load behind contacts that are never closed together, and a coil too weak to pull in', () => {
    const never = draw('battery, fuse 5, lever=a switch, lever=b switch, plug, coil 9, ground');
    expect(find(never, 'neverFed')).toMatchObject({ part: 'Y1' });
    const weak = changePart(draw(GOOD), 'Y1', { pullInAmps: 2 });
    expect(find(weak, 'cannotPullIn')).toMatchObject({ part: 'Y1', needs: 2, unit: 'A' });
    expect(find({ ...draw(GOOD), controls: { key: ['off', 'on'], spare: ['a'] } }, 'unusedControl')).toEqual({
      code: 'unusedControl',
      control: 'spare',
    });
  });

  it.each([
    ['battery, fuse 5, key switch, plug, coil 9', 'floating'],
    ['battery, fuse 5, key switch, plug, coil 9', 'noReturn'],
    ['battery 12.6, fuse 1, key switch, plug, coil 9, ground', 'fuseSmall'],
    ['battery, key switch, wire, coil 9, wire, ground', 'cannotBeAlone'],
    [GOOD, 'noIsolation'],
    ['@B+, fuse 5, key switch, plug, coil 9, ground', 'noSource'],
  ] as const)('one press mends it: %s, %s', (text, code) => {
    const circuit = draw(text);
    const finding = find(circuit, code);
    const mended = mendCircuit(circuit, finding)!;
    expect(checkCircuit(mended).filter((one) => JSON.stringify(one) === JSON.stringify(finding))).toEqual([]);
    expect(codes(mended)).not.toContain('broken');
    // A supply that is put in has figures that nobody has said yet.
    const others = (one: Circuit) => checkCircuit(one).filter((other) => other.code !== 'usualFigure').length;
    expect(others(mended)).toBeLessThan(others(circuit));
  });

  it('a fuse whose rating nobody said bears what the drawing draws, and goes at a short all the same', () => {
    const text = (fuse: string) => `battery 24, ${fuse}, key switch, motor 0.8, ground`;
    const opened = (circuit: Circuit, setup: Setup) => {
      const { devices, state } = new CircuitModel(circuit).situation(setup).solve({ mode: 'live' });
      return devices.some(({ kind }, at) => kind === 'fuse' && state[at] === 1);
    };
    expect(codes(draw(text('fuse 10')))).toContain('fuseSmall');
    const unsaid = draw(text('fuse'));
    expect(codes(unsaid)).not.toContain('fuseSmall');
    const controls = new CircuitModel(unsaid).combinations.at(-1)!;
    expect(opened(unsaid, { controls })).toBe(false);
    const [motor] = unsaid.parts.filter(({ kind }) => kind === 'motor');
    const ends = Object.values(motor!.nodes) as [string, string];
    expect(opened(unsaid, { controls, jumpers: [ends] })).toBe(true);
  });

  it('what nobody has said of a label is named, stands broad, and is said by typing it', () => {
    const circuit = draw('battery, fuse, key switch, plug, coil, ground');
    const unsaid = checkCircuit(circuit).flatMap((one) => (one.code === 'usualFigure' ? [one] : []));
    expect(unsaid).toEqual([
      { code: 'usualFigure', part: 'G1', figures: { volts: 12.6 } },
      { code: 'usualFigure', part: 'F1', figures: { amps: 10 } },
    ]);
    expect(find(circuit, 'noValue')).toEqual({ code: 'noValue', part: 'Y1' });
    const coilOf = (one: Circuit) =>
      new CircuitModel(one).compiled.parts.find(({ part }) => part.ref === 'Y1')!;
    expect(coilOf(circuit).branches[0]).toMatchObject({ ohmsKnown: false, tolerance: 3 });
    const said = changePart(circuit, 'Y1', { ohms: 21 });
    expect(coilOf(said).branches[0]).toMatchObject({ ohms: 21, ohmsKnown: true, tolerance: 0.08 });
    expect(checkCircuit(said).map((one) => 'part' in one && one.part)).not.toContain('Y1');
    // What goes with a figure goes with it, and is not said either.
    const drawn = draw('battery 12.6, fuse 5, key switch, plug, coil 9, ground');
    const { part } = coilOf(changePart(drawn, 'Y1', { ohms: 18 }));
    expect(part.assumed).toEqual(['pullInAmps', 'holdAmps']);
    expect(part.kind === 'coil' && part.pullInAmps).toBeCloseTo(0.42, 2);
    // The same figure typed is a figure said.
    expect(
      changePart(circuit, 'F1', { amps: 10 }).parts.find(({ ref }) => ref === 'F1')!.assumed,
    ).toBeUndefined();
    const watts = draw('battery 24, fuse 5, key switch, plug, coil 18 W, ground');
    expect(coilOf(watts).branches[0]!.ohmsKnown).toBe(true);
  });

  it('a switch point that goes with the other keeps its side of it', () => {
    const drawn = draw('battery 24, fuse 5, pressure switch, coil 30, ground');
    const { parts } = changePart(drawn, 'B1', { makeKPa: 200 });
    expect(parts.find(({ ref }) => ref === 'B1')).toMatchObject({
      makeKPa: 200,
      breakKPa: 150,
      assumed: ['breakKPa'],
    });
  });

  it('say nothing grave about any template', () => {
    for (const { build, id } of TEMPLATES) {
      const grave = checkCircuit(build()).filter(
        ({ code }) => !['noIsolation', 'cannotBeAlone'].includes(code),
      );
      expect([id, grave]).toEqual([id, []]);
    }
  });
});

describe('edits', () => {
  const circuit = draw(GOOD);
  const refs = (one: Circuit) => one.parts.map(({ ref }) => ref);

  it('a part taken out of a run leaves the run closed', () => {
    const without = removePart(circuit, 'W1');
    expect(refs(without)).not.toContain('W1');
    expect(without.parts.find(({ ref }) => ref === 'S1')!.nodes).toEqual({ '1': 'F1:2', '2': 'S1:2' });
    expect(codes(without)).toEqual(['noIsolation', 'guardUnanswered', 'electronicUnanswered']);
  });

  it('a diode across a coil leaves the coil where it is', () => {
    const both = draw(`${GOOD}; diode across Y1`);
    expect(refs(removePart(both, 'V1'))).toEqual(refs(circuit));
    expect(removePart(both, 'V1').parts).toEqual(circuit.parts);
  });

  it('the supply and the frame are never made one', () => {
    const short = removePart(draw('battery, coil 9, ground'), 'Y1');
    expect(short.parts.map(({ nodes }) => nodes)).toEqual([{ '+': 'B+', '-': 'GND' }]);
  });

  it('parts put in before another stand between it and what fed it', () => {
    const { circuit: more } = insertBefore({ circuit, at: null }, 'Y1', 'wire W9, plug X7');
    const nodes = Object.fromEntries(more.parts.map((one) => [one.ref, Object.values(one.nodes)]));
    expect(nodes['W9']![0]).toBe('X1.1:2');
    expect(nodes['X7.1']![0]).toBe(nodes['W9']![1]);
    expect(nodes['Y1']![0]).toBe(nodes['X7.1']![1]);
  });

  it('a changed part is checked as a file is, and a new name is followed', () => {
    expect(() => changePart(circuit, 'F1', { amps: -3 })).toThrow(/parts\[1\].amps/);
    const air = draw(
      'battery 24, fuse 3, key switch, plug, coil Y3 48, ground; air 700, valve 3/2 Y3, cylinder',
    );
    const renamed = changePart(air, 'Y3', { ref: 'Y9' });
    expect(renamed.parts.find(({ kind }) => kind === 'valve')).toMatchObject({ coil: 'Y9' });
    expect(renameNode(circuit, 'GND', 'PE')).toMatchObject({ frame: 'PE' });
  });
});

describe('comparing two versions', () => {
  it('is empty for the same circuit, whatever order its keys stand in', () => {
    const circuit = draw(GOOD);
    const shuffled = parseCircuit(JSON.parse(JSON.stringify({ ...circuit, parts: circuit.parts })));
    expect(compareCircuits(circuit, shuffled)).toEqual([]);
  });

  it('names what came, went and changed', () => {
    const before = draw(GOOD);
    const after = changePart(removePart(before, 'W2'), 'F1', { amps: 7.5 });
    const more = layChains({ circuit: after, at: null }, 'after F1, aux switch, lamp H1 6, ground').circuit;
    expect(compareCircuits(before, more)).toEqual(
      expect.arrayContaining([
        { is: 'removed', part: 'W2', kind: 'wire' },
        { is: 'changed', part: 'F1', key: 'amps', before: '5', after: '7.5' },
        { is: 'added', part: 'H1', kind: 'lamp' },
        { is: 'control', control: 'aux', before: '', after: 'off, on' },
      ]),
    );
  });
});
