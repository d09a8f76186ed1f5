import { FAILURE_MODES, FAILURE_TYPES, statusNames } from './failureModes';
import { decodeDm, DM1, DM2, type J1939Code } from './j1939';
import { obdGroup, type UdsCode } from './obd';

export type CodeSystem = 'J1939' | 'J1587' | 'OBD' | 'UDS' | 'pair';

/** A fault code in any notation, as the command line and the screens show it. */
export interface FoundCode {
  system: CodeSystem;
  /** Number of a component-and-mode pair, or the five characters of a code. */
  component: number | string;
  /** Number of the mode, or the two hex digits of a failure type. */
  failureMode?: number | string;
  /** What the mode says, in our words. */
  text: string;
  count?: number;
  sourceAddress?: number;
  active?: boolean;
  /** Names of the set status bits. */
  status?: string[];
  /** The bytes are of an older layout: what the number is under each. */
  ambiguous?: { method: number; component: number }[];
}

/** Words for a component-and-mode pair. */
export function pairText(mode: number): string {
  return FAILURE_MODES[mode] ?? `unknown mode ${mode}`;
}

export function fromJ1939(code: J1939Code, sourceAddress?: number, active?: boolean): FoundCode {
  return {
    system: 'J1939',
    component: code.spn,
    failureMode: code.fmi,
    text: pairText(code.fmi),
    ...(code.count === null ? {} : { count: code.count }),
    ...(sourceAddress === undefined ? {} : { sourceAddress }),
    ...(active === undefined ? {} : { active }),
    ...(code.oldMethod
      ? { ambiguous: code.others.map(({ method, spn }) => ({ method, component: spn })) }
      : {}),
  };
}

export function fromUds({ code, failureType, status }: UdsCode): FoundCode {
  const text = FAILURE_TYPES[failureType] ?? `failure type ${failureType}`;
  return {
    system: 'UDS',
    component: code,
    failureMode: failureType,
    text: `${text} (${obdGroup(code)})`,
    ...(status === null ? {} : { status: statusNames(status), active: (status & 1) === 1 }),
  };
}

export function fromObd(code: string): FoundCode {
  return { system: 'OBD', component: code, text: obdGroup(code) };
}

/** Codes of a message put together from the bus; none for a message of another kind. */
export function fromMessage(pgn: number, sourceAddress: number, data: ArrayLike<number>): FoundCode[] {
  if (pgn !== DM1 && pgn !== DM2) return [];
  return decodeDm(data).codes.map((code) => fromJ1939(code, sourceAddress, pgn === DM1));
}
