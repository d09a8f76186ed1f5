import type { BranchRole } from '../kinds/part/branch';
import type { CompiledPart } from '../circuit/compile';
import type { Edit, Terminal } from '../circuit/edits';

export const FAULT_NAMES = [
  'noOutput',
  'noCommand',
  'lowVoltage',
  'open',
  'highResistance',
  'shortToFrame',
  'weakInsulation',
  'shortedTurns',
  'stuckOpen',
  'stuckClosed',
  'bridged',
  'welded',
  'short',
  'reversed',
  'stuckOn',
  'stuck',
  'shortBetween',
  'shortToSupply',
  'leakyOutput',
  'swapped',
  'crossedPins',
  'wrongTerminal',
  'blockDead',
  'lowPressure',
  'blocked',
  'leaking',
  'stuckAtRest',
  'stuckShifted',
  'stuckMidway',
  'sealLeak',
  'ventBlocked',
  'jammed',
  'drifted',
] as const;
export type FaultName = (typeof FAULT_NAMES)[number];

/** Severity of a fault: prior density is log-uniform, `mainShare` of it where the fault matters to the function. */
export interface SeverityRange {
  /** Ohms; kPa per L/min; or a factor on a supply's volts, a pressure or a switching point. */
  unit: 'ohms' | 'restriction' | 'factor';
  least: number;
  most: number;
  mainLeast: number;
  mainMost: number;
}

/** One way a fault may sit in a part: which end leaks, which contact is worn, above which volts it breaks down. */
export interface FaultVariant {
  weight: number;
  edits: (severity: number) => Edit[];
  /** Conducts only once the volts to the frame at this terminal exceed this; `worn` is the same path without a threshold. */
  breakdown?: { at: Terminal; volts: number; worn: (severity: number) => Edit[] };
}

export interface CandidateFault {
  index: number;
  part: number;
  ref: string;
  fault: FaultName;
  /** The other part of a fault between two. */
  other?: string;
  /** Share before any reading. All candidates and `noFault` add to one. */
  prior: number;
  /** How often it happens, on the scale of the kinds’ odds: compares faults of different circuits. */
  frequency: number;
  severity: SeverityRange | null;
  variants: FaultVariant[];
}

/** Adds one fault of a part with its odds, relative to an open coil. */
export type AddFault = (
  part: CompiledPart,
  fault: FaultName,
  odds: number,
  severity: SeverityRange | null,
  variants: readonly FaultVariant[],
  more?: { other?: string; factor?: number },
) => void;

/** A piece of a part that faults sit on. */
export interface FaultSite {
  index: number;
  role: BranchRole;
}

/** Broken for good. */
export function broken({ index }: FaultSite): FaultVariant {
  return { weight: 1, edits: () => [{ type: 'ohms', branch: index, ohms: Infinity }] };
}

/** Resistance, or restriction, of its own. */
export function worsened({ index }: FaultSite): FaultVariant {
  return { weight: 1, edits: (ohms) => [{ type: 'ohms', branch: index, ohms }] };
}

/** Conducts, or not, whatever it is told. */
export function forced({ index }: FaultSite, on: boolean): FaultVariant {
  return { weight: 1, edits: () => [{ type: 'force', branch: index, on }] };
}

/** A path beside it, from end to end. */
export function bridged({ index }: FaultSite): FaultVariant {
  const at = (end: 'a' | 'b') => ({ branch: index, end });
  return { weight: 1, edits: (ohms) => [{ type: 'bridge', from: at('a'), to: at('b'), ohms }] };
}

/** A path from one end to the frame or the atmosphere. */
export function leak({ index }: FaultSite, end: 'a' | 'b', weight = 1): FaultVariant {
  return { weight, edits: (ohms) => [{ type: 'leak', at: { branch: index, end }, ohms }] };
}

/** Another fault of the leading part is as good for a proof of the part from this share of its likeliest one's. */
export const SAME_PART_SHARE = 0.2;
