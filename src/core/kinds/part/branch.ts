export type BranchRole =
  | 'body'
  | 'output'
  | 'made'
  | 'resting'
  | 'upper'
  | 'lower'
  | 'wiper'
  /** Way through a valve. */
  | 'way'
  /** A fluid part's own opening to the atmosphere. */
  | 'vent'
  /** Feed of a regulator that cannot reach its set pressure. */
  | 'wideOpen'
  /** Place of a leak through a piston seal. */
  | 'seal'
  /** A way that opens bit by bit: its device's state is the number of steps. */
  | 'opening';

/** What a circuit file may know of a coil's winding. */
export interface WindingFigures {
  ohms?: number | undefined;
  henries?: number | undefined;
  /** Of its label: apparent power, and currents with the armature closed and open, amperes. */
  va?: number | undefined;
  sealedAmps?: number | undefined;
  inrushAmps?: number | undefined;
}

/** A filament that is cold, a rotor that stands: ohms, how far they may be off (a share), and whether somebody has said them. */
export interface RestFigures {
  ohms: number;
  tolerance: number;
  said: boolean;
}

/** What one two-terminal piece of a part needs to be told; nodes by name. */
export interface BranchSpec {
  role: BranchRole;
  /** On the air, oil or vacuum side. */
  fluid?: true;
  from: string;
  to: string;
  /** Resistance while it conducts: ohms, or kPa per L/min. */
  ohms: number;
  /** A coil: what is known of its winding. Its own resistance and reactance are settled once its circuit is known. */
  winding?: WindingFigures;
  /** Volts, or kPa. */
  emf?: number;
  tolerance?: number;
  emfTolerance?: number;
  /** What a meter reads of it cold or standing, where that is not what it has at work. */
  rest?: RestFigures;
  /** Contact set of a relay, counted from 0. */
  set?: number;
  /** Valve positions in which a way is open. */
  positions?: readonly number[];
}

/** Spread that a load's resistance may have around its nominal value when the file gives none. */
export const LOAD_TOLERANCE = 0.08;
/** Closed contact when the file gives no figure, ohms. */
export const CONTACT_OHMS = 0.01;
/** Node that every vent leads to; the zero of gauge pressure. */
export const ATMOSPHERE = 'ATM';
/** Resistance of the place where a sound seal would leak: it is open until a fault gives it a path. */
const SEAL = 1;

/** A spool that stands mid-way joins all its ways, each this much narrower. */
export const MIDWAY_NARROWER = 3;

/** Steps from shut to fully open of a way that opens bit by bit. */
export const OPENING_STEPS = 40;

/** Positions of a valve's spool. */
export const AT_REST = 0;
export const SHIFTED = 1;
export const OTHER_WAY = 2;
export const MIDWAY = 3;

/** The one piece of a part with two ends. */
export function body(part: { nodes: { '1': string; '2': string } }, ohms: number): BranchSpec {
  return { role: 'body', from: part.nodes['1'], to: part.nodes['2'], ohms };
}

/** A place that leaks once a fault gives it a path: to the atmosphere, or through a seal. */
export function seal(from: string, to = ATMOSPHERE): BranchSpec {
  return { role: 'seal', fluid: true, from, to, ohms: SEAL };
}
