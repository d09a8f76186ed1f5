import { CircuitModel } from '../circuit/model';
import type { Circuit, Reading, Setup } from '../circuit/schema';
import { cautionsOf } from '../diagnosis/cautionsOf';
import { energyChange } from '../diagnosis/access';
import { meaningLimits } from '../diagnosis/meaningLimits';
import { yardsticks } from '../diagnosis/yardsticks';
import {
  changeOverRelay,
  driverHighSide,
  multiOutput,
  singleCoil,
  stopSolenoid,
  threeWireSensor,
  twinOutputs,
  twoWayPair,
  winchPack,
} from '../templates/electrical';
import { at, click, holds, ohms, Story, volts, works, changed, nothing } from './story';

/** Stories of batteries, relays and controllers on machines: what must be said, and what must not. Each breaks a rule that was broken once. */

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

describe('W14, a motor’s fuse that went of its own accord', () => {
  const ON = at({ switch: 'on' });
  /** A motor of 1.2 Ω behind a relay, on a fuse that it alone is fed by. */
  const motor = (): Circuit => {
    const whole = changed(changed(changeOverRelay(), 'H1', { kind: 'motor', ohms: 1.2 }), 'F1', { amps: 20 });
    const alone = changed(whole, 'K1', { nodes: { a1: '86', a2: '85', com: '30', no: '87' } });
    return { ...alone, parts: alone.parts.filter(({ ref }) => ref !== 'H2' && ref !== 'W5') };
  };

  it('once ohms and insulation clear what it feeds a new one is watched under load, and no reading is taken for its own sake', () => {
    const story = new Story(motor(), ['F1', 'open']).take(works('H1', ON));
    const told = story.follow();
    expect(told.named).toBe('F1');
    const asked = story.readings.slice(1);
    const watched = asked.findIndex(({ kind }) => kind === 'fuse');
    expect(asked[watched]).toMatchObject({ part: 'F1', setup: ON, value: 'holds' });
    const before = asked.slice(0, watched);
    expect(before).toContainEqual(expect.objectContaining({ kind: 'insulation', from: '87', value: 'OL' }));
    expect(asked.length).toBeLessThan(10);
  });

  it('at rest next to nothing would take a new one: watching it there tells little', () => {
    const told = new Story(motor(), ['F1', 'open'])
      .take(works('H1', ON), volts('F1:2', 'GND', ON), ohms('87', 'GND', { isolated: ['G1'] }))
      .ask({ most: 400 });
    const bits = (setup: Setup) => told.offered({ kind: 'fuse', setup })?.bits ?? 0;
    expect(bits(ON)).toBeGreaterThan(0.5);
    expect(bits(at({ switch: 'off' }))).toBeLessThan(0.1);
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

describe('W11, a contactor that has welded and trips the pack’s breaker', () => {
  it('is not missed behind the breaker that it tripped, which lies there out while the rest is read', () => {
    const IN = at({ pendant: 'in' });
    const tripped = [
      { ...works('M', IN), value: 'dead' },
      { ...click('K4', IN), value: true },
      { ...volts('F0:2', 'GND', IN), value: 0 },
      { ...ohms('B+', 'F0:2', { isolated: ['G1'] }), value: 'OL' },
    ] as Reading[];
    const story = new Story(winchPack(), ['K4', 'welded'])
      .take(works('M', at({ pendant: 'out' })))
      .say(...tripped);
    expect(story.ask().named).toBeNull();
    expect(story.ask().suspect('K4', 'welded')).toBeGreaterThan(0.05);
    const shorted = story.take(ohms('M1', 'GND', { isolated: ['G1'] })).ask();
    expect(shorted.suspects[0]).toMatchObject({ part: 'K4', fault: 'welded' });
    expect(shorted.share('F0')).toBeLessThan(0.05);
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
