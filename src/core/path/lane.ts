import type { Setup } from '../circuit/schema';

/** One part on a lane, walked from supply to return. */
export interface Step {
  part: number;
  branch: number;
  from: number;
  to: number;
}

/** The run of one load: from a supply, through what feeds it, down the load, and home. */
export interface Lane {
  /** Reference of the load, or of the valve that the lane is there for. */
  id: string;
  /** The same as its position among the parts. */
  of: number;
  load: Step;
  feed: Step[];
  back: Step[];
  /** Set-up in which this load is energised; the machine at rest when none does. */
  setup: Setup;
  /** Every position in which it is driven like this, where that is known; `setup` is one of them. */
  drivenIn?: readonly Setup[];
  /** The same actuator driven the other way, through other ports of its valve. */
  otherWay?: Lane;
  /** Parts lying across the load, such as a suppression diode. */
  across: number[];
  /** Parts that hang on one of its points and lead nowhere else: a relief valve, an accumulator. */
  hangs: { part: number; node: number }[];
  medium: 'electrical' | 'fluid';
  /** Coils, by reference, that this lane's valves wait on. */
  coils: string[];
}

export interface Lanes {
  lanes: Lane[];
  /** The positions of the machine's controls, as the circuit names them. */
  controls: Readonly<Record<string, readonly string[]>>;
  /** Test point number of each node, from supply to return along the first lane, then the next. Never changes. */
  pointOf: ReadonlyMap<number, number>;
  nodeOf: ReadonlyMap<number, number>;
  /** What stands in a node's circle: its number, or a letter for a port of the fluid side. */
  labelOf: ReadonlyMap<number, string>;
  /** Parts on no lane and across none. */
  loose: number[];
}

/** A lane with the other way its actuator is driven, where there is one. */
export function waysOf(lane: Lane): Lane[] {
  return lane.otherWay ? [lane, lane.otherWay] : [lane];
}

/** Under this a branch carries nothing, in amperes. */
export const LEAST_AMPS = 1e-4;
