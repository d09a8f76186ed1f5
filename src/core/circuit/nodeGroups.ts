/**
 * Which nodes hang together, by node: equal numbers for nodes that any of the given joints ties to each other. A node that is `apart`
 * (the frame, the atmosphere) belongs to itself only: what meets there alone stays two.
 */
export function nodeGroups(
  count: number,
  apart: (node: number) => boolean,
  joints: readonly (readonly number[])[],
): Int32Array {
  const group = Int32Array.from({ length: count }, (_one, at) => at);
  const find = (at: number): number => (group[at] === at ? at : (group[at] = find(group[at]!)));
  for (const joint of joints) {
    const nodes = joint.filter((node) => !apart(node));
    for (const node of nodes) group[find(nodes[0]!)] = find(node);
  }
  return group.map((_one, at) => find(at));
}
