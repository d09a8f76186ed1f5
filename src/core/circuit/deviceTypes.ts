/** A part whose conduction depends on the solution. Its state is a small whole number, 0 at first. */
export type Device =
  /** 1: blown. */
  | { kind: 'fuse'; branch: number; amps: number; part: number }
  /** 1: conducts. Also a fluid check or relief valve, with pressure for volts; `part` where what it opens at may have drifted. */
  | { kind: 'diode'; branch: number; volts: number; from: number; part?: number }
  /** 1: pulled in. */
  | { kind: 'relay'; coil: number; pickUp: number; dropOut: number; part: number }
  /** 1: in current limit. */
  | { kind: 'driver'; branch: number; limit: number; ohms: number }
  /** Position of the spool. */
  | {
      kind: 'valve';
      part: number;
      port: number;
      pilotKPa: number;
      coils: readonly ({ place: number; pullIn: number; hold: number } | null)[];
      bistable: boolean;
    }
  /** Steps open, of `OPENING_STEPS`: from `from` amperes to `full` amperes through the coil. */
  | { kind: 'opening'; part: number; coil: number; from: number; full: number }
  /** 1: wide open, the inlet does not reach the set pressure. */
  | { kind: 'regulator'; part: number; inlet: number; outlet: number; kPa: number }
  /** 1: operated. */
  | { kind: 'pressureSwitch'; part: number; port: number; makeKPa: number; breakKPa: number };

/** Devices whose state a dead reading must first learn from the live circuit: something stands where current or pressure put it. */
export const MOVES: Readonly<Record<Device['kind'], boolean>> = {
  fuse: false,
  diode: false,
  relay: true,
  driver: false,
  valve: true,
  opening: true,
  regulator: true,
  pressureSwitch: true,
};
