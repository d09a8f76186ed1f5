import type { PathLayout } from '@/core/path/layoutPath';

/** Nodes under the red and the black lead. */
export interface LeadNodes {
  plus: number;
  minus: number;
}

/** Where the leads are once one of them, the nearer or the given one, is put on a node; null where both would meet. */
export function movedLeads(
  layout: PathLayout,
  leads: LeadNodes,
  node: number,
  which?: keyof LeadNodes,
): LeadNodes | null {
  const xOf = (at: number) => layout.points.find((box) => box.node === at)?.x ?? 0;
  const nearer =
    which ??
    (Math.abs(xOf(node) - xOf(leads.plus)) <= Math.abs(xOf(node) - xOf(leads.minus)) ? 'plus' : 'minus');
  const moved = { ...leads, [nearer]: node };
  return moved.plus === moved.minus ? null : moved;
}

/** The next point along the path for a lead; from a point that is not on it, the first. */
export function nextPoint({ points }: PathLayout, from: number, direction: number): number {
  const nodes = points.map(({ node }) => node);
  const at = Math.max(nodes.indexOf(from), 0);
  return nodes[Math.min(Math.max(at + direction, 0), nodes.length - 1)]!;
}
