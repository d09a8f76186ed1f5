import { CircuitModel } from '../circuit/model';
import type { Circuit, Reading, Setup } from '../circuit/schema';
import { parseCircuit } from '../circuit/parse';
import { emptyDrawing, layChains } from '../draw/layChain';
import { cautionsOf } from '../diagnosis/cautionsOf';
import { energyChange } from '../diagnosis/access';
import { isPlain } from '../diagnosis/legality';
import { meaningLimits } from '../diagnosis/meaningLimits';
import { yardsticks } from '../diagnosis/yardsticks';
import { shopMarks } from '../tables/marks';
import {
  changeOverRelay,
  clutchInterlocks,
  driverHighSide,
  heaterSelector,
  multiOutput,
  proportionalPilot,
  singleCoil,
  stopSolenoid,
  threeWireSensor,
  twinOutputs,
  twoWayPair,
  winchPack,
} from '../templates/electrical';
import {
  airClamp,
  airSwitch,
  gateValve,
  hydraulicLift,
  springCylinder,
  vacuumVent,
} from '../templates/fluid';
import { contactorTwoSupplies, gasBypass, hoistLimits, levelControl } from '../templates/line';
import { at, click, gauge, holds, moves, ohms, Story, volts, works } from './story';

/** Small stories of the trade: what must be said, and what must not. Each breaks a rule that was broken once. */

const marks = shopMarks({});
const nothing = { readings: [], baselines: [], marks };

/** The circuit with other figures on one of its parts. */
function changed(circuit: Circuit, ref: string, figures: object): Circuit {
  const parts = circuit.parts.map((part) => (part.ref === ref ? { ...part, ...figures } : part));
  return { ...circuit, parts: parts as Circuit['parts'] };
}

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

describe('W2, a coded valve whose value nobody knows', () => {
  const A = at({ command: 'a' });
  const unknown = () => {
    const both = changed(twinOutputs(), 'Y1', { ohms: undefined });
    return changed(both, 'Y2', { ohms: undefined });
  };

  it('25 Ω on a coil that nobody knows accuses nothing', () => {
    const alone: Setup = { pulled: ['F1'], unplugged: ['X1'] };
    const told = new Story(unknown()).say({ ...ohms('X1.1:2', 'Y1:2', alone), value: 25 } as Reading).ask();
    expect(told.suspect('Y1', 'shortedTurns') + told.share('G1')).toBeLessThan(0.2);
    const model = new CircuitModel(unknown());
    expect(yardsticks(model, ohms('X1.1:2', 'Y1:2', alone), nothing)).toEqual([]);
  });

  it('the twin’s ohms narrow it: half of what the other reads is half of its turns, though nobody said what it should be', () => {
    const alone: Setup = { pulled: ['F1'], unplugged: ['X1', 'X2'] };
    const one = { ...ohms('X1.1:2', 'Y1:2', alone), value: 12.4 } as Reading;
    const two = { ...ohms('X2.1:2', 'Y2:2', alone), value: 25 } as Reading;
    const before = new Story(unknown()).say(one).ask();
    const told = new Story(unknown()).say(one, two).ask();
    expect(before.suspect('Y1', 'shortedTurns')).toBeLessThan(0.2);
    expect(told.suspects[0]).toMatchObject({ part: 'Y1', fault: 'shortedTurns' });
    expect(told.suspect('Y2', 'shortedTurns')).toBeLessThan(0.1);
    const alike = new Story(unknown()).say({ ...one, value: 24.2 } as Reading, two).ask();
    expect(alike.suspect('Y1', 'shortedTurns')).toBeLessThan(before.suspect('Y1', 'shortedTurns') + 0.05);
  });

  it('an open coil is found all the same', () => {
    const told = new Story(unknown(), ['Y1', 'open'])
      .take(works('Y1', A), works('Y2', at({ command: 'b' })))
      .follow();
    expect(told.named).toBe('Y1');
  });

  it('a code that follows the part to its twin’s place is a reading on the part', () => {
    const swapped: Setup = { ...A, swapped: [['Y1', 'Y2']] };
    const told = new Story(twinOutputs(), ['Y1', 'open']).take(works('Y1', A), works('Y1', swapped)).ask();
    const proofs = told.verdict.state === 'keepTesting' ? told.verdict.proofs : null;
    expect(told.suspects[0]).toMatchObject({ part: 'Y1' });
    expect(proofs?.onPart).toBe(true);
  });
});

describe('W3, a two-winding stop solenoid', () => {
  const RUN = at({ key: 'on', seat: 'down' });
  const story = () =>
    new Story(stopSolenoid()).say(
      { ...works('Y1P', { ...RUN, afterSeconds: 0.1 }), value: 'works' } as Reading,
      { ...works('Y1H', RUN), value: 'dead' } as Reading,
    );

  it('the hold wire is read with the seat made, and not “at once”: it is live as long as that', () => {
    const told = story().ask();
    expect(told.first.test).toMatchObject({ kind: 'volts', setup: RUN });
    for (const { test } of told.next)
      if (test.setup.afterSeconds !== undefined && 'from' in test && test.to === 'GND')
        expect(test.from).not.toBe('W2:2 settled');
    expect(
      told.offered({ kind: 'volts', from: 'W2:2', to: 'GND', setup: { ...RUN, afterSeconds: 0.1 } }),
    ).toBeUndefined();
  });

  it('the pull wire is read at once: later it is dead on a sound machine', () => {
    const told = new Story(stopSolenoid())
      .say({ ...works('Y1P', { ...RUN, afterSeconds: 0.1 }), value: 'dead' } as Reading)
      .ask();
    const early = told.next.filter(
      ({ test }) => 'from' in test && test.from === 'X:P' && test.kind === 'volts',
    );
    expect(early.some(({ test }) => test.setup.afterSeconds !== undefined)).toBe(true);
  });

  it('a seat contact that lifts on bumps comes before the coil', () => {
    const calm = story().ask();
    const bumpy = story().ask({ signs: { when: ['bumps'], looks: [] } });
    expect(bumpy.share('S2')).toBeGreaterThan(1.2 * calm.share('S2'));
    expect(bumpy.suspect('Y1H', 'open')).toBeLessThan(calm.suspect('Y1H', 'open'));
  });
});

describe('W4, a valve that stays over', () => {
  const [UP, DOWN] = [at({ lever: 'lift' }), at({ lever: 'rest' })];
  const told = () =>
    new Story(hydraulicLift(), ['Q1', 'stuckShifted']).take(
      works('Y1', UP),
      works('C1', UP),
      works('C1', DOWN),
      volts('Y1:2', 'GND', DOWN),
    );

  it('its coil being dead, the gauge behind it is what proves it, and two readings are enough', () => {
    const { first } = told().ask();
    expect(first.test).toMatchObject({ kind: 'pressure', at: 'Q1:2', setup: DOWN });
    expect(first.proof).toBe(true);
    expect(told().take(first.test).ask().named).toBe('Q1');
  });
});

describe('W6, a leak behind the valve or in it', () => {
  const [OPEN, CLOSE] = [at({ lever: 'open' }), at({ lever: 'close' })];
  const told = (fault: [string, string, number]) =>
    new Story(gateValve(), fault).take(
      works('C1', OPEN),
      works('C1', CLOSE),
      gauge('Q1:4', OPEN),
      gauge('P', at({})),
      gauge('Q1:2', OPEN),
      gauge('C:A', OPEN),
    );
  const blanked = {
    ...gauge('Q1:4', { ...OPEN, lifted: [{ part: 'H4', node: 'Q1:4' }], plugged: ['Q1:4'] }),
  };

  it('with the line off and plugged the valve is read by itself, its own exhaust free', () => {
    const leaks = told(['H4', 'leaking', 0.8]);
    expect(leaks.ask().offered({ kind: 'pressure', setup: blanked.setup })).toBeDefined();
    expect(leaks.take(blanked).ask().share('H4')).toBeGreaterThan(0.97);
  });

  it('a place that floats tells nothing by how it wanders', () => {
    // Where nothing leaks in, a stopped exhaust reads nothing under either: no bits are credited for it.
    const stopped = told(['H4', 'leaking', 0.8])
      .ask()
      .offered({ kind: 'pressure', setup: { plugged: ['Q1:4'] } });
    expect(stopped?.bits ?? 0).toBeLessThan(0.02);
  });
});

describe('a function that does not stop', () => {
  it('is warned of where the sound machine would stand still', () => {
    const ON = at({ key: 'on' });
    const signs = { when: ['doesNotStop' as const], looks: [] };
    const { first, next } = new Story(singleCoil())
      .say({ ...works('Y1', ON), value: 'works' } as Reading)
      .ask({ signs });
    expect(first.test.setup.controls?.['key'] ?? 'off').not.toBe('on');
    // With nothing off its place, that is: an unplugged coil does not move.
    const live = next.filter(({ cautions, test }) => cautions.includes('live') && isPlain(test));
    expect(live.length).toBeGreaterThan(0);
    for (const { cautions } of live) expect(cautions).toContain('moves');
  });
});

describe('W4, a vacuum vent', () => {
  const ON = at({ command: 'on' });
  it('vacuum is said with its sign, and its bands are in order', () => {
    const told = new Story(vacuumVent()).say({ ...works('U1', ON), value: 'dead' } as Reading).ask();
    const one = told.next.find(({ test, expected }) => test.kind === 'pressure' && Number(expected) < -5)!;
    expect(one).toBeDefined();
    one.outcomes.slice(1).forEach(({ low }, k) => expect(low).toBe(one.outcomes[k]!.high));
  });

  it('an actuator that stays in its rest accuses no pump', () => {
    const story = () => new Story(vacuumVent()).say({ ...works('U1', ON), value: 'dead' } as Reading);
    const before = story().ask().share('P0');
    const after = story()
      .say({ ...moves('U1', {}), value: 'still' } as Reading)
      .ask()
      .share('P0');
    expect(after).toBeLessThan(2 * before + 0.02);
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

describe('W6, a clamp that works now and then', () => {
  const ON = at({ bit: '1' });
  const story = () =>
    new Story(airClamp()).say(
      { ...works('C1', ON), value: 'dead' } as Reading,
      { ...moves('C1', ON), value: 'still' } as Reading,
    );

  it('a clamp that rests and stays says nothing about its air, and clears no plug', () => {
    const told = story().ask();
    const air = ['P0', 'Z1', 'Z2', 'H1'].reduce((sum, ref) => sum + told.share(ref), 0);
    const plug = ['X1.1', 'X1.2', 'Y1', 'W1', 'W2'].reduce((sum, ref) => sum + told.share(ref), 0);
    expect(plug).toBeGreaterThan(air);
  });

  it('a click, the override and the gauge come first: they are free', () => {
    const { first } = story().ask();
    expect(['click', 'function', 'moves', 'pressure']).toContain(first.test.kind);
    expect(first.minutes).toBeLessThan(1.5);
  });

  it('a gauge asks for no electricity at rest, and for the coil’s supply when the valve is called', () => {
    const { model } = story().diagnoser;
    const locked = new Set(['G1', 'P0']);
    expect(energyChange(model, locked, gauge('P', {})).open).toEqual(['P0']);
    expect(energyChange(model, locked, gauge('C:A', ON)).open.sort()).toEqual(['G1', 'P0']);
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

describe('W9, actuators on a controller, pin by pin', () => {
  const ON = at({ command: 'on' });
  it('volts with the coil unplugged are said to prove little', () => {
    const { model } = new Story(driverHighSide()).diagnoser;
    const limits = meaningLimits(model, volts('W2:2', 'GND', { ...ON, unplugged: ['X1'] }));
    expect(limits.map(({ code }) => code)).toContain('unloaded');
  });

  it('an output that gives nothing is named at its own pins', () => {
    const told = new Story(driverHighSide(), ['A1', 'noOutput']).take(works('Y1', ON)).follow();
    expect(told.named).toBe('A1');
  });

  it('a sensor’s open wiper is found by its own three wires', () => {
    const told = new Story(threeWireSensor(), ['B1', 'open'])
      .take(volts('IN', 'GND', at({ rod: 'middle' })))
      .follow();
    expect(told.suspects[0]!.part).toBe('B1');
  });
});

describe('W10, a controller with many outputs', () => {
  it('the master dead, zones fed: nothing works in the field, and no zone’s coil is the suspect', () => {
    const zones = [1, 2, 3, 4].map((n) => works(`Y${n}`, at({ program: `zone ${n}` })));
    const told = new Story(multiOutput(), ['Y0', 'open'])
      .take(...zones, works('Y0', at({ program: 'zone 1' })))
      .ask();
    for (const n of [1, 2, 3, 4]) expect(told.share(`Y${n}`)).toBeLessThan(0.1);
  });

  it('a wrong one that moves speaks for what stays on or lies across', () => {
    const calm = new Story(multiOutput()).ask();
    const wrong = new Story(multiOutput()).ask({ signs: { when: ['wrongOneMoves'], looks: [] } });
    const between = (told: typeof calm) =>
      told.suspects
        .filter(({ fault }) => fault === 'shortBetween' || fault === 'swapped')
        .reduce((sum, { share }) => sum + share, 0);
    expect(between(wrong)).toBeGreaterThanOrEqual(between(calm));
    expect(wrong.suspects[0]!.fault).toMatch(/stuck|welded|short|swapped/);
  });
});

describe('W11, a winch’s contactors', () => {
  const IN = at({ pendant: 'in' });
  const OUT = at({ pendant: 'out' });
  const weak = () =>
    new Story(winchPack(), ['K3', 'highResistance', 0.05]).take(works('M', OUT), works('M', IN));

  it('a contactor is not named from its far stud to the frame, though its coil ends there', () => {
    const told = weak()
      .take(volts('M2', 'GND', IN), volts('F1:2', 'GND', OUT), volts('B+', 'GND', IN))
      .ask();
    expect(told.share('K3')).toBeGreaterThan(0.9);
    expect(told.named).toBeNull();
    expect(told.first).toMatchObject({ proof: true, test: { kind: 'volts' } });
  });

  it('with the drop across its own studs it is', () => {
    const told = weak()
      .take(volts('M2', 'GND', IN), volts('F1:2', 'GND', OUT), volts('P', 'M2', IN))
      .ask();
    expect(told.named).toBe('K3');
  });

  it('its size is said as far as it was read', () => {
    const told = weak()
      .take(volts('P', 'M2', IN))
      .ask();
    const suspect = told.suspects.find(({ part, fault }) => part === 'K3' && fault === 'highResistance')!;
    expect(suspect.severityOhms! / 0.05).toBeGreaterThan(0.7);
    expect(suspect.severityOhms! / 0.05).toBeLessThan(1.4);
    const early = new Story(singleCoil())
      .say({ ...works('Y1', at({ key: 'on' })), value: 'dead' } as Reading)
      .ask();
    for (const one of early.suspects.slice(0, 12)) {
      if (one.severityOhms === undefined) continue;
      expect(one.severityRange![1] / one.severityRange![0]).toBeLessThanOrEqual(100);
    }
  });

  it('a pass in ohms of a heavy contact is said to prove little', () => {
    const { model } = weak().diagnoser;
    const limits = meaningLimits(model, ohms('P', 'M2', { isolated: ['G1'], energised: ['K3'] }));
    expect(limits.map(({ code }) => code)).toContain('heavyContact');
  });
});

describe('W12, a valve and its cylinder', () => {
  const ON = at({ switch: 'on' });
  const OFF = at({ switch: 'off' });
  const jam = () => new Story(springCylinder(), ['C1', 'jammed']).take(works('C1', ON), gauge('Z2:2', OFF));

  it('“still” and “dead” of one set-up are one observation', () => {
    const open: Setup = { ...OFF, open: ['C:A'] };
    const story = jam().take(
      moves('C1', { override: ['Q1'] }),
      moves('C1', OFF),
      moves('C1', open),
      works('C1', open),
    );
    const told = story.ask();
    expect(told.named).toBeNull();
    const { readings } = told.verdict.state === 'keepTesting' ? told.verdict.proofs! : { readings: [] };
    const watched = readings.map((at) => story.readings[at]!).filter(({ kind }) => kind !== 'pressure');
    expect(watched).toHaveLength(1);
  });

  it('no fuse, click or battery volts stand as proof of a jammed cylinder', () => {
    const told = jam()
      .take(moves('C1', { override: ['Q1'] }))
      .ask();
    for (const { test } of told.next.filter(({ proof }) => proof))
      expect(['fuse', 'click', 'volts', 'ohms']).not.toContain(test.kind);
  });

  it('air at its own port and no motion name it', () => {
    const told = jam()
      .take(moves('C1', { override: ['Q1'] }), gauge('C:A', ON), moves('C1', { ...ON, open: ['C:A'] }))
      .follow();
    expect(told.named).toBe('C1');
  });

  it('bad looks at its plug move the doubt there', () => {
    const story = () => new Story(springCylinder()).say({ ...works('C1', ON), value: 'dead' } as Reading);
    const before = story().ask();
    const looks = [{ at: 'plug' as const, subject: 'X1', good: false }];
    const after = story().ask({ signs: { when: [], looks } });
    const pins = (told: typeof before) => told.share('X1.1') + told.share('X1.2');
    expect(pins(after)).toBeGreaterThan(3 * pins(before));
    const clean = story().ask({ signs: { when: [], looks: [{ at: 'plug', subject: 'X1', good: true }] } });
    expect(pins(clean)).toBeLessThan(pins(before));
  });
});

describe('W13, a low-pressure air switch', () => {
  const ON = at({ air: 'on' });
  const read = () =>
    new Story(airSwitch(), ['B1', 'stuckOpen']).take(
      works('Y1', ON),
      gauge('P0', {}),
      ohms('B:2', 'GND', { pulled: ['F1'] }),
      ohms('B:1', 'GND', { pulled: ['F1'] }),
      volts('F1:2', 'GND', {}),
      ohms('B:1', 'B:2', { pulled: ['F1'] }),
    );

  it('is not named while its hose may leak and nothing was read at its port', () => {
    const told = read().ask();
    expect(told.share('B1')).toBeGreaterThan(0.9);
    expect(told.named).toBeNull();
    expect(told.because).toBe('wayNotShown');
    const fed = read()
      .take(volts('B:1', 'GND', ON))
      .ask();
    expect(fed.because).toBe('rivalOpen');
    expect(fed.first).toMatchObject({ proof: true, test: { kind: 'pressure', at: 'P1' } });
  });

  it('is read with its air on, though its wires are dead; a coil beside it is not', () => {
    const { model } = read().diagnoser;
    const locked = new Set(['G1', 'P0']);
    const contact = ohms('B:1', 'B:2', { pulled: ['F1'] });
    expect(energyChange(model, locked, contact)).toEqual({ lock: [], open: ['P0'] });
    expect(energyChange(model, locked, ohms('W2:2', 'Y1:2', { pulled: ['F1'] })).open).toEqual([]);
  });

  it('is named with pressure at its port and volts at its feed', () => {
    const told = read()
      .take(gauge('P1', {}), volts('B:1', 'GND', ON))
      .follow();
    expect(told.named).toBe('B1');
  });
});

describe('W14, a fuse that goes when a direction is selected', () => {
  const FORWARD = at({ lever: 'forward' });
  const REVERSE = at({ lever: 'reverse' });
  const blows = () =>
    new Story(twoWayPair(), ['Y2', 'shortedTurns', 0.4]).take(
      works('Y1', FORWARD),
      holds('F1', FORWARD),
      holds('F1', REVERSE),
    );

  it('the dead run behind the fuse comes before another fuse', () => {
    const told = blows().ask();
    const { test, cautions } = told.next.find(
      ({ test: one }) => one.kind !== 'fuse' || !one.setup.unplugged,
    )!;
    expect(test.kind).toBe('ohms');
    expect(cautions).not.toContain('mayBlowFuse');
  });

  it('the coil is confirmed at the coil itself, its plug off', () => {
    const told = blows().follow();
    expect(told.named).toBe('Y2');
  });

  it('a diode is tested behind its plug or lifted; nothing is said to be taken out', () => {
    for (const { test } of blows().ask({ most: 400 }).next) {
      expect(test.setup.removed).toBeUndefined();
      if (test.kind === 'diode') expect(test.setup.lifted ?? test.setup.unplugged).toBeDefined();
    }
  });
});

describe('W11, a contactor that clicks and does not make', () => {
  const IN = at({ pendant: 'in' });

  it('is named by the full volts across its own contact while it is held in: what else it could have is no rival', () => {
    const story = new Story(winchPack(), ['K3', 'stuckOpen']);
    story.take(works('M', IN), works('M', at({ pendant: 'out' })), click('K3', IN), volts('P', 'M2', IN));
    const told = story.ask();
    expect(told.suspects[0]).toMatchObject({ part: 'K3' });
    expect(told.suspects[0]!.for[0]).toMatchObject({ onPart: true, reading: 3 });
    expect(told.suspects[0]!.for[0]!.bits).toBeGreaterThan(1);
    expect(told.verdict).toMatchObject({ part: 'K3', proofs: { have: 1, onPart: true } });
    expect(story.follow().named).toBe('K3');
  });
});

describe('W15, a change-over relay', () => {
  const ON = at({ switch: 'on' });
  it('a contact that does not make is named across com and no, not through its coil', () => {
    const told = new Story(changeOverRelay(), ['K1', 'stuckOpen'])
      .take(works('H1', ON), works('H2', at({ switch: 'off' })))
      .follow();
    expect(told.named).toBe('K1');
    const proofs = told.verdict.state === 'name' ? told.verdict.proofs.readings : [];
    const { readings } = told.verdict.state === 'name' ? { readings: proofs } : { readings: [] };
    expect(readings.length).toBeGreaterThan(1);
  });

  it('listening for its click asks for its coil’s feed only', () => {
    const { model } = new Story(changeOverRelay()).diagnoser;
    expect(cautionsOf(model, click('K1', ON))).toContain('live');
    expect(energyChange(model, new Set(['G1']), click('K1', ON)).open).toEqual(['G1']);
  });
});

describe('complaints', () => {
  it('what was said twice and stays unexplained holds a name back', () => {
    const RUN = at({ key: 'on' });
    const told = new Story(singleCoil(), ['W3', 'open'])
      .take(volts('X1.2:2', 'GND', RUN), volts('Y1:2', 'GND', RUN), volts('X1.1:2', 'GND', RUN))
      .say(
        { ...works('Y1', RUN), value: 'works' } as Reading,
        { ...works('Y1', RUN), value: 'works' } as Reading,
      )
      .ask();
    expect(told.named).toBeNull();
  });

  it('asked again and answered otherwise, the first answer no longer holds the name back', () => {
    const RUN = at({ key: 'on' });
    const said = (value: string) => ({ ...works('Y1', RUN), value }) as Reading;
    const isolated = { pulled: ['F1'], unplugged: ['X1'] };
    const told = (...answers: Reading[]) =>
      new Story(singleCoil(), ['Y1', 'open'])
        .say(...answers)
        .take(
          volts('X1.1:2', 'GND', RUN),
          volts('Y1:2', 'GND', RUN),
          volts('X1.1:2', 'Y1:2', RUN),
          ohms('X1.1:2', 'Y1:2', isolated),
        )
        .ask();
    expect(told(said('dead')).named).toBe('Y1');
    expect(told(said('works')).named).toBeNull();
    expect(told(said('works'), said('dead')).named).toBe('Y1');
  });

  it('a command that was run already is charged no second fuse', () => {
    const HIGH = at({ selector: 'high' });
    const story = new Story(heaterSelector()).say({ ...works('E2', HIGH), value: 'dead' } as Reading);
    const told = story.ask();
    const again = told.next.find(
      ({ test }) => test.kind === 'volts' && JSON.stringify(test.setup) === JSON.stringify(HIGH),
    )!;
    expect(again.minutes).toBeLessThan(4);
  });

  it('works when warm speaks for moisture and a sticky spool; a pause for a film', () => {
    const story = () =>
      new Story(gateValve()).say({ ...works('C1', at({ lever: 'open' })), value: 'dead' } as Reading);
    const warm = story().ask({ signs: { when: ['betterWarm'], looks: [] } });
    expect(warm.suspect('Q1', 'stuckAtRest')).toBeGreaterThan(story().ask().suspect('Q1', 'stuckAtRest'));
    const pause = story().ask({ signs: { when: ['afterPause'], looks: [] } });
    expect(pause.suspect('S14', 'highResistance')).toBeGreaterThan(
      story().ask().suspect('S14', 'highResistance'),
    );
  });

  it('guards are asked in the position in which they should conduct', () => {
    const ALL = at({ clutch: 'on', seat: 'down', brake: 'pressed' });
    const told = new Story(clutchInterlocks(), ['S2', 'stuckOpen']).take(works('Y1', ALL)).follow();
    expect(told.named).toBe('S2');
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
describe.each<[string, Circuit, readonly [string, string, number?], ReturnType<typeof works>[]]>([
  [
    'W1, the control transformer is open',
    contactorTwoSupplies(),
    ['T1', 'open'],
    [works('M1', at({ thermostat: 'calling' }))],
  ],
  [
    'W5, the return wire is off, and the coil is good',
    gasBypass(),
    ['W3', 'open'],
    [works('Y1', at({ output: 'on' }))],
  ],
  [
    'W6, a pin of the valve’s plug is bent',
    airClamp(),
    ['X1.1', 'open'],
    [works('C1', at({ bit: '1' })), moves('C1', at({ bit: '1' }))],
  ],
  [
    'W9, the wire between controller and coil is broken',
    driverHighSide(),
    ['W2', 'open'],
    [works('Y1', at({ command: 'on' }))],
  ],
  [
    'W10, one output does not close',
    multiOutput(),
    ['Q2', 'stuckOpen'],
    [1, 2, 3].map((n) => works(`Y${n}`, at({ program: `zone ${n}` }))),
  ],
  [
    'W13, the hose leaks and the switch is good',
    airSwitch(),
    ['H1', 'leaking', 0.1],
    [works('Y1', at({ air: 'on' }))],
  ],
  [
    'W14, a wire rubs on the frame, and both coils are good',
    twoWayPair(),
    ['W21', 'shortToFrame', 0.05],
    [
      works('Y1', at({ lever: 'forward' })),
      holds('F1', at({ lever: 'forward' })),
      holds('F1', at({ lever: 'reverse' })),
    ],
  ],
  [
    'W15, the relay’s coil is open',
    changeOverRelay(),
    ['K1', 'open'],
    [works('H1', at({ switch: 'on' })), works('H2', at({ switch: 'off' }))],
  ],
])('%s', (_title, circuit, fault, complaint) => {
  const told = new Story(circuit, fault).take(...complaint).follow(14);

  it('leads to the right part', () => {
    expect(told.suspects[0]!.part).toBe(fault[0]);
  });

  it('condemns no good one', () => {
    expect([null, fault[0]]).toContain(told.named);
  });
});

describe('a part whose two faults look alike', () => {
  it('is proved by a reading that fits either: a winding gone to nothing, or down to the frame', () => {
    const circuit = layChains(
      emptyDrawing('Shared return'),
      [
        'battery 24.8, fuse F1 10, key switch S0, wire W1',
        'after W1, b1=on switch S1, relay K1 90, @R',
        '@B+, fuse F2 40, K1, motor M1 1.2, ground',
        'after W1, b2=on switch S2, lamp H2 25, @R',
        'after W1, lever=up switch S3, guard=shut switch S4, coil Y3 24, @R',
        '@R, plug X9, wire W2, ground',
      ].join('; '),
    ).circuit;
    const both = (more: Record<string, string>) => at({ key: 'on', lever: 'up', guard: 'shut', ...more });
    const told = new Story(parseCircuit(circuit), ['Y3', 'shortedTurns', 0.3])
      .take(
        works('Y3', both({})),
        ...([{ b2: 'on' }, { b1: 'on', b2: 'on' }] as Record<string, string>[]).flatMap((on) => [
          works('H2', at({ key: 'on', ...on })),
          works('H2', both(on)),
          works('Y3', both(on)),
        ]),
        works('M1', at({ key: 'on', b1: 'on' })),
        works('M1', both({ b1: 'on' })),
      )
      .follow(14);
    expect(told.named).toBe('Y3');
  });
});
