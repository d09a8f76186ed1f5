import type { CompiledCircuit } from '../circuit/compile';
import type { Step } from './lane';

type Branch = CompiledCircuit['branches'][number];

/**
 * Fewest parts from a node to the nearest goal through branches that are `usable`, never over a node to avoid; null when
 * there is no way. Breadth first.
 */
export function shortestWay(
  { branches }: Pick<CompiledCircuit, 'branches'>,
  start: number,
  goals: ReadonlySet<number>,
  avoid: ReadonlySet<number>,
  usable: (branch: Branch) => boolean,
): Step[] | null {
  const via = new Map<number, Step | null>([[start, null]]);
  const queue = [start];
  for (const node of queue) {
    if (goals.has(node)) {
      const steps: Step[] = [];
      for (let step = via.get(node); step; step = via.get(step.from)) steps.push(step);
      return steps.reverse();
    }
    for (const branch of branches) {
      const to = branch.a === node ? branch.b : branch.b === node ? branch.a : -1;
      if (to < 0 || via.has(to) || (avoid.has(to) && !goals.has(to)) || !usable(branch)) continue;
      via.set(to, { part: branch.part, branch: branch.index, from: node, to });
      queue.push(to);
    }
  }
  return null;
}
