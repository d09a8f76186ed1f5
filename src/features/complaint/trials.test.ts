import { demoCircuit } from '@/testing/demoCircuits';
import { CircuitModel } from '@/core/circuit/model';
import { Diagnoser } from '@/core/diagnosis/diagnose';
import { bindTest } from '@/core/diagnosis/predict';
import { testKey } from '@/core/diagnosis/observations';
import { findLanes } from '@/core/path/lanes';
import { TEMPLATES } from '@/core/templates/templates';
import { answerTo } from '@/core/job/answerTo';
import { complaintTrials } from './trials';

const speakerOf = (id: string) => {
  const model = new CircuitModel(TEMPLATES.find((one) => one.id === id)!.build());
  return { model, lanes: findLanes(model), gaugeUnit: 'bar' as const };
};

describe('what is asked about a complaint', () => {
  it('is each movement in its own position, and each fuse where something is fed', () => {
    const { functions, fuses } = complaintTrials(speakerOf('two-way-pair'));
    expect(functions.map(({ test }) => 'part' in test && test.part).sort()).toEqual(['Y1', 'Y2']);
    const positions = functions.map(({ position }) => position);
    expect(new Set(positions).size).toBe(2);
    expect(fuses.length).toBeGreaterThan(0);
    for (const { answers } of functions) expect(answers).toEqual(['works', 'weak', 'dead']);
    for (const { answers } of fuses) expect(answers).toEqual(['holds', 'blows']);
  });

  it.each(TEMPLATES.map(({ id }) => id))('can be asked and answered on every template: %s', (id) => {
    const speaker = speakerOf(id);
    const { functions, fuses } = complaintTrials(speaker);
    // A sensor alone does no work that an operator would see.
    if (id !== 'three-wire-sensor') expect(functions.length).toBeGreaterThan(0);
    const keys = [...functions, ...fuses].map(({ test }) => testKey(test));
    expect(new Set(keys).size).toBe(keys.length);
    for (const { test, label } of [...functions, ...fuses]) {
      expect(() => bindTest(speaker.model, test)).not.toThrow();
      expect(label).not.toMatch(/undefined/);
      // Nothing that an operator would not see.
      const part =
        'part' in test ? speaker.model.compiled.circuit.parts.find(({ ref }) => ref === test.part)! : null;
      expect(part!.kind).not.toMatch(/relay|resistor/);
    }
  });

  it('is how far the machine’s own gauge got, where the drawing has one', () => {
    const model = new CircuitModel(demoCircuit('heater-flap'));
    const { gauges } = complaintTrials({ model, lanes: findLanes(model), gaugeUnit: 'bar' });
    expect(gauges).toHaveLength(2);
    for (const { label, answers } of gauges) {
      expect(label).toBe('Cab heat gauge');
      expect(answers).toEqual(['zero', 'underHalf', 'half', 'overHalf', 'full']);
    }
    expect(complaintTrials(speakerOf('vacuum-vent')).gauges).toEqual([]);
  });

  it('tells more than nothing: an answer moves the doubt', () => {
    const speaker = speakerOf('two-way-pair');
    const [first] = complaintTrials(speaker).functions;
    const diagnoser = new Diagnoser(speaker.model.compiled.circuit);
    const reading = { ...first!.test, value: 'dead' } as Parameters<typeof diagnoser.diagnose>[0][number];
    const before = diagnoser.diagnose([]).noFault;
    expect(diagnoser.diagnose([reading]).noFault).toBeLessThan(0.2 * before);
  });

  it('finds the answer that was pinned last', () => {
    const [first, second] = complaintTrials(speakerOf('two-way-pair')).functions;
    const pinned = ['works', 'dead'].map((value) => ({
      reading: { ...first!.test, value } as Parameters<typeof answerTo>[0][number]['reading'],
    }));
    expect(answerTo(pinned, first!.test)!.reading.value).toBe('dead');
    expect(answerTo(pinned, second!.test)).toBeUndefined();
  });
});
