import type { CompiledCircuit } from '../circuit/compile';
import type { Part } from '../circuit/schema';
import { kindsThat, PART_KINDS } from '../kinds/part';
import { BLOCK, type SchematicBlock, type SchematicPort } from './schematic';

/** Electrical kinds that are drawn standing, between what feeds them and what takes their return. */
export const SINKS = kindsThat('falls').filter((kind) => !PART_KINDS[kind].traits.fluid);
/** Where a run of air, oil or vacuum ends, or is listened to. */
export const FLUID_ENDS: readonly Part['kind'][] = [...kindsThat('ends'), 'pressureSwitch'];
/** Ends of a box that stand on its right. */
const EAST: Readonly<Record<'transformer' | 'driver' | 'valve' | 'proportionalValve', readonly string[]>> = {
  transformer: ['s1', 's2'],
  driver: ['out'],
  valve: ['4', '2', '5', '3'],
  proportionalValve: ['out', '2'],
};
const wordsWidth = (...lines: readonly string[]) =>
  Math.min(BLOCK.most, Math.max(BLOCK.least, ...lines.map((line) => line.length * BLOCK.character + 12)));

function wordsOf(part: Part): string {
  if (part.kind === 'valve') return `${part.ways} by ${[part.coil, part.coil2].filter(Boolean).join(', ')}`;
  return part.label ?? part.place ?? '';
}

export function partBlock(
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
    case 'proportionalValve':
    case 'valve': {
      const east = EAST[part.kind];
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
    case 'accumulator':
    case 'relief':
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
        SINKS.includes(part.kind) ||
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
  if (part.kind === 'valve' || part.kind === 'proportionalValve') return key;
  if (part.kind !== 'driver') return undefined;
  return key === 'out' ? 'out' : key === 'supply' ? '+' : '−';
}

/** A plug as one body: a row for each of its pins, its name once. */
export function plugBlock(
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
export function relayBlocks(
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
