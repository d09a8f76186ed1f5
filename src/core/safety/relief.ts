import { oncePerModel, type CircuitModel } from '../circuit/model';
import type { Setup } from '../circuit/schema';
import { fluidReach } from './fluidReach';

const PRESSING = ['pump', 'airSupply', 'accumulator'] as const;

/** Sources of pressure that a relief valve guards, each with those that it reaches, whatever valves stand at. */
const guardedOf = oncePerModel((model) =>
  sourcesOf(model)
    .map((source) => ({ ...source, reliefs: reliefsFrom(model, source.node, new Set()) }))
    .filter(({ reliefs }) => reliefs.size > 0),
);

/**
 * Relief valves that a set-up takes from what they guard: with an end off, their own or one on the way to them, nothing holds the pressure
 * of a pump that still runs. Stopping that end makes it worse. References, by order of the circuit.
 */
export function reliefsCutOff(model: CircuitModel, setup: Setup): string[] {
  if (!setup.lifted?.length) return [];
  const off = new Set(setup.lifted.map(({ part, node }) => endKey(part, node)));
  const cut = new Set<string>();
  for (const { ref, node, reliefs } of guardedOf(model)) {
    if (setup.isolated?.includes(ref)) continue;
    const left = off.has(endKey(ref, model.compiled.nodeNames[node]!))
      ? new Set<string>()
      : reliefsFrom(model, node, off);
    for (const relief of reliefs) if (!left.has(relief)) cut.add(relief);
  }
  return model.compiled.parts.flatMap(({ part }) => (cut.has(part.ref) ? [part.ref] : []));
}

function sourcesOf({ compiled }: CircuitModel): { ref: string; node: number }[] {
  return compiled.parts.flatMap(({ part, branches }) => {
    if (!(PRESSING as readonly string[]).includes(part.kind)) return [];
    const own = branches.find(({ domain }) => domain === 'fluid');
    if (!own) return [];
    return [{ ref: part.ref, node: own.a === compiled.atmosphere ? own.b : own.a }];
  });
}

/** Relief valves that what stands at a node can reach, past ends that are not off. */
function reliefsFrom({ compiled }: CircuitModel, start: number, off: ReadonlySet<string>): Set<string> {
  const stands = (ref: string, node: number) => !off.has(endKey(ref, compiled.nodeNames[node]!));
  const reached = fluidReach(compiled, start, stands);
  return new Set(
    compiled.parts.flatMap(({ part }) => {
      if (part.kind !== 'relief') return [];
      const at = compiled.nodeIndex.get(part.nodes.in)!;
      return reached.has(at) && stands(part.ref, at) ? [part.ref] : [];
    }),
  );
}

function endKey(part: string, node: string): string {
  return `${part}@${node}`;
}
