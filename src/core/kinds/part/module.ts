import { significant } from '../../units/significant';
import type { Energy } from '../../circuit/energies';
import type { Branch, CompiledPart } from '../../circuit/compile';
import type { Device } from '../../circuit/deviceTypes';
import type { LabelFigure, Part, PartOf } from '../../circuit/partSchema';
import type { Circuit } from '../../circuit/schema';
import type { Situation } from '../../circuit/situation';
import type { FaultName, FaultVariant, SeverityRange } from '../../diagnosis/faultTypes';
import type { Given } from '../../draw/chainItem';
import type { BranchSpec } from './branch';

export type PartKind = Part['kind'];

/** How a kind is said and drawn in a typed chain. */
export interface ChainWords {
  /** Letter that its references begin with, in the manner of IEC 81346. */
  letter: string;
  /** Field that a bare number fills. */
  figure: string | null;
  /** Words for it, the longest first where one holds another; the first is offered while one types. */
  words: readonly string[];
}

/** What a kind is to the rest of the program. */
export interface PartTraits {
  /** Belongs to the air, oil or vacuum side. A pressure switch is on both. */
  fluid: boolean;
  /** Something flows out of it by itself. */
  supply: boolean;
  /** Holds pressure when its supply is off, until it is let down by itself. */
  stores: boolean;
  /** Does the work electrically. */
  load: boolean;
  /** Draws current by itself where it is fed: a load, or a relay's coil. */
  draws: boolean;
  /** A run from the supply ends in it: the volts fall across it. */
  falls: boolean;
  /** Draws what its resistance says: neither a cold filament nor a rotor. */
  ohmic: boolean;
  /** A run of air, oil or vacuum ends in it. */
  ends: boolean;
  /** Moves something by pressure. */
  actuator: boolean;
  /** A person can see, hear or feel whether it works. */
  works: boolean;
  /** Must not see a test voltage. */
  electronic: boolean;
  /** Has a contact that may protect a person, a limit or a load. */
  contact: boolean;
  /** Leads current from end to end without using it up. */
  carries: boolean;
  /** One unit with more than two ends: a reading between any two of them is across it. */
  unit: boolean;
}

/** A part on the way to its faults: its pieces, the ranges that make sense of them on this circuit, and where faults go. */
export interface FaultContext<F extends FaultName> {
  part: CompiledPart;
  /** First piece on the kind's own side. */
  body: Branch;
  frame: number;
  /** Adds a fault; one without a variant is none. */
  add: (
    fault: F,
    severity: SeverityRange | null,
    variants: readonly FaultVariant[],
    more?: { factor?: number },
  ) => void;
  /** A resistance in series that matters to what this piece carries. */
  series: (branch: Branch) => SeverityRange;
  /** Shorted turns of a winding. */
  turns: (branch: Branch) => SeverityRange;
  leakRange: (branch: Branch) => SeverityRange;
  leaks: (branch: Branch) => FaultVariant[];
  weakRange: (branch: Branch) => SeverityRange;
  weakSpots: (branch: Branch) => FaultVariant[];
  /** A valve's spool is shifted by this part. */
  movesSpool: boolean;
  /** How much less likely a leak is the cause where both ends are bonded to the frame: it changes nothing there. */
  bondedFactor: (branch: Branch) => number;
}

/** What stands around a part that is being made from typed words. */
export interface MakeContext {
  ref: string;
  near: string;
  far: string;
  given: Given;
  controls: Circuit['controls'];
  frame: string;
  /** Supply of the run: nominal volts of its source, and its hot node. */
  volts: number;
  plus: string;
  /** Reference, label and what else every part has. */
  common: { ref: string; label?: string; accessMinutes?: number };
  two: { '1': string; '2': string };
  /** Ohms that were said, or that the watts make. */
  saidOhms: number | undefined;
  /** The same, or the usual ones. */
  ohms: (usual: number) => number;
  /** The control that works it, added to the circuit where it is new. */
  worked: (fallback: string) => { controls: Circuit['controls']; closedWhen: Record<string, string[]> };
}

/** A figure of a label: the words of a run that say it; or the figure that a usual share of it is taken of while nobody says it. */
export type FigureSaid = { saidBy: readonly string[] } | { follows: LabelFigure; inversely?: true };

/** Everything that is known about one kind of part. What it is called and how it is drawn stand with words and symbols. */
export interface PartModule<K extends PartKind> {
  chain: ChainWords;
  traits: PartTraits;
  /** To get at one with a probe where the circuit file does not say: a rule of thumb. */
  accessMinutes: number;
  /** How often each of its faults is the cause, relative to an open coil: rules of thumb, adjustable per part by `wear`. */
  odds: Readonly<Partial<Record<FaultName, number>>>;
  /** Its two-terminal pieces. Throws `InputError` where its nodes do not make one. */
  branches: (part: PartOf<K>, field: string) => BranchSpec[];
  /** Which of its ends are on the fluid side, by key; all of a fluid kind where it does not say. */
  fluidEnd?: (key: string) => boolean;
  /** Pieces whose conduction depends on the solution; none for most. */
  devices?: (part: PartOf<K>, compiled: CompiledPart, situation: Situation) => Device[];
  faults: (context: FaultContext<FaultName>, part: PartOf<K>) => void;
  /** Energy that it brings to the work, or null. */
  energy: (part: PartOf<K>) => Energy | null;
  /** Its figures that only its label tells: what says each in a run, or what it goes with where none does. */
  labelled: Readonly<Partial<Record<LabelFigure, FigureSaid>>>;
  /** A part of this kind with what was said of it and usual figures for the rest. */
  make: (context: MakeContext) => { part: PartOf<K>; controls?: Circuit['controls'] };
}

const NONE: PartTraits = {
  fluid: false,
  supply: false,
  stores: false,
  load: false,
  draws: false,
  falls: false,
  ohmic: false,
  ends: false,
  actuator: false,
  works: false,
  electronic: false,
  contact: false,
  carries: false,
  unit: false,
};
/** The traits that a kind has; all others it has not. */
export function traits(own: Partial<PartTraits>): PartTraits {
  return { ...NONE, ...own };
}

/** A module whose faults are the ones it gives odds for. */
type OwnFaults<K extends PartKind, F extends FaultName> = Omit<PartModule<K>, 'odds' | 'faults'> & {
  odds: Readonly<Record<F, number>>;
  faults: (context: FaultContext<F>, part: PartOf<K>) => void;
};

/** Holds a module to its kind; the faults it adds are the ones it gives odds for, and the compiler says where they are not. */
export function definePart<K extends PartKind>() {
  return <F extends FaultName>(module: OwnFaults<K, F>): OwnFaults<K, F> => module;
}

export const nothing = () => null;
export const round = (value: number) => significant(value, 3);
