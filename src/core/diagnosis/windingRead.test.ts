import { CircuitModel } from '../circuit/model';
import type { Reading } from '../circuit/schema';
import { jobSheet } from '../sheets/onCircuit/build';
import { shopMarks } from '../tables/marks';
import { twoWayPair } from '../templates/electrical';
import { Diagnoser } from './diagnose';
import { atReference, windingRead } from './windingRead';

const circuit = twoWayPair();
const model = new CircuitModel(circuit);
const [one, two] = jobSheet(model, 'coil', [], shopMarks({}))!.rows.map(({ cells }) => cells[0]!);
const sound = one!.expected as number;
const hot = (celsius: number) => sound * (1 + 0.00393 * (celsius - 20));
const read = (value: number, celsius?: number) =>
  ({ ...one!.test, value, ...(celsius === undefined ? {} : { celsius }) }) as Reading;

describe('a winding read while it is warm', () => {
  it('is held against 20 °C by its copper; what is no winding stays as it is', () => {
    expect(windingRead(model, one!.test)!.part.part.ref).toBe('Y1');
    const cold = atReference(model, read(hot(95), 95));
    expect(cold.value).toBeCloseTo(sound, 6);
    expect(cold).not.toHaveProperty('celsius');
    const wire = { ...read(0.2, 95), from: 'S1:2', to: 'W11:2' } as Reading;
    expect(atReference(model, wire).value).toBe(0.2);
    expect(atReference(model, { ...read(1, 95), value: 'OL' } as Reading).value).toBe('OL');
  });

  it('accuses nobody at 95 °C, where the same ohms cold would', () => {
    const doubt = (reading: Reading) => {
      const { suspects } = new Diagnoser(circuit).diagnose([reading]);
      return suspects.filter(({ part }) => part === 'Y1').reduce((sum, { share }) => sum + share, 0);
    };
    const [warm, cold] = [doubt(read(hot(95), 95)), doubt(read(hot(95)))];
    expect(warm).toBeCloseTo(doubt(read(sound)), 6);
    expect(cold).toBeGreaterThan(3 * warm);
  });

  it('and its neighbour, each at its own temperature, are still alike on the sheet', () => {
    const neighbour = { ...two!.test, value: sound, celsius: 20 } as Reading;
    const sheet = jobSheet(model, 'coil', [read(hot(95), 95), neighbour], shopMarks({}))!;
    expect(sheet.rows.map(({ verdict }) => verdict)).toEqual(['good', 'good']);
    const asCold = jobSheet(model, 'coil', [read(hot(95), 20), neighbour], shopMarks({}))!;
    expect(asCold.rows[0]!.verdict).toBe('high');
  });
});
