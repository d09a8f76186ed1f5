import type { CompiledCircuit } from '../circuit/compile';
import type { CircuitModel } from '../circuit/model';
import { findLanes } from '../path/lanes';
import { FLUID_ENDS, SINKS, partBlock, plugBlock, relayBlocks } from './partBlocks';
import type { SchematicBlock, SchematicGraph, SchematicPort, SchematicWire } from './schematic';

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
    if (SINKS.includes(part.kind)) nodes.slice(0, part.kind === 'relay' ? 2 : undefined).forEach(begin);
    if (FLUID_ENDS.includes(part.kind)) nodes.filter((node) => domains[node] === 'fluid').forEach(begin);
  }
  // A way ends at the supply and at the frame: everything hangs together through those.
  const links = parts.filter(
    ({ part }) => part.kind !== 'source' && (!SINKS.includes(part.kind) || part.kind === 'relay'),
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
