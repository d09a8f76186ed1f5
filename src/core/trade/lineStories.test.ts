import { CircuitModel } from '../circuit/model';
import type { Circuit, Reading } from '../circuit/schema';
import { energyChange } from '../diagnosis/access';
import { meaningLimits } from '../diagnosis/meaningLimits';
import { yardsticks } from '../diagnosis/yardsticks';
import { proportionalPilot } from '../templates/electrical';
import { contactorTwoSupplies, gasBypass, hoistLimits, levelControl } from '../templates/line';
import { at, holds, ohms, Story, volts, works, changed, nothing } from './story';

/** Stories of line and control voltage in buildings and hoists: what must be said, and what must not. Each breaks a rule that was broken once. */

describe('W1, a contactor on two supplies', () => {
  const CALL = at({ thermostat: 'calling' });
  const dead: Reading = { ...works('M1', CALL), value: 'dead' } as Reading;

  it('a coil behind a transformer is not held against its own ohms, and what lies across it is named', () => {
    const model = new CircuitModel(contactorTwoSupplies());
    const test = ohms('A1', 'PE', { ...CALL, isolated: ['G1', 'G2'] });
    expect(yardsticks(model, test, nothing)).toEqual([]);
    const limit = meaningLimits(model, test).find(({ code }) => code === 'parallelPath');
    expect(limit).toMatchObject({ parts: ['T1'] });
    expect(limit).toHaveProperty('lift', 'F2');
    expect(
      yardsticks(model, ohms('A1', 'PE', { ...CALL, pulled: ['F2'], isolated: ['G1', 'G2'] }), nothing),
    ).toMatchObject([{ code: 'drawn', part: 'K1' }]);
  });

  it('a reading on the low side opens no line supply; the lock of both is what a dead one costs', () => {
    const model = new CircuitModel(contactorTwoSupplies());
    const locked = new Set(['G1', 'G2']);
    expect(energyChange(model, locked, volts('A1', 'PE', CALL)).open).toEqual(['G2']);
    expect(energyChange(model, new Set(), ohms('A1', 'PE', { isolated: ['G1', 'G2'] })).lock).toEqual([
      'G1',
      'G2',
    ]);
    const told = new Story(contactorTwoSupplies()).say(dead).ask({ preferences: { noLiveWork: true } });
    expect(told.first.minutes).toBeGreaterThan(10);
  });

  it('live tests come together before the lock', () => {
    const told = new Story(contactorTwoSupplies()).say(dead).ask();
    expect(told.first.before).toEqual({ lock: [], open: [] });
    const locked = new Story(contactorTwoSupplies()).say(dead).ask({ locked: ['G1', 'G2'] });
    expect(locked.first.before.open).not.toEqual(['G1', 'G2']);
  });

  it('no shop rule for a closed contact stands beside the full volts of the line', () => {
    const model = new CircuitModel(contactorTwoSupplies());
    expect(yardsticks(model, volts('L1:F', 'PE', CALL), nothing)).toEqual([]);
    expect(yardsticks(model, volts('L1:F', 'T1:L', CALL), nothing)).toMatchObject([
      { code: 'drop', place: 'linePole' },
    ]);
  });
});

describe('W5, a gas valve on a controller output', () => {
  const ON = at({ output: 'on' });
  const given = () =>
    new Story(gasBypass(), ['Y1', 'open']).take(
      works('Y1', ON),
      ohms('W2:2', 'N', { ...at({ output: 'off' }), pulled: ['F1'] }),
      ohms('Y1:2', 'N', { ...at({ output: 'off' }), pulled: ['F1'] }),
      ohms('A1:O', 'N', { ...at({ output: 'off' }), pulled: ['F1'] }),
    );

  it('no click proves an open coil, and no test stands as proof that would not count', () => {
    const told = given().ask();
    expect(told.because).toBe('proofMissing');
    const proofs = told.next.filter(({ proof }) => proof);
    for (const { test } of proofs) expect(['click', 'fuse', 'function']).not.toContain(test.kind);
    for (const { test } of proofs.slice(0, 1)) {
      expect('from' in test ? [test.from, test.to].sort() : []).toEqual(['W2:2', 'Y1:2']);
    }
  });

  it('no insulation test runs over a bonded far end', () => {
    for (const { test, expected } of given().ask({ most: 400 }).next)
      if (test.kind === 'insulation') expect(expected).toBe('OL');
  });

  it('the controller’s output is electronic: nothing puts test volts on it', () => {
    for (const { test } of new Story(gasBypass()).ask({ most: 400 }).next) {
      if (test.kind !== 'insulation') continue;
      const lifted = test.setup.lifted?.map(({ part }) => part) ?? [];
      if ([test.from, test.to].includes('A1:O') || [test.from, test.to].includes('W1:2'))
        expect(lifted.length).toBeGreaterThan(0);
    }
  });

  it('24 V alternating are tested as extra-low volts', () => {
    for (const { test } of new Story(gasBypass()).ask({ most: 400 }).next)
      if (test.kind === 'insulation') expect(test.testVolts).toBe(250);
  });
});

describe('W7, one direction of a hoist', () => {
  const UP = at({ pendant: 'up' });
  const DOWN = at({ pendant: 'down' });
  it('down works: what both share is not the suspect, and the limit’s branch is', () => {
    const told = new Story(hoistLimits(), ['B1', 'stuckOpen']).take(works('K1', UP), works('K2', DOWN)).ask();
    for (const ref of ['F1', 'W1', 'W9', 'G1']) expect(told.share(ref)).toBeLessThan(0.02);
    expect(told.share('B1')).toBeGreaterThan(0.1);
  });

  it('an open limit is named by a reading across its own contact', () => {
    const told = new Story(hoistLimits(), ['B1', 'stuckOpen'])
      .take(works('K1', UP), works('K2', DOWN))
      .follow();
    expect(told.named).toBe('B1');
  });

  it('a tingle: nobody touches it live, leaks come first, and insulation is what is asked', () => {
    const told = new Story(hoistLimits())
      .say({ ...works('K1', UP), value: 'works' } as Reading)
      .ask({ signs: { when: ['shock'], looks: [] } });
    expect(told.suspects.slice(0, 3).every(({ fault }) => /shortToFrame|weakInsulation/.test(fault))).toBe(
      true,
    );
    expect(['insulation', 'ohms']).toContain(told.first.test.kind);
    for (const { test } of told.next) expect(['volts', 'amps']).not.toContain(test.kind);
  });
});

describe('W8, a fuse that blows only when the valve is called', () => {
  const LOW = at({ level: 'low' });
  const story = () =>
    new Story(levelControl(), ['W2', 'weakInsulation', 300]).say(
      { ...holds('F1', LOW), value: 'blows' } as Reading,
      { ...holds('F1', {}), value: 'holds' } as Reading,
    );

  it('24 V wiring behind a 120 V transformer is tested with 250 V', () => {
    const tests = story()
      .ask({ most: 400 })
      .next.filter(({ test }) => test.kind === 'insulation');
    const field = tests.filter(({ test }) => 'from' in test && ['V', 'W2:2', 'A', 'K:A'].includes(test.from));
    expect(field.length).toBeGreaterThan(0);
    for (const { test } of field) expect(test).toHaveProperty('testVolts', 250);
  });

  it('the level probe’s output is off before test volts go on', () => {
    for (const { test } of story().ask({ most: 400 }).next) {
      if (test.kind !== 'insulation' || test.from !== 'K:A') continue;
      expect(test.setup.lifted).toContainEqual({ part: 'S1', node: 'K:A' });
    }
  });

  it('a tester’s answer is good, to be watched, or a leak: no ohms below nothing, and no gap', () => {
    const { outcomes } = story()
      .ask({ most: 400 })
      .next.find(({ test }) => test.kind === 'insulation')!;
    expect(outcomes.map(({ low }) => low)).toEqual([-Infinity, 5e5, 1e8]);
    expect(outcomes.map(({ high }) => high)).toEqual([5e5, 1e8, Infinity]);
    for (const { reading } of outcomes) if (typeof reading === 'number') expect(reading).toBeGreaterThan(0);
  });

  it('no good coil is condemned: the conductor is named, by itself, with both ends off', () => {
    const told = story().follow(14);
    expect(told.suspects[0]!.part).toBe('W2');
    expect(told.named === null || told.named === 'W2').toBe(true);
  });

  it('in the wet, a leak or a corroded joint is likelier than before', () => {
    const wet = story().ask({ signs: { when: ['wet'], looks: [] } });
    expect(wet.suspect('W2', 'weakInsulation')).toBeGreaterThan(
      story().ask().suspect('W2', 'weakInsulation'),
    );
  });
});

describe('alternating coils', () => {
  const ohmsOnly = () => changed(gasBypass(), 'Y1', { henries: undefined, pullInAmps: 1.8, holdAmps: 0.6 });

  it('1.06 A on an 8 Ω coil is no fault: its ohms do not say what it draws', () => {
    const ON = at({ output: 'on' });
    const told = new Story(ohmsOnly())
      .say(
        { ...works('Y1', ON), value: 'works' } as Reading,
        { kind: 'amps', through: 'Y1', setup: ON, value: 1.06 } as Reading,
        { ...ohms('W2:2', 'Y1:2', { isolated: ['G1'] }), value: 8 } as Reading,
      )
      .ask();
    expect(told.noFault).toBeGreaterThan(0.3);
    expect(told.noFault).toBeGreaterThan(Math.max(...told.suspects.map(({ share }) => share)));
    const amps = new Story(ohmsOnly()).ask().offered({ kind: 'amps', through: 'Y1', setup: ON })!;
    const sound = amps.outcomes.find((one) => one.sound)!;
    expect(sound.low).toBeLessThan(0.5);
    expect(sound.high).toBeGreaterThan(2);
  });

  it('a jammed armature draws more for good; on direct current it changes nothing that a clamp shows', () => {
    const faults = (circuit: Circuit) =>
      new Story(circuit).diagnoser.faults.filter(({ fault }) => fault === 'jammed').map(({ ref }) => ref);
    expect(faults(gasBypass())).toEqual(['Y1']);
    expect(faults(levelControl())).toEqual(['K1', 'Y1']);
    expect(faults(proportionalPilot())).toEqual(['Y1']);
    const ON = at({ output: 'on' });
    const jammed = new Story(gasBypass(), ['Y1', 'jammed']).take(
      { kind: 'amps', through: 'Y1', setup: ON },
      works('Y1', ON),
    );
    expect(jammed.readings[0]!.value).toBeGreaterThan(1.5);
    expect(jammed.readings[1]!.value).toBe('dead');
    const amps = (story: Story) =>
      story.take({
        kind: 'amps',
        through: 'Y1',
        setup: { controls: story.diagnoser.model.combinations.at(-1)! },
      }).readings[0]!.value;
    const held = amps(new Story(proportionalPilot(), ['Y1', 'jammed']));
    expect(held).toBeGreaterThan(0.3);
    expect(held).toBe(amps(new Story(proportionalPilot())));
  });
});

/** Followed by its own choice, the right part leads, and no other one is named. */
