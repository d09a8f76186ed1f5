import { groundOf } from './compile';
import type { ClosedFormEdit, Terminal } from './edits';
import { admittance } from './edgesOf';
import type { Delta, Edge } from './network';
import type { Situation } from './situation';

/** Open-circuit volts and series resistance of a meter on the diode range: about 1 mA into a junction. */
const DIODE_METER = { volts: 3, ohms: 3000 };
/** Series resistance of an insulation tester: limits it to about a milliampere. */
const TESTER_OHMS_PER_VOLT = 1000;

/** What drives the network. `live`: its sources. The others: sources off, the meter between two nodes. */
export type Drive =
  | { mode: 'live' }
  | { mode: 'ohms' }
  /** Ohms with every filament cold and every rotor standing, by usual figures where nobody has said. */
  | { mode: 'resting' }
  | { mode: 'diode'; from: number; to: number }
  | { mode: 'insulation'; from: number; to: number; testVolts: number };

/** The meter's own branch, where it drives through itself. */
export function meterOf(drive: Drive): { from: number; to: number; siemens: number; emf: number } | null {
  if (drive.mode === 'diode') {
    return { from: drive.from, to: drive.to, siemens: 1 / DIODE_METER.ohms, emf: DIODE_METER.volts };
  }
  if (drive.mode !== 'insulation') return null;
  const { from, to, testVolts } = drive;
  return { from, to, siemens: 1 / (TESTER_OHMS_PER_VOLT * testVolts), emf: testVolts };
}

export function terminalNode(situation: Situation, { branch, end }: Terminal): number {
  return end === 'a' ? situation.a[branch]! : situation.b[branch]!;
}

/**
 * What a closed-form edit adds to the network that stands without it; null where it changes nothing there.
 *
 * @param brokenDown a weak spot conducts only once it has seen its volts
 */
export function deltaOf(
  situation: Situation,
  edit: ClosedFormEdit,
  edges: readonly Edge[],
  brokenDown: boolean,
): Delta | null {
  switch (edit.type) {
    case 'leak': {
      // A part that is out of the circuit takes its leak with it.
      if (!situation.present[edit.at.branch]) return null;
      if (edit.breakdownVolts !== undefined && !brokenDown) return null;
      const ground = groundOf(situation.compiled, situation.compiled.branches[edit.at.branch]!);
      return { a: terminalNode(situation, edit.at), b: ground, siemens: 1 / edit.ohms };
    }
    case 'bridge':
      if (!situation.present[edit.from.branch] || !situation.present[edit.to.branch]) return null;
      return {
        a: terminalNode(situation, edit.from),
        b: terminalNode(situation, edit.to),
        siemens: 1 / edit.ohms,
      };
    case 'ohms': {
      const { a, b, siemens, emf, susceptance = 0 } = edges[edit.branch]!;
      if (siemens === 0) return null;
      if (susceptance === 0) return { a, b, siemens: 1 / edit.ohms - siemens, emf };
      // Fewer turns: inductance falls with their square, resistance with their number.
      const { ohms, reactance } = situation.compiled.branches[edit.branch]!;
      const wanted = admittance(edit.ohms, reactance * (edit.ohms / ohms) ** 2);
      return {
        a,
        b,
        siemens: wanted.siemens - siemens,
        susceptance: wanted.susceptance - susceptance,
        emf,
      };
    }
    case 'gap': {
      const { a, b, siemens, emf, susceptance = 0 } = edges[edit.branch]!;
      if (siemens === 0 || susceptance === 0) return null;
      const { ohms, reactance } = situation.compiled.branches[edit.branch]!;
      const wanted = admittance(ohms, reactance * edit.share);
      return {
        a,
        b,
        siemens: wanted.siemens - siemens,
        susceptance: wanted.susceptance - susceptance,
        emf,
      };
    }
    case 'force': {
      const { a, b, siemens, emf } = edges[edit.branch]!;
      const wanted = edit.on && situation.present[edit.branch] ? 1 / situation.ohms[edit.branch]! : 0;
      return { a, b, siemens: wanted - siemens, emf };
    }
  }
}
