import { CircuitModel } from '@/core/circuit/model';
import type { Reading } from '@/core/circuit/schema';
import { switchTest } from '@/core/diagnosis/fluidCandidates';
import { findLanes } from '@/core/path/lanes';
import { jobSheet } from '@/core/sheets/onCircuit/build';
import { shopMarks } from '@/core/tables/marks';
import { demoCircuit } from '@/testing/demoCircuits';
import { readingWords } from './readings';
import { setupSteps } from './setupSteps';
import { sheetFoundWords } from './sheetFound';

const circuit = demoCircuit('dryer-air-switch');
const model = new CircuitModel(circuit);
const speaker = { model, lanes: findLanes(model), gaugeUnit: 'bar' as const };
const airSwitch = circuit.parts.find((part) => part.kind === 'pressureSwitch')!;
const read = (edge: 'rising' | 'falling', value: number | 'OL') =>
  ({ ...switchTest(model, airSwitch, edge), value }) as Reading;
const cycle = (up: number, back: number) => [read('rising', up), read('falling', back)];
const found = (...readings: Reading[]) =>
  sheetFoundWords(speaker, jobSheet(model, 'actuation', readings, shopMarks({}))!);

describe('a pressure switch on a pump, in words', () => {
  it('nothing is said of it before three cycles but that they are wanted', () => {
    expect(found()).toEqual(['Nothing is read yet.']);
    expect(found(...cycle(5, 3))).toEqual([
      'B1: fewer than 3 cycles prove nothing.',
      'B1 makes at 0.05 bar and breaks at 0.03 bar, in the middle of its cycles.',
    ]);
  });

  it('then where it changes over, or that it does not', () => {
    expect(found(...cycle(5, 3), ...cycle(5, 3), ...cycle(5.1, 3))[0]).toBe(
      'B1 changes over where it should, every time.',
    );
    const still = read('rising', 'OL');
    expect(found(still, still, still)).toEqual(['B1 does not change over at all.']);
    expect(readingWords(speaker, still)).toBe('B1 air switch does not change over, as it is pumped up');
    expect(readingWords(speaker, read('falling', 3.2))).toBe(
      'B1 air switch changes over at 0.032 bar, as it is let go',
    );
  });

  it('its steps take the power and the line off before the pump goes on', () => {
    const steps = setupSteps(speaker, switchTest(model, airSwitch, 'falling'));
    expect(steps[0]).toMatch(/Prove it dead\.$/);
    expect(steps[1]).toMatch(/^Shut the supply and vent, then take B1 off/);
    expect(steps[2]).toMatch(/let it go slowly/);
    expect(steps).toHaveLength(3);
  });
});
