import { demoCircuit } from '@/testing/demoCircuits';
import type { Circuit, Reading, Setup, Test } from '../circuit/schema';
import { winchPack } from '../templates/electrical';
import { MachineUnderTest } from '../testing/machineUnderTest';
import { clearBefore } from './clearBefore';
import { Diagnoser } from './diagnose';

/** Shares by part and fault after the machine was read with something in it that does not move. */
function judged(circuit: Circuit, part: string, tests: readonly Test[], from?: readonly Reading[]) {
  const machine = new MachineUnderTest(circuit, part, 'jammed');
  const read = tests.map((test) => ({ ...test, value: machine.value(test) }) as Reading);
  const { suspects, verdict } = new Diagnoser(circuit).diagnose([...(from ?? []), ...read]);
  return { read, verdict, first: suspects[0]!, suspects };
}

describe('what is fed and does not move', () => {
  const lock = demoCircuit('loader-bucket-lock');
  const on: Setup = { controls: { key: 'on', lock: 'on' } };

  it('is a plunger that is jammed, where its coil draws what it should', () => {
    const { read, first, verdict } = judged(lock, 'Y22', [
      { kind: 'function', part: 'Y22', setup: on },
      { kind: 'amps', through: 'Y22', setup: on },
      { kind: 'click', part: 'Y22', setup: on },
    ]);
    expect(read.map(({ value }) => value)).toEqual(['dead', expect.closeTo(1.155, 2), false]);
    expect(first).toMatchObject({ part: 'Y22', fault: 'jammed' });
    expect(first.share).toBeGreaterThan(0.9);
    expect(verdict).toMatchObject({ part: 'Y22' });
  });

  it('is no plunger where nothing flows', () => {
    const dead: Reading = { kind: 'function', part: 'Y22', setup: on, value: 'dead' };
    const none: Reading = { kind: 'amps', through: 'Y22', setup: on, value: 0 };
    const { suspects } = new Diagnoser(lock).diagnose([dead, none]);
    expect(suspects.find(({ part, fault }) => part === 'Y22' && fault === 'jammed')?.share ?? 0).toBeLessThan(
      0.02,
    );
  });

  it('is an armature where a relay takes its current without a click', () => {
    const { first } = judged(lock, 'K5', [
      { kind: 'function', part: 'Y22', setup: on },
      { kind: 'amps', through: 'K5', setup: on },
      { kind: 'click', part: 'K5', setup: on },
    ]);
    expect(first).toMatchObject({ part: 'K5', fault: 'jammed' });
  });

  it('is a seized rotor where a motor draws far more than it should and does not turn', () => {
    const drawn = winchPack();
    // Its breaker would end it: what a starter has none of.
    const parts = drawn.parts.map((one) => (one.kind === 'breaker' ? { ...one, amps: 40 * one.amps } : one));
    const winch = { ...drawn, parts };
    const model = new Diagnoser(winch).model;
    const motor = winch.parts.find(({ kind }) => kind === 'motor')!.ref;
    const setup = { controls: model.combinations.at(-1)! };
    const { read, first } = judged(winch, motor, [
      { kind: 'function', part: motor, setup },
      { kind: 'amps', through: motor, setup },
    ]);
    expect(read[0]!.value).toBe('dead');
    expect(first).toMatchObject({ part: motor });
    expect(['jammed', 'short']).toContain(first.fault);
    expect(clearBefore(model, motor, 'jammed')).toContainEqual({ part: motor, reason: 'seizedRotor' });
  });

  it('says of a plunger on direct volts what a new one would meet, and does not burn it', () => {
    expect(clearBefore(new Diagnoser(lock).model, 'Y22', 'jammed')).toContainEqual({
      part: 'Y22',
      reason: 'jammedPlunger',
    });
  });
});
