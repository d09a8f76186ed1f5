import { isFluidKind } from '../circuit/fluidKinds';
import type { Part } from '../circuit/schema';

/** A port of a block, at its edge. `node` is the circuit's node it leads to. */
export interface SchematicPort {
  id: string;
  node: number;
  /** South is drawn by the block itself: a battery's own earth. */
  side: 'west' | 'east' | 'south';
  /** From the block's upper left corner, px. */
  x: number;
  y: number;
  /** What stands beside it: a pin's number, a valve's port. */
  mark?: string;
}

/** How a block is drawn. A `run` lies on a level wire, a `sink` hangs between two, a `plug` is one body over its pins. */
export type BlockShape = 'run' | 'sink' | 'plug' | 'box' | 'source' | 'earth' | 'junction';

export interface SchematicBlock {
  id: string;
  shape: BlockShape;
  kind: Part['kind'] | null;
  /** Parts it stands for, by index: one, or all pins of a plug. */
  parts: number[];
  title: string;
  words: string;
  /** What tells it from others of its kind: "~" on an alternating supply. */
  mark?: string;
  width: number;
  height: number;
  ports: SchematicPort[];
}

/** A wire of the drawing, from port to port. */
export interface SchematicWire {
  id: string;
  node: number;
  from: string;
  to: string;
  fluid: boolean;
}

export interface SchematicGraph {
  blocks: SchematicBlock[];
  wires: SchematicWire[];
}

/** A block at its place, upper left corner, px. */
export interface PlacedBlock extends SchematicBlock {
  x: number;
  y: number;
}

/** A wire as a run of corners. */
export interface PlacedWire extends SchematicWire {
  points: { x: number; y: number }[];
}

export interface Schematic {
  width: number;
  height: number;
  blocks: PlacedBlock[];
  wires: PlacedWire[];
}

/** Sizes, px. A block holds its own words, so that whatever keeps blocks apart keeps words apart. */
export const BLOCK = { least: 74, most: 178, run: 72, axis: 22, sink: 118, pin: 42, box: 44, character: 7.1 };

/** Whether a block stands on the air, oil or vacuum side. */
export function isFluidBlock({ kind }: SchematicBlock): boolean {
  return kind !== null && isFluidKind(kind);
}
