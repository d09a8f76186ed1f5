import { demoCircuit } from '@/testing/demoCircuits';
import type { Circuit } from '../circuit/schema';
import { CircuitModel } from '../circuit/model';
import { Diagnoser } from '../diagnosis/diagnose';
import { airClamp, hydraulicLift } from '../templates/fluid';
import { entryWriter } from '../testing/entryWriter';
import { freeChecks } from './freeChecks';
import { reduceJob } from './reduceJob';
import { weighOptions } from './rules/weighOptions';

describe('how far a throttle is open', () => {
  it('is asked of air and oil, not of what meters refrigerant', () => {
    const throttles = (circuit: Circuit) =>
      freeChecks(new CircuitModel(circuit))
        .filter(({ kind }) => kind === 'throttle')
        .map(({ subject }) => subject);
    expect(throttles(airClamp())).toEqual(['R4', 'R2']);
    expect(throttles(demoCircuit('cellar-liquid-valve'))).toEqual([]);
  });
  it('screwed in it is accused, as it was set it is nearly cleared', () => {
    const circuit = airClamp();
    const write = entryWriter();
    const blocked = (finding: 'good' | 'bad' | 'notSeen') => {
      const state = reduceJob([write('looked', { check: 'throttle R2', finding })]);
      const weak = {
        kind: 'function',
        part: 'C1',
        setup: { controls: { bit: '1' } },
        value: 'weak',
      } as const;
      const { suspects } = new Diagnoser(circuit).diagnose([weak], weighOptions(state, {}, 1));
      return suspects.find(({ part, fault }) => part === 'R2' && fault === 'blocked')?.share ?? 0;
    };
    const [unseen, asSet, turnedIn] = [blocked('notSeen'), blocked('good'), blocked('bad')];
    expect(asSet).toBeLessThan(0.5 * unseen);
    expect(turnedIn).toBeGreaterThan(3 * unseen);
  });
});

describe('a rod moved by hand', () => {
  it('is asked of what air or vacuum moves, never of oil', () => {
    const rods = (circuit: ReturnType<typeof airClamp>) =>
      freeChecks(new CircuitModel(circuit)).filter(({ kind }) => kind === 'rod');
    expect(rods(airClamp()).map(({ id }) => id)).toEqual(['rod C1']);
    expect(rods(hydraulicLift())).toEqual([]);
  });

  it('that goes freely clears the cylinder of being jammed, one that does not accuses it', () => {
    const circuit = airClamp();
    const write = entryWriter();
    const jammed = (finding: 'good' | 'bad' | 'notSeen') => {
      const state = reduceJob([write('looked', { check: 'rod C1', finding })]);
      const dead = {
        kind: 'function',
        part: 'C1',
        setup: { controls: { bit: '1' } },
        value: 'dead',
      } as const;
      const { suspects } = new Diagnoser(circuit).diagnose([dead], weighOptions(state, {}, 1));
      return suspects.find(({ part, fault }) => part === 'C1' && fault === 'jammed')?.share ?? 0;
    };
    const [unseen, free, stuck] = [jammed('notSeen'), jammed('good'), jammed('bad')];
    expect(free).toBeLessThan(0.2 * unseen);
    expect(stuck).toBeGreaterThan(4 * unseen);
  });
});
