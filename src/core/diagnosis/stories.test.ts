import { gasBypass } from '../templates/line';
import type { Reading, Test } from '../circuit/schema';
import { MachineUnderTest } from '../testing/machineUnderTest';
import { spentFuses } from '../job/blownFuses';
import { Diagnoser } from './diagnose';
import { isSpent } from '../circuit/edits';

const ON = { controls: { output: 'on' } };
const OFF = { controls: { output: 'off' } };
const dead = { kind: 'function', part: 'Y1', setup: ON, value: 'dead' } as const;
const volts = (from: string, to: string, setup: object, value: number) =>
  ({ kind: 'volts', from, to, setup, value }) as Reading;

/** Whole on the first look: the circuit with a part mended between its readings. */
function shareOf(diagnosis: ReturnType<Diagnoser['diagnose']>, part: string): number {
  return diagnosis.suspects.filter((one) => one.part === part).reduce((sum, { share }) => sum + share, 0);
}

describe('a fuse that a fault took unseen', () => {
  const diagnoser = new Diagnoser(gasBypass());
  // Run once, the short took F1: from there on nothing is fed, at rest or commanded.
  const found = [dead, volts('A1:O', 'N', ON, 0), volts('F1:2', 'N', OFF, 0), volts('R', 'F1:2', ON, 24)];

  it('is no proof of the fuse alone, nor of a short in front of what was run', () => {
    const diagnosis = diagnoser.diagnose(found);
    for (const part of ['Y1', 'W2', 'F1', 'W1']) expect(shareOf(diagnosis, part)).toBeGreaterThan(0.03);
    expect(diagnosis.verdict.state).toBe('keepTesting');
  });

  it('is asked with the fuse out, and no other fuse is put in to be watched', () => {
    const [first] = diagnoser.diagnose(found).next;
    expect(first!.test).toMatchObject({ kind: 'ohms', setup: { pulled: ['F1'] } });
  });

  it('costs another one where it is watched anew', () => {
    const watched: Test = { kind: 'fuse', part: 'F1', setup: ON };
    const minutesOf = (readings: Reading[]) =>
      diagnoser.diagnose(readings, { tests: [watched] }).next[0]!.minutes;
    // Shorts hold most of the doubt: each of them would take the new one too.
    expect(minutesOf(found) - minutesOf([dead])).toBeGreaterThan(2);
  });

  it('a coil that took it is named', () => {
    const machine = new MachineUnderTest(gasBypass(), 'Y1', 'shortToFrame', 0.4);
    const readings: Reading[] = [...found];
    for (let round = 0; round < 8; round++) {
      const { verdict, next } = diagnoser.diagnose(readings);
      if (verdict.state === 'name') break;
      const { test } = next[0]!;
      readings.push({ ...test, value: machine.value(test) } as Reading);
    }
    // What it took is named with it, for as long as nobody has looked there.
    const { verdict } = diagnoser.diagnose(readings);
    expect(verdict).toMatchObject({ state: 'name', part: 'Y1', spent: ['F1'] });
    expect(spentFuses(diagnoser.model, verdict, 'Y1').map(({ ref }) => ref)).toEqual(['F1']);
    expect(spentFuses(diagnoser.model, verdict, 'W2')).toEqual([]);
    const looked: Reading = { kind: 'fuse', part: 'F1', setup: OFF, value: 'holds' };
    expect(diagnoser.diagnose([...readings, looked]).verdict).toMatchObject({ part: 'Y1', spent: [] });
  });

  it('every command that was run took it: it may be gone, though no reading tells it from one put in anew', () => {
    const machine = new MachineUnderTest(gasBypass(), 'Y1', 'shortToFrame', 0.4);
    const readings: Reading[] = [dead, volts('A1:O', 'N', ON, 0), volts('F1:2', 'N', ON, 0)];
    for (let round = 0; round < 8; round++) {
      const { verdict, next } = diagnoser.diagnose(readings);
      if (verdict.state === 'name') break;
      const { test } = next[0]!;
      readings.push({ ...test, value: machine.value(test) } as Reading);
    }
    expect(diagnoser.diagnose(readings).verdict).toMatchObject({ state: 'name', part: 'Y1', spent: ['F1'] });
  });

  it('somebody who looked put a whole one in: what is read then is read with it', () => {
    const looked: Reading = { kind: 'fuse', part: 'F1', setup: OFF, value: 'holds' };
    const first = diagnoser.diagnose([dead, looked, volts('F1:2', 'N', OFF, 0)]);
    // A short behind an output that is off takes no fuse at rest, and the new one is whole.
    expect(shareOf(first, 'Y1')).toBeLessThan(0.03);
    expect(isSpent({ type: 'ohms', branch: 0, ohms: Infinity, spent: true })).toBe(true);
  });

  const blows: Reading = { kind: 'fuse', part: 'F1', setup: ON, value: 'blows' };

  it('was seen to go, and may lie there still: nothing behind it at rest is no short in front of what was run', () => {
    const diagnosis = diagnoser.diagnose([dead, blows, volts('F1:2', 'N', OFF, 0)]);
    expect(diagnosis.verdict).toMatchObject({ state: 'keepTesting', because: 'tooLittle' });
    for (const part of ['Y1', 'W2']) expect(shareOf(diagnosis, part)).toBeGreaterThan(0.1);
  });

  it('was seen to go and put in anew: the next run takes the new one', () => {
    const renewed = [dead, blows, volts('F1:2', 'N', OFF, 24)];
    const again = [...renewed, volts('A1:O', 'N', ON, 0), volts('W1:2', 'N', OFF, 0)];
    const [before, after] = [renewed, again].map((readings) => diagnoser.diagnose(readings));
    for (const part of ['Y1', 'W2'])
      expect(shareOf(after!, part) / shareOf(before!, part)).toBeGreaterThan(0.6);
    expect(shareOf(after!, 'W1')).toBeLessThan(0.1);
    expect(after!.suspects[0]).toMatchObject({ part: 'Y1', against: [] });
  });
});

describe('a part that was mended', () => {
  const diagnoser = new Diagnoser(gasBypass());
  const before = [dead, volts('W2:2', 'N', ON, 0), volts('A1:O', 'W2:2', ON, 24)];
  const mended = [{ part: 'W2', from: before.length }];

  it('stays named, and what is read of the mended machine does not speak against it', () => {
    const after = [volts('W2:2', 'N', ON, 23.8), { ...dead, value: 'works' } as Reading];
    expect(diagnoser.diagnose([...before, ...after]).suspects[0]).toMatchObject({ intermittent: true });
    const { verdict, suspects } = diagnoser.diagnose([...before, ...after], { mended });
    expect(verdict).toMatchObject({ state: 'name', part: 'W2' });
    expect(suspects[0]!.against).toEqual([]);
    expect(suspects[0]).not.toHaveProperty('intermittent');
  });

  it('leaves a second fault to be found, by itself', () => {
    const machine = new MachineUnderTest(gasBypass(), 'W3', 'open');
    const readings: Reading[] = [...before, dead];
    const asked: Test[] = [];
    for (let round = 0; round < 8; round++) {
      const { verdict, next } = diagnoser.diagnose(readings, { mended });
      if (verdict.state === 'name') break;
      const { test } = next[0]!;
      asked.push(test);
      readings.push({ ...test, value: machine.value(test) } as Reading);
    }
    const { verdict, suspects } = diagnoser.diagnose(readings, { mended });
    expect([verdict, asked.length]).toMatchObject([{ state: 'name', part: 'W3' }, expect.any(Number)]);
    expect(suspects[0]).not.toHaveProperty('with');
  });

  it('of a part that was mended twice the last time counts', () => {
    const again = [dead, volts('W2:2', 'N', ON, 0)];
    const at = before.length + again.length;
    const readings = [...before, ...again, volts('W2:2', 'N', ON, 23.8)];
    const twice = [...mended, { part: 'W2', from: at }];
    const { verdict, suspects } = diagnoser.diagnose(readings, { mended: twice });
    expect(verdict).toMatchObject({ state: 'name', part: 'W2', mended: true });
    expect(suspects[0]!.against).toEqual([]);
  });

  it('may have been mended badly: it stays possible', () => {
    const again = [dead, volts('W2:2', 'N', ON, 0), volts('A1:O', 'W2:2', ON, 24)];
    const { suspects } = diagnoser.diagnose([...before, ...again], { mended });
    expect(suspects[0]).toMatchObject({ part: 'W2' });
  });
});
