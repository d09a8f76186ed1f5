import { fuseWindow } from '../../circuit/fuseTime';
import type { CoilDevice } from '../../tables/marks';
import type { Finding } from '../sheet';

/** How a coil does in service, beside what its ohms say: how hot it runs, at what volts it works, how long it may stay on. */

/** Copper's ohms fall to nothing here by the straight line, °C below zero (reference section 2). */
const COPPER_ZERO_C = 234.5;

/** Temperature of a winding out of its ohms warm and cold, °C; both with the leads off. */
export function windingC(ohmsHot: number, ohmsCold: number, coldC: number): number {
  return (ohmsHot / ohmsCold) * (COPPER_ZERO_C + coldC) - COPPER_ZERO_C;
}

/** Volts that a direct-current coil pulls in at when it is hot: its force follows the current (reference section 10, E14). */
export function pullInHot(volts: number, coldC: number, hotC: number): number {
  return (volts * (COPPER_ZERO_C + hotC)) / (COPPER_ZERO_C + coldC);
}

/** Hottest that windings of a class of insulation may run, °C (IEC 60085). */
export const CLASS_MOST_C = { A: 105, E: 120, B: 130, F: 155, H: 180 } as const;
export type InsulationClass = keyof typeof CLASS_MOST_C;

export const DEVICES = ['contactor', 'relay', 'valve'] as const;
export type Device = (typeof DEVICES)[number];

/** The shop's row for a device: a contactor lets go later on alternating volts. */
export function coilDevice(device: Device, alternating: boolean): CoilDevice {
  if (device === 'contactor') return alternating ? 'contactorAC' : 'contactorDC';
  return device;
}

/** Seconds in which a blade fuse opens at a current; `most` null where nothing guarantees that it does. */
export function fuseSeconds(amps: number, fuseAmps: number): { least: number; most: number | null } {
  const { leastSeconds, mostSeconds } = fuseWindow((100 * amps) / fuseAmps);
  return { least: leastSeconds, most: Number.isFinite(mostSeconds) ? mostSeconds : null };
}

/** What share of a cycle a coil is on, and the longest that its rating allows within that cycle, seconds (reference section 11, E15). */
export function dutyOf(
  onSeconds: number,
  cycleSeconds: number,
  ratedShare: number,
): { share: number; mostOnSeconds: number; over: boolean } {
  const share = Math.min(onSeconds / cycleSeconds, 1);
  return { share, mostOnSeconds: ratedShare * cycleSeconds, over: share > ratedShare };
}

export type DutyFinding = Finding<'dutyOver' | 'onTimeWithoutCycle'>;

/** The same of what a sheet has typed; null while one of the three is missing. */
export function dutyFound(
  {
    onSeconds,
    cycleSeconds,
    dutyShare,
  }: { onSeconds?: number | undefined; cycleSeconds?: number | undefined; dutyShare?: number | undefined },
  findings: Finding[],
): ReturnType<typeof dutyOf> | null {
  if (onSeconds === undefined || dutyShare === undefined) return null;
  if (cycleSeconds === undefined) {
    findings.push({ code: 'onTimeWithoutCycle' } satisfies DutyFinding);
    return null;
  }
  const duty = dutyOf(onSeconds, cycleSeconds, dutyShare);
  if (duty.over)
    findings.push({ code: 'dutyOver', share: duty.share, rated: dutyShare } satisfies DutyFinding);
  return duty;
}

/** How long it has to stay off after it was on, so that no more heat went into it than its label allows, seconds (reference section 11, E15). */
export function coolSeconds(onSeconds: number, ratedShare: number): number {
  return onSeconds * (1 / ratedShare - 1);
}

/** A coil switched on and off faster than it can follow, its diode carrying the current on (reference section 8). */
export interface Pulses {
  supplyVolts: number;
  /** What the diode and the switch keep for themselves. */
  flybackVolts: number;
  switchVolts: number;
}

/** What a DC meter shows across it, and of a low-side pin to ground, volts. */
export function pulsedVolts(
  { supplyVolts, flybackVolts, switchVolts }: Pulses,
  onShare: number,
): { coil: number; pin: number } {
  return {
    coil: onShare * (supplyVolts - switchVolts) - (1 - onShare) * flybackVolts,
    pin: (1 - onShare) * (supplyVolts + flybackVolts) + onShare * switchVolts,
  };
}

/** The share of time on, out of what a DC meter shows; null where no share does. */
export function onShareOf(
  { supplyVolts, flybackVolts, switchVolts }: Pulses,
  shown: { across: number } | { pin: number },
): number | null {
  const swing = supplyVolts - switchVolts + flybackVolts;
  const share =
    'across' in shown
      ? (shown.across + flybackVolts) / swing
      : (supplyVolts + flybackVolts - shown.pin) / swing;
  return share >= 0 && share <= 1 ? share : null;
}
