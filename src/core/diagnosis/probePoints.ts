import type { Near } from './near';
import type { CircuitModel } from '../circuit/model';
import { branchAmps } from '../circuit/world';
import type { Pattern } from './patterns';

/** Current from which something flows at all, amperes. */
export const FLOWS_AMPS = 1e-4;

/** Below this many readings of one sort, points times positions, none is left out. */
const FEW_READINGS = 260;

/** Whether a node has something to do with what a control position feeds; any has in a small circuit or at rest. */
export function meantBy(model: CircuitModel, { setup, loads }: Pattern): (name: string) => boolean {
  const { compiled } = model;
  if (loads.length === 0 || compiled.nodeNames.length * model.combinations.length <= FEW_READINGS) {
    return () => true;
  }
  const world = model.situation(setup).solve({ mode: 'live' });
  const carrying = new Set<number>();
  for (const { index, a, b } of compiled.branches) {
    if (Math.abs(branchAmps(world, index)) > FLOWS_AMPS) carrying.add(a).add(b);
  }
  return (name) => carrying.has(compiled.nodeIndex.get(name)!);
}

/** Names of electrical nodes that a probe can be put to, the frame left out. */
export function measurable({ compiled }: CircuitModel, near: Near): string[] {
  return compiled.nodeNames.filter(
    (name, at) =>
      at !== compiled.frame &&
      compiled.domains[at] === 'electrical' &&
      !name.endsWith(':wiper') &&
      near.node(at),
  );
}

/** Pairs of node names at the two ends of every part, contact and winding. */
export function acrossPairs(model: CircuitModel, near: Near): (readonly [string, string])[] {
  const { parts, nodeNames } = model.compiled;
  return parts.flatMap(({ part, branches, index }) => {
    if (!near.part(index)) return [];
    if (part.kind === 'transformer') {
      const { p1, p2, s1, s2 } = part.nodes;
      return [[p1, p2] as const, [s1, s2] as const];
    }
    if (part.kind === 'sensor3') {
      const { supply, signal, return: back } = part.nodes;
      return [[supply, back] as const, [signal, back] as const];
    }
    return branches
      .filter(({ domain }) => domain === 'electrical')
      .map(({ a, b }) => [nodeNames[a]!, nodeNames[b]!] as const);
  });
}

/** Nodes of the given connectors that face the supply. */
export function harnessSide(model: CircuitModel, connectors: readonly string[]): string[] {
  const { parts, nodeNames, frame } = model.compiled;
  const nodes = parts
    .filter(({ part }) => part.kind === 'pin' && connectors.includes(part.connector))
    .flatMap(({ nodes: own }) => own)
    .filter((node) => node !== frame);
  return [...new Set(nodes)].map((node) => nodeNames[node]!);
}

/** Of pairs that something lies between, those that a command means at both ends; the frame is always meant. */
export function pairsMeant(
  across: readonly (readonly [string, string])[],
  meant: (name: string) => boolean,
  frame: string,
): (readonly [string, string])[] {
  const counts = (name: string) => name === frame || meant(name);
  return across.filter(([from, to]) => counts(from) && counts(to));
}
