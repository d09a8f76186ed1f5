import type { Preferences, Reading, Test } from '../circuit/schema';
import {
  brakeRelease,
  clutchInterlocks,
  driverHighSide,
  twinOutputs,
  twoWayPair,
} from '../templates/electrical';
import { springCylinder } from '../templates/fluid';
import { gasBypass, levelControl } from '../templates/line';
import { Diagnoser } from './diagnose';
import { faultByName } from './faults';
import { bindTest, predict, predictedValue } from './predict';
import { isOnPartOf } from './onPart';

const opened = new Map<string, Diagnoser>();
const diagnoserOf = (name: string, build: () => ConstructorParameters<typeof Diagnoser>[0]) => {
  const known = opened.get(name) ?? new Diagnoser(build());
  opened.set(name, known);
  return known;
};

/** What the hidden faults would make each test read. */
function readings(diagnoser: Diagnoser, faults: [string, string, number?][], tests: Test[]): Reading[] {
  const edits = faults.flatMap(([part, fault, ohms]) => {
    const found = faultByName(diagnoser.faults, part, fault, ohms);
    return found.fault.variants[0]!.edits(found.severity);
  });
  return tests.map((test) => {
    const value = predictedValue(test.kind, predict(bindTest(diagnoser.model, test), edits));
    return { ...test, value } as Reading;
  });
}

describe('two faults at once', () => {
  const diagnoser = diagnoserOf('pair', twoWayPair);
  const forward = { controls: { lever: 'forward' } };
  const reverse = { controls: { lever: 'reverse' } };
  const apart = (part: string) => ({ pulled: ['F1'], unplugged: [part] });
  const tests: Test[] = [
    { kind: 'function', part: 'Y1', setup: forward },
    { kind: 'function', part: 'Y2', setup: reverse },
    { kind: 'ohms', from: 'X1.1:2', to: 'Y1:2', setup: apart('X1') },
    { kind: 'volts', from: 'X2.1:2', to: 'GND', setup: reverse },
    { kind: 'ohms', from: 'S2:2', to: 'W21:2', setup: { pulled: ['F1'], unplugged: ['X2'] } },
    { kind: 'ohms', from: 'X2.1:2', to: 'Y2:2', setup: apart('X2') },
  ];

  it('are found as a pair when no single one explains the readings', () => {
    const { suspects, unexplained, verdict } = diagnoser.diagnose(
      readings(
        diagnoser,
        [
          ['Y1', 'open'],
          ['W21', 'open'],
        ],
        tests,
      ),
      { most: 1 },
    );
    expect(unexplained).toBeLessThan(0.5);
    const [top] = suspects;
    expect([top!.part, top!.with?.part].sort()).toEqual(['W21', 'Y1']);
    expect(verdict.state).not.toBe('unexplained');
    expect(suspects.reduce((sum, { share }) => sum + share, 0)).toBeGreaterThan(0.9);
  });

  it('take no share from a single fault that explains everything', () => {
    const { suspects } = diagnoser.diagnose(readings(diagnoser, [['Y1', 'open']], tests), { most: 1 });
    expect(suspects[0]).toMatchObject({ part: 'Y1', fault: 'open' });
    expect(suspects[0]!.with).toBeUndefined();
    expect(suspects[0]!.share).toBeGreaterThan(0.88);
  });

  it('give one row for each part and fault', () => {
    const { suspects, noFault } = diagnoser.diagnose(
      readings(
        diagnoser,
        [
          ['Y1', 'open'],
          ['W21', 'open'],
        ],
        tests,
      ),
    );
    const keys = suspects.map(({ part, fault, other }) => `${part} ${fault} ${other}`);
    expect(new Set(keys).size).toBe(keys.length);
    expect(suspects.reduce((sum, { share }) => sum + share, noFault)).toBeCloseTo(1, 9);
  });
});

describe('what contradicts the drawing', () => {
  it('names the reading that fits worst, what it would need, and takes it again first', () => {
    const diagnoser = diagnoserOf('pair', twoWayPair);
    const dead = { pulled: ['F1'] };
    const found = diagnoser.diagnose([
      { kind: 'function', part: 'Y1', setup: { controls: { lever: 'forward' } }, value: 'works' },
      { kind: 'function', part: 'Y2', setup: { controls: { lever: 'reverse' } }, value: 'works' },
      { kind: 'ohms', from: 'S1:2', to: 'W11:2', setup: dead, value: 4700 },
      { kind: 'ohms', from: 'X2.1:2', to: 'Y2:2', setup: dead, value: 910 },
      { kind: 'ohms', from: 'R', to: 'GND', setup: dead, value: 33_000 },
    ]);
    expect(found.unexplained).toBeGreaterThan(0.5);
    if (found.verdict.state !== 'unexplained') throw new Error(found.verdict.state);
    expect(found.verdict.wouldNeed.length).toBeGreaterThan(0);
    expect(found.next[0]!.test).toMatchObject({ kind: 'ohms' });
  });
});

describe('swapping with a twin', () => {
  const diagnoser = diagnoserOf('twins', twinOutputs);
  const a = { controls: { command: 'a' } };

  it('moves a coil’s fault along, and leaves a wire’s where it is', () => {
    const swapped = { ...a, swapped: [['Y1', 'Y2'] as [string, string]] };
    const works = (fault: [string, string]) =>
      readings(
        diagnoser,
        [fault],
        [
          { kind: 'function', part: 'Y1', setup: a },
          { kind: 'function', part: 'Y1', setup: swapped },
        ],
      ).map(({ value }) => value);
    expect(works(['Y1', 'open'])).toEqual(['dead', 'works']);
    expect(works(['W11', 'open'])).toEqual(['dead', 'dead']);
  });

  it('is offered with its caution, and counts as a reading on the part', () => {
    const complaint = readings(diagnoser, [['Y1', 'open']], [{ kind: 'function', part: 'Y1', setup: a }]);
    const swap: Test = { kind: 'function', part: 'Y1', setup: { ...a, swapped: [['Y1', 'Y2']] } };
    const ranked = diagnoser.evaluate(complaint, swap);
    expect(ranked.cautions).toContain('swap');
    for (const ref of ['Y1', 'Y2'])
      expect(
        isOnPartOf(
          diagnoser.model,
          bindTest(diagnoser.model, swap),
          faultByName(diagnoser.faults, ref, 'open').fault,
        ),
      ).toBe(true);
    const after = diagnoser.diagnose([...complaint, { ...swap, value: 'works' } as Reading]);
    expect(after.suspects[0]!.part).toBe('Y1');
  });

  it('refuses parts that are not alike', () => {
    const setup = { swapped: [['Y1', 'W11'] as [string, string]] };
    expect(() => bindTest(diagnoser.model, { kind: 'function', part: 'Y1', setup })).toThrow(/not alike/);
  });
});

describe('preferences', () => {
  const clutch = diagnoserOf('clutch', clutchInterlocks);
  const all = { controls: { clutch: 'on', seat: 'down', brake: 'pressed' } };
  const dead: Reading[] = [{ kind: 'function', part: 'Y1', setup: all, value: 'dead' }];
  const kinds = (diagnoser: Diagnoser, given: Reading[], preferences: Preferences) =>
    diagnoser.diagnose(given, { preferences, most: 6 }).next.map(({ test }) => test.kind);

  it('put the wished-for school first', () => {
    expect(kinds(clutch, dead, { order: 'loadedVoltsFirst' })[0]).toBe('volts');
    expect(kinds(clutch, dead, { order: 'resistanceFirst' })[0]).toBe('ohms');
    const cylinder = diagnoserOf('cylinder', springCylinder);
    const still: Reading[] = [
      { kind: 'function', part: 'C1', setup: { controls: { switch: 'on' } }, value: 'dead' },
    ];
    expect(['pressure', 'moves', 'flow', 'function']).toContain(
      kinds(cylinder, still, { order: 'mechanicalFirst' })[0],
    );
    expect(['pressure', 'moves', 'flow']).not.toContain(
      kinds(cylinder, still, { order: 'electricalFirst' })[0],
    );
  });

  it('keep live work out, and bridge a contact only where the site allows it, never one that guards a person', () => {
    expect(kinds(clutch, dead, { noLiveWork: true })).not.toContain('volts');
    const bridged = (preferences: Preferences) =>
      clutch.diagnose(dead, { preferences, most: 400 }).next.flatMap(({ test }) => test.setup.jumpers ?? []);
    expect(bridged({})).toEqual([]);
    expect(bridged({ noJumpers: true })).toEqual([]);
    const allowed = bridged({ noJumpers: false });
    for (const [from, to] of allowed) expect([from, to]).toEqual(['W1:2', 'S1:2']);
  });
});

describe('safety in the plan', () => {
  it('secures the load of a brake before its coil is fed, and says so; with its fuse out the spring holds', () => {
    const { next } = diagnoserOf('brake', brakeRelease).diagnose(
      [
        {
          kind: 'function',
          part: 'Y1',
          setup: { controls: { drive: 'running', guard: 'closed' } },
          value: 'dead',
        },
      ],
      { most: 200 },
    );
    const fed = next.filter(
      ({ test }) =>
        test.setup.controls?.drive === 'running' &&
        test.setup.controls.guard === 'closed' &&
        !(test.setup.unplugged ?? test.setup.pulled ?? test.setup.isolated),
    );
    expect(fed.length).toBeGreaterThan(0);
    for (const { test, cautions } of fed) {
      expect(test.setup.secured).toEqual(['Y1']);
      expect(cautions).toContain('freedLoad');
    }
    const dead = next.filter(({ test }) => test.setup.pulled ?? test.setup.isolated);
    expect(dead.length).toBeGreaterThan(0);
    for (const { test } of dead) expect(test.setup.secured).toBeUndefined();
  });

  it('lifts every end of the electronics before test volts go on, and names the ends', () => {
    const diagnoser = diagnoserOf('driver', driverHighSide);
    const { next } = diagnoser.diagnose(
      [{ kind: 'function', part: 'Y1', setup: { controls: { command: 'on' } }, value: 'dead' }],
      { most: 400 },
    );
    const tester = next.filter(({ test }) => test.kind === 'insulation');
    for (const { test } of tester) {
      const apart =
        test.setup.lifted?.some(({ part }) => part === 'A1') || test.setup.unplugged?.includes('X1');
      expect(apart).toBe(true);
    }
  });
});

describe('the fuse that blows only when a wet-area valve is called', () => {
  it('asks for the insulation tester or the dead run, never for another fuse first', () => {
    const diagnoser = diagnoserOf('level', levelControl);
    const low = { controls: { level: 'low' } };
    const { next } = diagnoser.diagnose([
      { kind: 'fuse', part: 'F1', setup: low, value: 'blows' },
      { kind: 'fuse', part: 'F1', setup: {}, value: 'holds' },
    ]);
    expect(['insulation', 'ohms']).toContain(next[0]!.test.kind);
    expect(next[0]!.cautions).not.toContain('mayBlowFuse');
  });
});

describe('naming', () => {
  it('says what would kill the spare: supply, and the valve whose plunger may be jammed on alternating current', () => {
    const diagnoser = diagnoserOf('bypass', gasBypass);
    const on = { controls: { output: 'on' } };
    const lifted = { isolated: ['G1'], lifted: [{ part: 'W2', node: 'W2:2' }] };
    const given = readings(
      diagnoser,
      [['Y1', 'open']],
      [
        { kind: 'function', part: 'Y1', setup: on },
        { kind: 'volts', from: 'W2:2', to: 'N', setup: on },
        { kind: 'ohms', from: 'W2:2', to: 'Y1:2', setup: lifted },
      ],
    );
    // The open coil is read; that its return is whole has not been seen by anything.
    const { verdict: early, next } = diagnoser.diagnose(given);
    expect(early).toMatchObject({ state: 'keepTesting', because: 'wayNotShown', parts: ['W3'] });
    expect(next[0]).toMatchObject({ proof: true });
    const [back] = readings(
      diagnoser,
      [['Y1', 'open']],
      [{ kind: 'volts', from: 'W2:2', to: 'Y1:2', setup: on }],
    );
    const { verdict } = diagnoser.diagnose([...given, back!]);
    expect(verdict).toMatchObject({ state: 'name', part: 'Y1', fault: 'open' });
    if (verdict.state !== 'name') throw new Error(verdict.state);
    expect(verdict.clearFirst).toContainEqual({ part: 'G1', reason: 'overLineVoltage' });
  });

  it('grows surer with readings that agree, and never past one', () => {
    const diagnoser = diagnoserOf('pair', twoWayPair);
    const forward = { controls: { lever: 'forward' } };
    const given = readings(
      diagnoser,
      [['Y1', 'open']],
      [
        { kind: 'function', part: 'Y1', setup: forward },
        { kind: 'volts', from: 'X1.1:2', to: 'GND', setup: forward },
        { kind: 'volts', from: 'Y1:2', to: 'GND', setup: forward },
        { kind: 'ohms', from: 'X1.1:2', to: 'Y1:2', setup: { pulled: ['F1'], unplugged: ['X1'] } },
      ],
    );
    let before = 0;
    for (let count = 1; count <= given.length; count++) {
      const { suspects } = diagnoser.diagnose(given.slice(0, count), { most: 1 });
      const share = suspects.filter(({ part }) => part === 'Y1').reduce((sum, one) => sum + one.share, 0);
      expect(share).toBeGreaterThan(before - 0.02);
      expect(share).toBeLessThanOrEqual(1 + 1e-9);
      before = share;
    }
    expect(before).toBeGreaterThan(0.9);
  });
});
