import { demoCircuit } from '@/testing/demoCircuits';
import type { Circuit } from '../circuit/schema';
import { CircuitModel } from '../circuit/model';
import { Diagnoser } from '../diagnosis/diagnose';
import { winchPack } from '../templates/electrical';
import { airClamp, hydraulicLift } from '../templates/fluid';
import { entryWriter } from '../testing/entryWriter';
import { freeChecks } from './freeChecks';
import { looksLeft } from './looksLeft';
import { reduceJob } from './reduceJob';
import { handedBy, weighOptions } from './rules/weighOptions';

const LIFT = demoCircuit('groomer-tiller-lift');
const LIFTS = { hydraulics: 'free', lever: 'lift' };
const askedOf = (circuit: Circuit, wanted: string) =>
  freeChecks(new CircuitModel(circuit)).flatMap(({ id, kind }) => (kind === wanted ? [id] : []));

/** Share of the doubt on a fault of a clamp that was told to be weak or dead, with a check unseen, good and bad. */
function sharesBy(
  check: string,
  told: 'weak' | 'dead',
  of: { part: string; fault: string },
  circuit = airClamp(),
  controls: Record<string, string> = { bit: '1' },
  watched = 'C1',
) {
  const write = entryWriter();
  const setup = { controls };
  return (['notSeen', 'good', 'bad'] as const).map((finding) => {
    const state = reduceJob([write('looked', { check, finding })]);
    const { suspects } = new Diagnoser(circuit).diagnose(
      [{ kind: 'function', part: watched, setup, value: told }],
      weighOptions(state, {}, 1),
    );
    return suspects.find(({ part, fault }) => part === of.part && fault === of.fault)?.share ?? 0;
  }) as [unseen: number, good: number, bad: number];
}

describe('how far a throttle is open', () => {
  it('is asked of air and oil, not of what meters refrigerant', () => {
    expect(askedOf(airClamp(), 'throttle')).toEqual(['throttle R4', 'throttle R2']);
    expect(askedOf(demoCircuit('cellar-liquid-valve'), 'throttle')).toEqual([]);
  });
  it('screwed in it is accused, as it was set it is nearly cleared', () => {
    const [unseen, asSet, turnedIn] = sharesBy('throttle R2', 'weak', { part: 'R2', fault: 'blocked' });
    expect(asSet).toBeLessThan(0.5 * unseen);
    expect(turnedIn).toBeGreaterThan(3 * unseen);
  });
});

describe('a rod moved by hand', () => {
  it('is asked of what air or vacuum moves, never of oil', () => {
    expect(askedOf(airClamp(), 'rod')).toEqual(['rod C1']);
    expect(askedOf(hydraulicLift(), 'rod')).toEqual([]);
  });
  it('that goes freely clears the cylinder of being jammed, one that does not accuses it', () => {
    const [unseen, free, stuck] = sharesBy('rod C1', 'dead', { part: 'C1', fault: 'jammed' });
    expect(free).toBeLessThan(0.2 * unseen);
    expect(stuck).toBeGreaterThan(4 * unseen);
  });
});

describe('a rotor turned by hand', () => {
  it('is asked of every motor, with the machine made safe', () => {
    expect(askedOf(winchPack(), 'rotor')).toEqual(['rotor M']);
    expect(handedBy('rotor M')).toBe('M');
    expect(handedBy('rotor')).not.toBeNull();
    expect(handedBy('throttle R2')).toBeNull();
  });
  it('that turns is not seized, one that does not is', () => {
    const of = { part: 'M', fault: 'jammed' };
    const [unseen, turns, held] = sharesBy('rotor M', 'dead', of, winchPack(), { pendant: 'out' }, 'M');
    expect(unseen).toBeGreaterThan(0.01);
    expect(turns).toBeLessThan(0.1 * unseen);
    expect(held).toBeGreaterThan(4 * unseen);
  });
});

describe('a relief valve listened to', () => {
  it('is asked where there is one; what whistles and is hot is accused, what is silent is nearly cleared', () => {
    expect(askedOf(LIFT, 'relief')).toEqual(['relief RV1']);
    expect(askedOf(hydraulicLift(), 'relief')).toEqual([]);
    const of = { part: 'RV1', fault: 'lowPressure' };
    const [unseen, silent, whistles] = sharesBy('relief RV1', 'weak', of, LIFT, LIFTS);
    expect(silent).toBeLessThan(0.3 * unseen);
    expect(whistles).toBeGreaterThan(2 * unseen);
  });
});

describe('looks that are left', () => {
  it('are those that would say something of what is in doubt, and were not made', () => {
    const model = new CircuitModel(LIFT);
    const doubt = [
      { part: 'RV1', fault: 'lowPressure' },
      { part: 'P1', fault: 'lowPressure' },
    ] as const;
    const left = (finding: 'good' | 'notSeen' | null) => {
      const entries = finding ? [entryWriter()('looked', { check: 'relief RV1', finding })] : [];
      return looksLeft(model, reduceJob(entries), doubt).map(({ id }) => id);
    };
    expect(left(null)).toEqual(['relief RV1']);
    expect(left('notSeen')).toEqual(['relief RV1']);
    expect(left('good')).toEqual([]);
    const joint = [{ part: 'X21.2', fault: 'open' }] as const;
    expect(looksLeft(model, reduceJob([]), joint).map(({ id }) => id)).toEqual(['plug X21', 'water']);
  });
});
