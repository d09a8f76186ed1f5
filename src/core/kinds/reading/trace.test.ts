import { demoCircuit } from '@/testing/demoCircuits';
import type { CoilCondition } from '../../trace/conditions';
import type { Reading, Setup } from '../../circuit/schema';
import { Diagnoser } from '../../diagnosis/diagnose';
import { MachineUnderTest } from '../../testing/machineUnderTest';

const lock = demoCircuit('loader-bucket-lock');
const on: Setup = { controls: { key: 'on', lock: 'on' } };
const shows = (part: string, fault?: string, ohms?: number) =>
  new MachineUnderTest(lock, ...((fault ? [part, fault, ohms] : []) as [string, string, number?])).value({
    kind: 'trace',
    part: 'Y22',
    setup: on,
  });
const traced = (value: CoilCondition): Reading => ({ kind: 'trace', part: 'Y22', setup: on, value });
const settles: Reading = { kind: 'amps', through: 'Y22', setup: on, value: 1.155 };

function shareOf(readings: readonly Reading[], part: string, fault: string): number {
  const { suspects } = new Diagnoser(lock).diagnose(readings);
  return suspects.find((one) => one.part === part && one.fault === fault)?.share ?? 0;
}

describe('a coil’s trace as a reading', () => {
  it.each([
    ['sound', 'sound', undefined],
    ['Y22', 'jammed', 'jammedOut'],
    ['V22', 'open', 'bare'],
    ['Y22', 'open', 'nothing'],
    ['S22', 'stuckOpen', 'nothing'],
  ] as const)('with %s %s shows what it is the trace of', (part, fault, condition) => {
    expect(part === 'sound' ? shows(part) : shows(part, fault)).toBe(condition ?? 'sound');
  });

  it('shows shorted turns by the winding, and too little on the way', () => {
    expect(shows('Y22', 'shortedTurns', 9)).toBe('shortedTurns');
    expect(shows('W23', 'highResistance', 12)).toBe('starved');
  });

  it('moves the doubt to the diode where its current no longer runs on', () => {
    const dead: Reading = { kind: 'function', part: 'Y22', setup: on, value: 'works' };
    expect(shareOf([dead, settles], 'V22', 'open')).toBeLessThan(0.5);
    expect(shareOf([dead, settles, traced('bare')], 'V22', 'open')).toBeGreaterThan(0.6);
    expect(shareOf([dead, settles, traced('sound')], 'V22', 'open')).toBeLessThan(0.1);
  });

  it('names a plunger that stays out, on the part itself', () => {
    const dead: Reading = { kind: 'function', part: 'Y22', setup: on, value: 'dead' };
    const { verdict, suspects } = new Diagnoser(lock).diagnose([dead, settles, traced('jammedOut')]);
    expect(suspects[0]).toMatchObject({ part: 'Y22', fault: 'jammed' });
    expect(verdict).toMatchObject({ state: 'name', part: 'Y22' });
  });
});
