import type { CompiledCircuit } from '../circuit/compile';

/** Whether an end of a part is on its node, by the part's reference. */
export type Stands = (ref: string, node: number) => boolean;

/** Every place of the fluid side that what stands at a node reaches, whatever valves stand at, past ends that are on. */
export function fluidReach(
  { branches, parts, atmosphere }: CompiledCircuit,
  start: number,
  stands: Stands = () => true,
): ReadonlySet<number> {
  const reached = new Set([start]);
  for (const node of reached) {
    for (const { domain, a, b, part } of branches) {
      if (domain !== 'fluid' || a === atmosphere || b === atmosphere) continue;
      if (a !== node && b !== node) continue;
      const { ref } = parts[part]!.part;
      if (stands(ref, a) && stands(ref, b)) reached.add(a === node ? b : a);
    }
  }
  return reached;
}
