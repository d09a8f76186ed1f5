import { CircuitModel } from '../circuit/model';
import type { Reading } from '../circuit/schema';
import { driverHighSide, singleCoil, twinOutputs } from '../templates/electrical';
import { codeCandidates } from './codeCandidates';
import { codedDrivers, codeReading, swapTests, unplugTests } from './codeEvidence';
import { Diagnoser } from './diagnose';

describe('codes as evidence', () => {
  const circuit = driverHighSide();
  const [driver] = codedDrivers(new CircuitModel(circuit));

  it('knows which outputs set codes, and when they are commanded', () => {
    expect(codedDrivers(new CircuitModel(singleCoil()))).toEqual([]);
    expect(driver!.modes).toContain(5);
    expect(Object.keys(driver!.setup.controls ?? {})).not.toHaveLength(0);
  });

  it('a code accuses what would set it; no code where one should be clears that', () => {
    const diagnoser = new Diagnoser(circuit);
    const doubt = (modes: number[], names: string[]) =>
      diagnoser
        .diagnose([codeReading(driver!, modes)])
        .suspects.filter(({ fault }) => names.includes(fault))
        .reduce((sum, { share }) => sum + share, 0);
    const breaks = ['open', 'highResistance'];
    expect(doubt([5], breaks)).toBeGreaterThan(0.8);
    expect(doubt([6], breaks)).toBeLessThan(0.1);
    expect(doubt([], breaks)).toBeLessThan(doubt([5], breaks) * 0.6);
  });

  it('offers to take off each plug that the driver feeds, and the answer says on which side the fault is', () => {
    const tests = unplugTests(new CircuitModel(circuit));
    expect(tests.map(({ setup }) => setup.unplugged)).toEqual([['X10'], ['X1']]);
    const [, atCoil] = tests;
    const diagnoser = new Diagnoser(circuit);
    const before = codeReading(driver!, [6]);
    const doubt = (value: number[], parts: string[]) =>
      diagnoser
        .diagnose([before, { ...atCoil!, value } as Reading])
        .suspects.filter(({ part }) => parts.includes(part))
        .reduce((sum, { share }) => sum + share, 0);
    expect(doubt([5], ['Y1', 'W3'])).toBeGreaterThan(0.9);
    expect(doubt([6], ['A1', 'W2'])).toBeGreaterThan(0.9);
  });

  it('offers to swap alike loads: the code goes along with a bad coil and stays with a bad place', () => {
    const twins = twinOutputs();
    const model = new CircuitModel(twins);
    const [one] = codedDrivers(model);
    const test = swapTests(model).find((each) => each.kind === 'code' && each.part === one!.part)!;
    const diagnoser = new Diagnoser(twins);
    const doubt = (value: number[], kind: string) =>
      diagnoser
        .diagnose([codeReading(one!, [5]), { ...test, value } as Reading])
        .suspects.filter(({ part }) => twins.parts.find(({ ref }) => ref === part)!.kind === kind)
        .reduce((sum, { share }) => sum + share, 0);
    expect(doubt([], 'coil')).toBeGreaterThan(0.8);
    expect(doubt([5], 'coil')).toBeLessThan(0.1);
  });

  it('lists the functions a code may be about by how often they would set it', () => {
    const functions = [
      { name: 'float', circuit },
      { name: 'twins', circuit: twinOutputs() },
      { name: 'plain', circuit: singleCoil() },
    ];
    const candidates = codeCandidates(functions, 5);
    expect(candidates.length).toBeGreaterThanOrEqual(2);
    expect(candidates.map(({ of }) => of.name)).not.toContain('plain');
    expect(candidates.reduce((sum, { share }) => sum + share, 0)).toBeCloseTo(1, 9);
    expect([...candidates].sort((a, b) => b.share - a.share)).toEqual(candidates);
    // A connection that wears ten times as fast makes its function the likelier one.
    const worn = structuredClone(circuit);
    worn.parts.forEach((part) => (part.wear = 10));
    const [first] = codeCandidates(
      [
        { name: 'worn', circuit: worn },
        { name: 'float', circuit },
      ],
      5,
    );
    expect(first!.of.name).toBe('worn');
    expect(first!.share).toBeCloseTo(10 / 11, 2);
  });

  it('keeps to the driver that a book names', () => {
    const twins = twinOutputs();
    const [one] = codedDrivers(new CircuitModel(twins));
    expect(codeCandidates([{ circuit: twins, part: one!.part }], 5).map((each) => each.driver.part)).toEqual([
      one!.part,
    ]);
  });
});
