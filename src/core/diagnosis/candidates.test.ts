import { demoCircuit, demoCircuits } from '@/testing/demoCircuits';
import { readFileSync } from 'node:fs';
import { CircuitModel, setupKey } from '../circuit/model';
import { parseCase } from '../circuit/parse';
import { setupMinutes } from './access';
import { listCandidateTests } from './candidateTests';
import { cautionsOf } from './cautionsOf';
import { NO_FAULT_PRIOR } from './faultFrequency';
import { unplugTests } from './codeEvidence';
import { faultByName, listFaults } from './faults';
import { testKey } from './observations';
import { workingPatterns } from './patterns';
import { isGroundStud, powerOff } from './setApart';

const load = (name: string) => new CircuitModel(demoCircuit(name));
const tilt = load('groomer-blade-tilt');

describe.each(demoCircuits())('$name', ({ circuit }) => {
  const model = new CircuitModel(circuit);

  it('has fault odds that add, with “nothing wrong”, to one, and a place for each of the contract’s faults', () => {
    const faults = listFaults(model);
    expect(faults.reduce((sum, { prior }) => sum + prior, NO_FAULT_PRIOR)).toBeCloseTo(1, 9);
    for (const { variants, severity } of faults) {
      expect(variants.reduce((sum, { weight }) => sum + weight, 0)).toBeCloseTo(1, 9);
      if (severity) {
        const { least, mainLeast, mainMost, most } = severity;
        expect(least).toBeLessThanOrEqual(mainLeast);
        expect(mainLeast).toBeLessThan(mainMost);
        expect(mainMost).toBeLessThanOrEqual(most);
      }
    }
    const namesOf = (ref: string) => faults.filter((one) => one.ref === ref).map(({ fault }) => fault);
    for (const { part } of model.compiled.parts) {
      if (part.kind === 'coil') {
        expect(namesOf(part.ref)).toEqual(
          expect.arrayContaining(['open', 'shortedTurns', 'shortToFrame', 'weakInsulation']),
        );
      }
      if (part.kind === 'wire')
        expect(namesOf(part.ref)).toEqual(expect.arrayContaining(['open', 'highResistance']));
      if (part.kind === 'source') expect(namesOf(part.ref)).toEqual(['noOutput', 'lowVoltage']);
      if (part.kind === 'diode') expect(namesOf(part.ref)).toEqual(['open', 'short', 'reversed']);
    }
  });

  it('offers only tests with different questions, each with time and, where it matters, a caution', () => {
    const { tests } = listCandidateTests(model);
    expect(new Set(tests.map(({ key }) => key)).size).toBe(tests.length);
    for (const { bound, minutes } of tests) {
      const cautions = cautionsOf(model, bound.test);
      expect(minutes).toBeGreaterThan(0.2);
      const { kind } = bound.test;
      if (kind === 'ohms' || kind === 'diode') expect(cautions).toContain('powerOff');
      if (kind === 'insulation') expect(cautions).toContain('testerVolts');
      if (kind === 'volts' && model.compiled.supplyVolts > 50) expect(cautions).toContain('lineVolts');
      if (kind === 'function' || kind === 'click') expect(cautions).toContain('moves');
      if (kind === 'fuse') expect(cautions).toContain('mayBlowFuse');
    }
  });

  it('keeps live work out when asked to', () => {
    const kinds = listCandidateTests(model, { noLiveWork: true }).tests.map(({ bound }) => bound.test.kind);
    expect(kinds).not.toContain('volts');
    expect(kinds).not.toContain('amps');
  });

  it('feeds every load in some control position', () => {
    const fed = new Set(workingPatterns(model).flatMap(({ loads }) => loads));
    for (const { part } of model.compiled.parts) {
      if (['coil', 'motor', 'heater', 'lamp'].includes(part.kind)) expect(fed).toContain(part.ref);
    }
  });
});

describe('the tilt circuit', () => {
  it('is made dead by its one fuse', () => {
    expect(powerOff(tilt)).toEqual({ pulled: ['F7'] });
    expect(powerOff(load('winch-reversing'))).toEqual({ isolated: ['G1'] });
  });

  it('takes set-ups for what they mean, not for how they are written', () => {
    const one = { controls: { key: 'on', tilt: 'left' }, pulled: ['F7', 'G1'] };
    const two = { pulled: ['G1', 'F7'], controls: { tilt: 'left', key: 'on' } };
    expect(setupKey(one)).toBe(setupKey(two));
    const test = { kind: 'ohms' as const, from: 'Y8:1', to: 'GND' };
    expect(testKey({ ...test, setup: one })).toBe(testKey({ ...test, setup: two }));
    expect(testKey({ ...test, from: 'GND', to: 'Y8:1', setup: one })).not.toBe(
      testKey({ ...test, setup: one }),
    );
  });

  it('counts what it takes to change the set-up', () => {
    expect(setupMinutes(tilt, {}, {})).toBe(0);
    const unplug = setupMinutes(tilt, {}, { unplugged: ['X8'] });
    expect(unplug).toBeGreaterThan(setupMinutes(tilt, {}, { pulled: ['F7'] }));
    expect(setupMinutes(tilt, { unplugged: ['X8'] }, { unplugged: ['X8'] })).toBe(0);
  });

  it('raises wiring faults after work on the machine, and worn parts', () => {
    const { circuit } = tilt.compiled;
    const prior = (model: CircuitModel, ref: string, fault: string) =>
      faultByName(listFaults(model), ref, fault).fault.prior;
    const worked = new CircuitModel({ ...circuit, environment: { worked: true } });
    const plain = new CircuitModel({ ...circuit, environment: {} });
    expect(prior(worked, 'W15', 'open') / prior(worked, 'Y8', 'open')).toBeGreaterThan(
      1.5 * (prior(plain, 'W15', 'open') / prior(plain, 'Y8', 'open')),
    );
    const worn = new CircuitModel({
      ...circuit,
      parts: circuit.parts.map((part) => (part.ref === 'Y8' ? { ...part, wear: 5 } : part)),
    });
    expect(prior(worn, 'Y8', 'open')).toBeGreaterThan(3 * prior(tilt, 'Y8', 'open'));
  });
});

describe('bad input', () => {
  const good = JSON.parse(readFileSync('demo/cases/tilt-right-dead.case.json', 'utf8')) as Record<
    string,
    unknown
  >;
  const circuit = good.circuit as Record<string, unknown> & { parts: Record<string, unknown>[] };
  const part = (change: Record<string, unknown>) => ({
    ...good,
    circuit: { ...circuit, parts: [{ ...circuit.parts[0], ...change }, ...circuit.parts.slice(1)] },
  });
  it.each([
    [{ ...good, format: 'other' }, /^format: .*given "other"/],
    [{ ...good, circuit: { ...circuit, parts: [] } }, /^circuit\.parts: /],
    [part({ volts: 'many' }), /^circuit\.parts\[0\]\.volts: .*given "many"/],
    [part({ kind: 'dynamo' }), /^circuit\.parts\[0\]\.kind: /],
    [part({ nodes: { '+': 'B+' } }), /^circuit\.parts\[0\]\.nodes\.-: .*nothing given/],
    [
      { ...good, readings: [{ kind: 'ohms', from: 'B+', to: 'GND', value: 'lots' }] },
      /^readings\[0\]\.value: /,
    ],
    [null, /^case: /],
  ])('names the field and what was given (%#)', (data, message) => {
    expect(() => parseCase(data)).toThrow(message as RegExp);
  });
});

describe('a ground stud', () => {
  const model = load('groomer-tiller-float');
  it('is told from a plug, and nothing unplugs it', () => {
    expect(isGroundStud(model, 'R2')).toBe(true);
    expect(isGroundStud(model, 'X31')).toBe(false);
    const off = listCandidateTests(model).tests.flatMap(({ bound }) => bound.test.setup.unplugged ?? []);
    expect(off).toContain('X31');
    expect(off).not.toContain('R2');
    expect(unplugTests(model).flatMap(({ setup }) => setup.unplugged)).toEqual(['X31']);
  });
});
