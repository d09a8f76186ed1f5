import { demoCircuit } from '@/testing/demoCircuits';
import type { Reading, Test } from '../circuit/schema';
import { contactorTwoSupplies } from '../templates/line';
import { Diagnoser } from './diagnose';
import { faultByName } from './faults';
import { bindTest, predict, predictedValue } from './predict';

const tilt = demoCircuit('groomer-blade-tilt');
const diagnoser = new Diagnoser(tilt);
const left = { controls: { key: 'on', tilt: 'left' } };
const right = { controls: { key: 'on', tilt: 'right' } };
const complaint: Reading[] = [
  { kind: 'function', part: 'Y7', setup: left, value: 'works' },
  { kind: 'function', part: 'Y8', setup: right, value: 'dead' },
];

/** Takes a test on the machine with a hidden fault. */
function take(own: Diagnoser, test: Test, part: string, fault: string, ohms?: number): Reading {
  const found = faultByName(own.faults, part, fault, ohms);
  const edits = found.fault.variants[0]!.edits(found.severity);
  return { ...test, value: predictedValue(test.kind, predict(bindTest(own.model, test), edits)) } as Reading;
}

/** Follows the program's own first choice until it names a part or stops. */
function follow(own: Diagnoser, first: Reading[], part: string, fault: string, ohms?: number) {
  const readings = [...first];
  for (let step = 0; step < 14; step++) {
    const { verdict, next } = own.diagnose(readings, { most: 1 });
    if (verdict.state !== 'keepTesting' || next.length === 0) return { verdict, readings };
    readings.push(take(own, next[0]!.test, part, fault, ohms));
  }
  return { verdict: own.diagnose(readings).verdict, readings };
}

describe('diagnose', () => {
  it('gives shares that add to one, highest first', () => {
    for (const readings of [[], complaint]) {
      const { suspects, noFault } = diagnoser.diagnose(readings);
      expect(suspects.reduce((sum, { share }) => sum + share, noFault)).toBeCloseTo(1, 9);
      const shares = suspects.map(({ share }) => share);
      expect(shares).toEqual([...shares].sort((a, b) => b - a));
    }
  });

  it('says of each answer which parts it leaves, a part of many faults by all of them', () => {
    const fan = new Diagnoser(contactorTwoSupplies());
    const dead: Reading = {
      kind: 'function',
      part: 'M1',
      setup: { controls: { thermostat: 'calling' } },
      value: 'dead',
    };
    const outcomes = fan.diagnose([dead], { most: 12 }).next.flatMap((one) => one.outcomes);
    for (const { means, goes } of outcomes) {
      const shares = goes.map(({ share }) => share);
      expect(shares).toEqual([...shares].sort((a, b) => b - a));
      for (const { part } of means) {
        const listed = means.reduce((sum, one) => sum + (one.part === part ? one.share : 0), 0);
        const whole = goes.find((one) => one.part === part)?.share ?? shares.at(-1)!;
        expect(whole).toBeGreaterThan(listed - 1e-9);
      }
    }
    // None of its faults alone comes to as much as the one of a thermostat; all of them come to more.
    const feed = { kind: 'volts', from: 'F2:2', to: 'PE', setup: dead.setup } as const;
    const sound = fan.diagnose([dead], { tests: [feed] }).next[0]!.outcomes.find((one) => one.sound)!;
    expect(sound.goes.map(({ part }) => part)).toEqual(['M1', 'K1', 'S1']);
    expect(sound.means[0]!.part).toBe('S1');
    expect(sound.faults[0]!.fault).toBe('open');
  });

  it('clears what the working side shares with the dead one', () => {
    const { suspects } = diagnoser.diagnose(complaint);
    const share = (ref: string) =>
      suspects.filter(({ part }) => part === ref).reduce((sum, one) => sum + one.share, 0);
    for (const shared of ['G1', 'F7', 'S1', 'W12', 'W18', 'S3L', 'Y7'])
      expect(share(shared)).toBeLessThan(0.02);
    const own = ['S3R', 'X31.2', 'W15', 'X8.1', 'Y8', 'X8.2', 'W17', 'V8'].reduce(
      (sum, ref) => sum + share(ref),
      0,
    );
    expect(own).toBeGreaterThan(0.95);
  });

  it.each([
    ['X8.1', 'open', undefined],
    ['W15', 'open', undefined],
    ['S3R', 'stuckOpen', undefined],
    ['Y8', 'open', undefined],
    ['W17', 'highResistance', 70],
    ['X31.2', 'highResistance', 240],
  ])('names %s:%s by following its own advice', (part, fault, ohms) => {
    const { verdict, readings } = follow(diagnoser, complaint, part, fault, ohms);
    expect(verdict).toMatchObject({ state: 'name', part });
    expect(readings.length).toBeLessThanOrEqual(complaint.length + 8);
  });

  it('infers the severity of a bad joint from the readings', () => {
    const { readings } = follow(diagnoser, complaint, 'X8.1', 'highResistance', 87);
    const [top] = diagnoser.diagnose(readings).suspects;
    expect(top).toMatchObject({ part: 'X8.1', fault: 'highResistance' });
    expect(top!.severityOhms! / 87).toBeGreaterThan(0.9);
    expect(top!.severityOhms! / 87).toBeLessThan(1.1);
  });

  it('answers as if it had never been asked before: what a blown fuse explained is not kept for a machine with it in', () => {
    const shares = (one: Diagnoser, readings: readonly Reading[]) =>
      one.diagnose(readings).suspects.map(({ part, fault, share }) => [part, fault, share.toFixed(9)]);
    const dead = (part: string, setup: Reading['setup']): Reading => ({
      kind: 'function',
      part,
      setup,
      value: 'dead',
    });
    const blew: Reading[] = [dead('Y8', right), { kind: 'fuse', part: 'F7', setup: right, value: 'blows' }];
    const whole: Reading[] = [
      { kind: 'function', part: 'Y7', setup: left, value: 'works' },
      dead('Y8', right),
    ];
    const asked = new Diagnoser(tilt);
    for (const readings of [blew, whole, blew])
      expect(shares(asked, readings)).toEqual(shares(new Diagnoser(tilt), readings));
  });

  it('chooses the dead-circuit reading behind the fuse for a fuse that blows in one position', () => {
    const blows: Reading[] = [
      { kind: 'fuse', part: 'F7', setup: left, value: 'holds' },
      { kind: 'fuse', part: 'F7', setup: right, value: 'blows' },
    ];
    const [best] = diagnoser.diagnose(blows).next;
    expect(best!.test.kind).toBe('ohms');
    expect(best!.test.setup.pulled).toContain('F7');
    expect(best!.test).not.toMatchObject({ kind: 'fuse' });
  });

  it('prefers the insulation tester where only working volts show the fault', () => {
    const pump = new Diagnoser(demoCircuit('pump-fill-valve'));
    const low = { controls: { level: 'low' } };
    const dead = { isolated: ['G2'] };
    const readings: Reading[] = [
      { kind: 'fuse', part: 'F4', setup: low, value: 'blows' },
      { kind: 'ohms', from: 'K4:14', to: 'PE', setup: dead, value: 41.2 },
      { kind: 'ohms', from: 'F4:2', to: 'PE', setup: dead, value: 0.9 },
    ];
    const { next } = pump.diagnose(readings, { most: 60 });
    const most = (kind: string) =>
      Math.max(0, ...next.filter(({ test }) => test.kind === kind).map(({ bits }) => bits));
    expect(most('insulation')).toBeGreaterThan(2 * most('ohms'));
  });

  it('never offers ohms on a powered pair, nor a tester on electronics', () => {
    for (const name of ['groomer-blade-tilt', 'groomer-tiller-float', 'winch-reversing']) {
      const own = new Diagnoser(demoCircuit(name));
      for (const { test } of own.diagnose([], { most: 40 }).next) {
        expect(() => bindTest(own.model, test)).not.toThrow();
      }
    }
    const tiller = new Diagnoser(demoCircuit('groomer-tiller-float'));
    const kinds = tiller.diagnose([], { most: 40 }).next.filter(({ test }) => test.kind === 'insulation');
    for (const { test } of kinds) expect(test.setup.unplugged?.length).toBeGreaterThan(0);
  });

  it('does not ask a settled question again', () => {
    const { next } = diagnoser.diagnose(complaint);
    const asked = take(diagnoser, next[0]!.test, 'X8.1', 'open');
    const after = diagnoser.diagnose([...complaint, asked]).next.map(({ test }) => JSON.stringify(test));
    expect(after).not.toContain(JSON.stringify(next[0]!.test));
  });

  it('grows surer, never less sure, with the same answer from another place', () => {
    const { readings } = follow(diagnoser, complaint, 'W15', 'open');
    let before = 0;
    for (let count = 2; count <= readings.length; count++) {
      const { suspects } = diagnoser.diagnose(readings.slice(0, count));
      const share = suspects.filter(({ part }) => part === 'W15').reduce((sum, one) => sum + one.share, 0);
      expect(share).toBeGreaterThan(before - 0.02);
      before = share;
    }
    expect(before).toBeGreaterThan(0.9);
  });

  it('counts a repeated reading once', () => {
    const reading: Reading = {
      kind: 'ohms',
      from: 'X8:1',
      to: 'GND',
      setup: { pulled: ['F7'] },
      value: 'OL',
    };
    const once = diagnoser.diagnose([...complaint, reading]).suspects[0]!.share;
    const thrice = diagnoser.diagnose([...complaint, reading, reading, reading]).suspects[0]!.share;
    expect(Math.abs(thrice - once)).toBeLessThan(0.03);
  });

  it('says so when the readings contradict the drawing', () => {
    const dead = { pulled: ['F7'] };
    const readings: Reading[] = [
      ...complaint,
      { kind: 'ohms', from: 'X8:1', to: 'GND', setup: dead, value: 31.5 },
      { kind: 'ohms', from: 'Y8:1', to: 'Y8:2', setup: dead, value: 480 },
      { kind: 'ohms', from: 'X8:2', to: 'GND', setup: dead, value: 5200 },
      { kind: 'ohms', from: 'X7:1', to: 'GND', setup: dead, value: 77 },
      { kind: 'ohms', from: 'R2', to: 'GND', setup: dead, value: 990 },
    ];
    const { verdict, unexplained } = diagnoser.diagnose(readings);
    expect(unexplained).toBeGreaterThan(0.5);
    expect(verdict.state).toBe('unexplained');
  });

  it('finds nothing wrong where every reading is sound, and grows surer of it', () => {
    const readings: Reading[] = [complaint[0]!, { ...complaint[1]!, value: 'works' } as Reading];
    const before = diagnoser.diagnose(readings).noFault;
    for (let step = 0; step < 10; step++) {
      const { next, verdict } = diagnoser.diagnose(readings, { most: 1 });
      expect(['noFault', 'keepTesting']).toContain(verdict.state);
      if (verdict.state !== 'keepTesting' || next.length === 0) break;
      const bound = bindTest(diagnoser.model, next[0]!.test);
      readings.push({
        ...next[0]!.test,
        value: predictedValue(bound.test.kind, predict(bound, [])),
      } as Reading);
    }
    const { noFault } = diagnoser.diagnose(readings);
    expect(noFault).toBeGreaterThan(before);
    expect(noFault).toBeGreaterThan(0.5);
  });

  it('gives every outcome of a test its probability and what it would leave', () => {
    for (const { outcomes } of diagnoser.diagnose(complaint).next) {
      expect(outcomes.reduce((sum, { share }) => sum + share, 0)).toBeCloseTo(1, 1);
      for (const { means } of outcomes) expect(means.length).toBeGreaterThan(0);
    }
  });

  it('leaves out points that cannot be reached and tests that cannot be done', () => {
    const [best] = diagnoser.diagnose(complaint).next;
    const { from } = best!.test as { from: string };
    const without = diagnoser.diagnose(complaint, { noReach: [from], excluded: [] }).next;
    for (const { test } of without) expect(JSON.stringify([test])).not.toContain(`"from":"${from}"`);
    const excluded = diagnoser.diagnose(complaint, { excluded: [best!.test] }).next;
    expect(excluded.map(({ test }) => test)).not.toContainEqual(best!.test);
  });

  it('takes a display that wanders for a fault that comes and goes', () => {
    const hold: Test = { kind: 'volts', from: 'Y8:1', to: 'GND', setup: right };
    const readings: Reading[] = [
      complaint[0]!,
      { ...hold, value: 25.1 } as Reading,
      { ...hold, value: 0.01 } as Reading,
      { ...hold, value: 25.1 } as Reading,
    ];
    const [top] = diagnoser.diagnose(readings).suspects;
    expect(top!.intermittent).toBe(true);
  });
});
