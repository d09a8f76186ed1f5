import type { Reading, Setup } from '../circuit/schema';
import { energyChange } from '../diagnosis/access';
import { isPlain } from '../diagnosis/legality';
import { singleCoil } from '../templates/electrical';
import {
  airClamp,
  airSwitch,
  gateValve,
  hydraulicLift,
  springCylinder,
  vacuumVent,
} from '../templates/fluid';
import { at, gauge, moves, ohms, Story, volts, works } from './story';

/** Stories of air, oil and vacuum: what must be said, and what must not. Each breaks a rule that was broken once. */

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
