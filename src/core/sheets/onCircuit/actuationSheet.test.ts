import { demoCircuit } from '@/testing/demoCircuits';
import { CircuitModel } from '../../circuit/model';
import type { Reading } from '../../circuit/schema';
import { switchTest } from '../../diagnosis/fluidCandidates';
import { MARKS } from '../testing/followSheet';
import type { SwitchAnswer } from './actuationSheet';
import { jobSheet, sheetsOfCircuit } from './build';
import { cellKeys } from './jobSheet';

const circuit = demoCircuit('dryer-air-switch');
const model = new CircuitModel(circuit);
const airSwitch = circuit.parts.find((part) => part.kind === 'pressureSwitch')!;
const read = (edge: 'rising' | 'falling', value: number | 'OL') =>
  ({ ...switchTest(model, airSwitch, edge), value }) as Reading;
const cycle = (up: number, back: number) => [read('rising', up), read('falling', back)];
const sheetOf = (...readings: Reading[]) => jobSheet(model, 'actuation', readings, MARKS)!;
const answerOf = (...readings: Reading[]) => sheetOf(...readings).answers[0] as SwitchAnswer;

describe('a pressure switch of a job, cycle by cycle', () => {
  it('stands where the circuit has one, and asks up and down in turn', () => {
    expect(sheetsOfCircuit(model)).toContain('actuation');
    expect(sheetsOfCircuit(new CircuitModel(demoCircuit('press-clamp')))).not.toContain('actuation');
    expect(sheetOf().next).toEqual([0, 0]);
    expect(sheetOf(read('rising', 5)).next).toEqual([0, 1]);
    expect(sheetOf(...cycle(5, 3)).next).toEqual([1, 0]);
    expect(sheetOf().rows).toHaveLength(3);
  });

  it('each cycle has its own cell, though all ask the same', () => {
    const sheet = sheetOf(...cycle(5, 3), ...cycle(5.2, 3.1));
    expect(sheet.rows.slice(0, 3).map(({ cells }) => cells.map((cell) => cell!.value))).toEqual([
      [5, 3],
      [5.2, 3.1],
      [null, null],
    ]);
    const keys = cellKeys(sheet).map(({ key }) => key);
    expect(new Set(keys).size).toBe(keys.length);
  });

  it('good, drifted, sticky, intermittent and dead are told apart', () => {
    const good = [cycle(5, 3), cycle(5.1, 3), cycle(4.9, 3.1)].flat();
    expect(answerOf(...good)).toMatchObject({ part: 'B1', verdict: 'good', makeKpa: 5, breakKpa: 3 });
    expect(sheetOf(...good).next).toBeNull();
    expect(answerOf(...[cycle(9, 5), cycle(9.1, 5), cycle(9, 5.1)].flat()).verdict).toBe('drifted');
    expect(answerOf(...[cycle(5, 3), cycle(7, 2), cycle(4.4, 3)].flat()).verdict).toBe('sticky');
    const still = read('rising', 'OL');
    expect(answerOf(...cycle(5, 3), still, ...cycle(5, 3)).verdict).toBe('intermittent');
    const dead = sheetOf(still, still, still);
    expect((dead.answers[0] as SwitchAnswer).verdict).toBe('dead');
    expect(dead.rows[0]).toMatchObject({ verdict: 'still', cells: [{ value: 'OL' }, null] });
    expect(dead.liesOn).toEqual(['B1']);
    expect(answerOf(...cycle(5, 3), ...cycle(5, 3)).verdict).toBeNull();
  });

  it('a cycle that was read with the power off another way counts', () => {
    const isolated = read('rising', 5);
    isolated.setup = { lifted: isolated.setup.lifted, isolated: ['G1'] };
    expect(sheetOf(isolated).rows[0]!.cells[0]!.value).toBe(5);
  });
});
