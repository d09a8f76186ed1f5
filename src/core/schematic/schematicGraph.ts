import type { CompiledCircuit } from '../circuit/compile';
import type { CircuitModel } from '../circuit/model';
import { isFluidKind } from '../circuit/fluidKinds';
import type { Part } from '../circuit/schema';
import { findLanes } from '../path/lanes';

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

const LOADS: readonly Part['kind'][] = ['coil', 'lamp', 'heater', 'motor', 'resistor', 'relay', 'sensor3'];
const FLUID_ENDS: readonly Part['kind'][] = [
  'cylinder',
  'vacuumActuator',
  'pressureSwitch',
  'silencer',
  'plug',
];
/** Sizes, px. A block holds its own words, so that whatever keeps blocks apart keeps words apart. */
export const BLOCK = { least: 74, most: 178, run: 72, axis: 22, sink: 118, pin: 42, box: 44, character: 7.1 };
const EARTH = { width: 24, height: 26 };
const JUNCTION = 6;

/**
 * A circuit as blocks with ports, and wires between them, ready to be placed by a layered layout: supplies at the left,
 * loads at the right, each load's feed above its return. The frame is drawn where it is used, not as one long wire.
 */
export function schematicGraph(model: CircuitModel): SchematicGraph {
  const { compiled } = model;
  const lanes = findLanes(model);
  const fedFrom = new Map(lanes.lanes.map(({ load }) => [load.part, load.from]));
  const depth = depths(compiled);
  const blocks: SchematicBlock[] = [];
  const pins = new Map<string, number[]>();
  for (const { part, index, nodes } of compiled.parts) {
    if (part.kind === 'pin') {
      const known = pins.get(part.connector);
      if (known) {
        known.push(index);
        continue;
      }
      const all = compiled.parts.filter(
        ({ part: one }) => one.kind === 'pin' && one.connector === part.connector,
      );
      pins.set(
        part.connector,
        all.map((one) => one.index),
      );
      blocks.push(plugBlock(compiled, part.connector, all, depth));
      continue;
    }
    if (part.kind === 'relay') {
      blocks.push(...relayBlocks(compiled, index, depth, fedFrom.get(index)));
      continue;
    }
    blocks.push(partBlock(compiled, part, index, nodes, depth, fedFrom.get(index)));
  }
  return withWires(compiled, blocks);
}

/** Parts between a node and the nearest load: what is wired toward a load stands left of it. */
function depths({ parts, nodeNames, domains, frame }: CompiledCircuit): Int32Array {
  const depth = new Int32Array(nodeNames.length).fill(-1);
  const queue: number[] = [];
  const begin = (node: number) => {
    if (depth[node] !== -1) return;
    depth[node] = 0;
    queue.push(node);
  };
  for (const { part, nodes } of parts) {
    if (LOADS.includes(part.kind)) nodes.slice(0, part.kind === 'relay' ? 2 : undefined).forEach(begin);
    if (FLUID_ENDS.includes(part.kind)) nodes.filter((node) => domains[node] === 'fluid').forEach(begin);
  }
  // A way ends at the supply and at the frame: everything hangs together through those.
  const links = parts.filter(
    ({ part }) => part.kind !== 'source' && (!LOADS.includes(part.kind) || part.kind === 'relay'),
  );
  for (let at = 0; at < queue.length; at++) {
    const node = queue[at]!;
    if (node === frame) continue;
    for (const { part, nodes } of links) {
      const own = part.kind === 'relay' ? nodes.slice(2) : nodes;
      if (!own.includes(node)) continue;
      for (const other of own) {
        if (depth[other] !== -1) continue;
        depth[other] = depth[node]! + 1;
        queue.push(other);
      }
    }
  }
  return depth.map((one) => (one === -1 ? 0 : one));
}

const wordsWidth = (...lines: readonly string[]) =>
  Math.min(BLOCK.most, Math.max(BLOCK.least, ...lines.map((line) => line.length * BLOCK.character + 12)));

function wordsOf(part: Part): string {
  if (part.kind === 'valve') return `${part.ways} by ${[part.coil, part.coil2].filter(Boolean).join(', ')}`;
  return part.label ?? part.place ?? '';
}

function partBlock(
  compiled: CompiledCircuit,
  part: Part,
  index: number,
  nodes: readonly number[],
  depth: Int32Array,
  fedFrom: number | undefined,
): SchematicBlock {
  const id = part.ref;
  const words = wordsOf(part);
  const base = { id, kind: part.kind, parts: [index], title: part.ref, words };
  const width = wordsWidth(part.ref, words);
  const named = Object.entries(part.nodes as Record<string, string | undefined>)
    .filter((entry): entry is [string, string] => entry[1] !== undefined)
    .map(([key, name]) => ({ key, node: compiled.nodeIndex.get(name)! }));
  const port = (
    key: string,
    node: number,
    side: SchematicPort['side'],
    x: number,
    y: number,
    mark?: string,
  ) => ({
    id: `${id}|${key}`,
    node,
    side,
    x,
    y,
    ...(mark === undefined ? {} : { mark }),
  });
  switch (part.kind) {
    case 'source': {
      const [plus, minus] = named;
      const grounded = minus!.node === compiled.frame;
      return {
        ...base,
        shape: 'source',
        ...((part.hz ?? 0) > 0 ? { mark: '~' } : {}),
        width: width + 44,
        height: 100,
        ports: [
          port('+', plus!.node, 'east', width + 44, 22),
          grounded
            ? port('-', minus!.node, 'south', width + 14, 100)
            : port('-', minus!.node, 'east', width + 44, 74),
        ],
      };
    }
    case 'transformer':
    case 'driver':
    case 'valve': {
      const east =
        part.kind === 'transformer' ? ['s1', 's2'] : part.kind === 'driver' ? ['out'] : ['4', '2', '5', '3'];
      const inputs = named.filter(({ key }) => !east.includes(key));
      const outputs = named
        .filter(({ key }) => east.includes(key))
        .sort((a, b) => east.indexOf(a.key) - east.indexOf(b.key));
      const rows = Math.max(inputs.length, outputs.length);
      const room = width + 26;
      return {
        ...base,
        shape: 'box',
        width: room,
        height: BLOCK.box + 30 * rows,
        ports: [
          ...inputs.map(({ key, node }, at) =>
            port(key, node, 'west', 0, BLOCK.box + 14 + 30 * at, markOf(part, key)),
          ),
          ...outputs.map(({ key, node }, at) =>
            port(key, node, 'east', room, BLOCK.box + 14 + 30 * at, markOf(part, key)),
          ),
        ],
      };
    }
    case 'sensor3':
      return {
        ...base,
        shape: 'sink',
        width,
        height: BLOCK.sink + 20,
        ports: named.map(({ key, node }, at) => port(key, node, 'west', 0, 24 + 44 * at)),
      };
    case 'airSupply':
    case 'pump':
      return {
        ...base,
        shape: 'run',
        width,
        height: BLOCK.run,
        ports: [port('out', named[0]!.node, 'east', width, BLOCK.axis)],
      };
    case 'silencer':
    case 'plug':
    case 'vacuumActuator':
      return {
        ...base,
        shape: 'run',
        width,
        height: BLOCK.run,
        ports: [port(named[0]!.key, named[0]!.node, 'west', 0, BLOCK.axis)],
      };
    default: {
      const sink =
        LOADS.includes(part.kind) ||
        part.kind === 'cylinder' ||
        (part.kind === 'diode' && named.every(({ node }) => depth[node] === 0));
      const [one, two] = named as [{ key: string; node: number }, { key: string; node: number } | undefined];
      if (sink) {
        const ends = two ? (fedFrom === two.node ? [two, one] : [one, two]) : [one];
        // A diode is drawn with its cathode up, beside the load it lies across.
        const order = part.kind === 'diode' ? ends.toReversed() : ends;
        return {
          ...base,
          shape: 'sink',
          width: width + 40,
          height: BLOCK.sink,
          ports: order.map(({ key, node }, at) =>
            port(key, node, 'west', 0, at === 0 ? 16 : BLOCK.sink - 16),
          ),
        };
      }
      const [near, far] = two && depth[one.node]! < depth[two.node]! ? [two, one] : [one, two];
      const fluidPort = part.kind === 'pressureSwitch' ? named.find(({ key }) => key === 'port') : undefined;
      return {
        ...base,
        shape: 'run',
        width,
        height: fluidPort ? BLOCK.run + 26 : BLOCK.run,
        ports: [
          port(near!.key, near!.node, 'west', 0, BLOCK.axis),
          ...(far ? [port(far.key, far.node, 'east', width, BLOCK.axis)] : []),
          ...(fluidPort ? [port('port', fluidPort.node, 'west', 0, BLOCK.run + 14)] : []),
        ],
      };
    }
  }
}

function markOf(part: Part, key: string): string | undefined {
  if (part.kind === 'valve') return key;
  if (part.kind !== 'driver') return undefined;
  return key === 'out' ? 'out' : key === 'supply' ? '+' : '−';
}

/** A plug as one body: a row for each of its pins, its name once. */
function plugBlock(
  compiled: CompiledCircuit,
  connector: string,
  all: readonly CompiledCircuit['parts'][number][],
  depth: Int32Array,
): SchematicBlock {
  const width =
    wordsWidth(connector, ...all.map(({ part }) => `${pinNumber(part)}${wordsOf(part) ? '  ' : ''}`)) + 8;
  return {
    id: connector,
    shape: 'plug',
    kind: 'pin',
    parts: all.map(({ index }) => index),
    title: connector,
    words: '',
    width,
    height: 28 + BLOCK.pin * all.length,
    ports: all.flatMap(({ part, nodes }, row) => {
      const [one, two] = nodes as [number, number];
      const [near, far] = depth[one]! < depth[two]! ? [two, one] : [one, two];
      const y = 28 + BLOCK.pin * (row + 0.5);
      const port = (node: number, side: 'west' | 'east', x: number) => ({
        id: `${part.ref}|${side}`,
        node,
        side,
        x,
        y,
        mark: pinNumber(part),
      });
      return [port(near, 'west', 0), port(far, 'east', width)];
    }),
  };
}

function pinNumber(part: Part): string {
  return part.ref.includes('.') ? part.ref.slice(part.ref.indexOf('.') + 1) : part.ref;
}

/** A relay drawn apart, as wiring diagrams do: its coil as a load, each contact set where it works, all under one reference. */
function relayBlocks(
  compiled: CompiledCircuit,
  index: number,
  depth: Int32Array,
  fedFrom: number | undefined,
): SchematicBlock[] {
  const { part, branches } = compiled.parts[index]!;
  const words = wordsOf(part);
  const base = { kind: 'relay' as const, parts: [index], words };
  const body = branches[0]!;
  const [high, low] = fedFrom === body.b ? [body.b, body.a] : [body.a, body.b];
  const width = wordsWidth(part.ref, words) + 40;
  const blocks: SchematicBlock[] = [
    {
      ...base,
      id: part.ref,
      title: part.ref,
      shape: 'sink',
      width,
      height: BLOCK.sink,
      ports: [
        { id: `${part.ref}|high`, node: high, side: 'west', x: 0, y: 16 },
        { id: `${part.ref}|low`, node: low, side: 'west', x: 0, y: BLOCK.sink - 16 },
      ],
    },
  ];
  const sets = new Map<number, { com: number; made?: number; resting?: number }>();
  for (const { role, set, a, b } of branches) {
    if (role !== 'made' && role !== 'resting') continue;
    sets.set(set, { ...sets.get(set), com: a, [role]: b });
  }
  for (const [set, { com, made, resting }] of sets) {
    const outs = [made, resting].filter((node) => node !== undefined);
    const id = `${part.ref}/${set + 1}`;
    const room = wordsWidth(part.ref, words);
    const toLoad = outs.every((node) => depth[node]! <= depth[com]!);
    const [comSide, outSide] = toLoad ? (['west', 'east'] as const) : (['east', 'west'] as const);
    const xOf = (side: 'west' | 'east') => (side === 'west' ? 0 : room);
    blocks.push({
      ...base,
      id,
      title: part.ref,
      words: resting !== undefined && made === undefined ? `${words} NC`.trim() : words,
      shape: 'run',
      width: room,
      height: outs.length > 1 ? BLOCK.run + 30 : BLOCK.run,
      ports: [
        { id: `${id}|com`, node: com, side: comSide, x: xOf(comSide), y: BLOCK.axis },
        ...outs.map((node, at) => ({
          id: `${id}|${node === made ? 'no' : 'nc'}`,
          node,
          side: outSide,
          x: xOf(outSide),
          y: BLOCK.axis + 30 * at,
          ...(outs.length > 1 ? { mark: node === made ? 'NO' : 'NC' } : {}),
        })),
      ],
    });
  }
  return blocks;
}

/** Adds earths and junctions, and joins the ports of each node. */
function withWires(compiled: CompiledCircuit, blocks: SchematicBlock[]): SchematicGraph {
  const { frame, nodeNames, domains } = compiled;
  const wires: SchematicWire[] = [];
  const all = [...blocks];
  const portsOf = new Map<number, SchematicPort[]>();
  for (const { ports } of blocks)
    for (const port of ports) portsOf.set(port.node, [...(portsOf.get(port.node) ?? []), port]);
  const wire = (node: number, from: string, to: string) =>
    wires.push({ id: `w${wires.length}`, node, from, to, fluid: domains[node] === 'fluid' });
  for (const [node, ports] of portsOf) {
    if (node === frame) {
      for (const port of ports) {
        if (port.side === 'south') continue;
        const id = `earth ${port.id}`;
        const side = port.side === 'west' ? 'east' : 'west';
        const own = { id: `${id}|e`, node, side, x: side === 'east' ? EARTH.width : 0, y: 6 } as const;
        all.push({ id, shape: 'earth', kind: null, parts: [], title: '', words: '', ...EARTH, ports: [own] });
        if (side === 'east') wire(node, own.id, port.id);
        else wire(node, port.id, own.id);
      }
      continue;
    }
    const outs = ports.filter(({ side }) => side === 'east');
    const ins = ports.filter(({ side }) => side !== 'east');
    if (ports.length === 2) {
      const [a, b] = outs.length === 1 ? [outs[0]!, ins[0]!] : [ports[0]!, ports[1]!];
      wire(node, a.id, b.id);
    } else if (ports.length > 2) {
      const id = `joint ${nodeNames[node]}`;
      all.push({
        id,
        shape: 'junction',
        kind: null,
        parts: [],
        title: '',
        words: '',
        width: JUNCTION,
        height: JUNCTION,
        ports: [
          { id: `${id}|w`, node, side: 'west', x: 0, y: JUNCTION / 2 },
          { id: `${id}|e`, node, side: 'east', x: JUNCTION, y: JUNCTION / 2 },
        ],
      });
      for (const port of outs) wire(node, port.id, `${id}|w`);
      for (const port of ins) wire(node, `${id}|e`, port.id);
    }
  }
  return { blocks: all, wires };
}

/** Whether a block stands on the air, oil or vacuum side. */
export function isFluidBlock({ kind }: SchematicBlock): boolean {
  return kind !== null && isFluidKind(kind);
}
