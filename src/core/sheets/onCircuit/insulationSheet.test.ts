import { demoCircuit } from '@/testing/demoCircuits';
import { CircuitModel } from '../../circuit/model';
import type { Circuit, Reading } from '../../circuit/schema';
import { Diagnoser } from '../../diagnosis/diagnose';
import { singleCoil, twoWayPair, winchPack } from '../../templates/electrical';
import { airClamp } from '../../templates/fluid';
import type { InsulationAnswer } from '../insulation/insulation';
import { jobSheet, sheetsOfCircuit } from './build';
import { type JobSheet } from './jobSheet';

import { follow, MARKS, template, verdicts } from '../testing/followSheet';

describe('insulation in a job', () => {
  it('insulation: the conductor that leaks', () => {
    const { sheet } = follow(twoWayPair(), 'insulation', ['Y1', 'weakInsulation', 2e5]);
    expect(Object.values(verdicts(sheet))).toContain('bad');
    expect(Object.values(verdicts(follow(singleCoil(), 'insulation').sheet))).not.toContain('bad');
    expect(follow(twoWayPair(), 'insulation').sheet.held).toMatchObject([{ source: 'IEC 60364-6' }]);
    // A leaking wire reads bad at both its ends, and the wire alone lies on both.
    const { sheet: pump } = follow(demoCircuit('pump-fill-valve'), 'insulation', [
      'W41',
      'weakInsulation',
      3e5,
    ]);
    expect(pump.liesOn).toEqual(['W41']);
    const { nodeIndex } = new CircuitModel(demoCircuit('pump-fill-valve')).compiled;
    const order = pump.rows.flatMap(({ name, cut, between }) =>
      cut || between ? [] : [nodeIndex.get(name)!],
    );
    expect(order).toEqual([...order].sort((a, b) => a - b));
  });
  it('insulation: what is closed and should be open reads like a leak, and is named beside what may leak there', () => {
    const liesOn = (circuit: Circuit, ref: string, fault: string) =>
      follow(circuit, 'insulation', [ref, fault]).sheet.liesOn;
    expect(liesOn(template('contactor-two-supplies'), 'S1', 'bridged')).toEqual(['S1', 'W2']);
    expect(liesOn(template('level-control'), 'K1', 'welded')).toContain('K1');
    expect(liesOn(demoCircuit('groomer-tiller-float'), 'V14', 'short')).toContain('V14');
    expect(liesOn(winchPack(), 'K2', 'welded')).toContain('K2');
    // Two hundred kilohms are no weld.
    const { sheet } = follow(template('contactor-two-supplies'), 'insulation', ['W2', 'weakInsulation', 2e5]);
    expect(sheet.liesOn).toEqual(['W2']);
  });
  it('insulation: a plug in the middle of what leaks is taken off, and one side of it read', () => {
    const { sheet } = follow(demoCircuit('groomer-blade-tilt'), 'insulation', ['W14', 'weakInsulation', 2e5]);
    const cuts = sheet.rows.filter(({ cut }) => cut);
    expect(cuts.map(({ cut, verdict }) => [cut, verdict])).toEqual([['X31', 'bad']]);
    expect(cuts[0]!.cells[0]!.test.setup.unplugged).toContain('X31');
  });
  it('insulation: of a timed run the longest counts, here and for the engine; the early ones are no other opinion', () => {
    const circuit = demoCircuit('pump-fill-valve');
    const model = new CircuitModel(circuit);
    const { test } = jobSheet(model, 'insulation', [], MARKS)!.rows[0]!.cells[0]!;
    const run = ([30, 60] as const).map(
      (seconds, k) => ({ ...test, value: [4e8, 9e8][k], seconds }) as Reading,
    );
    const sheet = jobSheet(model, 'insulation', run, MARKS)!;
    expect(sheet.rows[0]!.cells[0]!.value).toBe(9e8);
    const cells = sheet.answers.flatMap((answer) => (answer as InsulationAnswer).cells);
    expect(cells.find(({ ratio }) => ratio !== null)!.ratio).toBeCloseTo(2.25, 6);
    const shares = (readings: Reading[]) =>
      new Diagnoser(circuit).diagnose(readings).suspects.map(({ share }) => share);
    expect(shares(run)).toEqual(shares([{ ...test, value: 9e8 } as Reading]));
    expect(shares(run.toReversed())).toEqual(shares(run));
  });
  it('conductors: each pair by itself; two that touch leak to each other and to nothing else', () => {
    const circuit = demoCircuit('groomer-blade-tilt');
    const { sheet, readings } = follow(circuit, 'conductors', ['W14+W15', 'shortBetween', 3e4]);
    const { conductors, bad } = pairsOf(sheet);
    expect(bad).toEqual(['W15 W14']);
    // To the frame and to each other, each once.
    expect(readings).toHaveLength((conductors * (conductors + 1)) / 2);
    expect(
      readings.slice(0, conductors).every(({ kind, ...one }) => kind === 'insulation' && 'to' in one),
    ).toBe(true);
    const first = readings.findIndex(({ value }) => value !== 'OL');
    // What runs beside each other is read before what does not.
    expect(first).toBeLessThan(conductors + 3);
    const { sheet: leaking } = follow(circuit, 'conductors', ['W14', 'weakInsulation', 2e5]);
    expect(pairsOf(leaking).bad).toEqual(['W14 GND']);
    expect(pairsOf(follow(circuit, 'conductors').sheet).bad).toEqual([]);
    expect(jobSheet(new CircuitModel(airClamp()), 'conductors', [], MARKS)?.name ?? null).toBe(
      sheetsOfCircuit(new CircuitModel(airClamp())).includes('conductors') ? 'conductors' : null,
    );

    function pairsOf({ rows, columns, verdicts: said }: JobSheet) {
      return {
        conductors: rows.length,
        bad: rows.flatMap(({ name }, r) =>
          said![r]!.flatMap((one, c) => (one === 'bad' ? [`${name} ${columns[c]!}`] : [])),
        ),
      };
    }
  });
  it('insulation: two wires of a loom against each other, and the engine names both', () => {
    const circuit = demoCircuit('groomer-blade-tilt');
    const { sheet, readings } = follow(circuit, 'insulation', ['W14+W15', 'shortBetween', 0.5]);
    const bad = sheet.rows.filter(({ verdict }) => verdict === 'bad');
    expect(bad.map(({ between }) => between)).toEqual([['X31:1', 'X31:2']]);
    expect(sheet.liesOn).toEqual([]);
    const complaint = follow(circuit, 'functions', ['W14+W15', 'shortBetween', 0.5]).readings;
    const [first] = new Diagnoser(circuit).diagnose([...complaint, ...readings]).suspects;
    expect(first).toMatchObject({ part: 'W14', fault: 'shortBetween', other: 'W15' });
  });
});
