import type { PlacedWire } from './schematic';

/** Number and value of a node, and where on its wires they stand, px. */
export interface PointMark {
  node: number;
  number: number | null;
  text: string;
  x: number;
  y: number;
}

/** Where along a stretch a mark may sit, tried in this order. */
const PLACES = [0.5, 0.35, 0.65, 0.2, 0.8];
const CLEAR = 15;

/** One mark a node, on the longest level stretch of its wires that no other wire crosses there. */
export function pointMarks(
  wires: readonly PlacedWire[],
  points?: ReadonlyMap<number, number>,
  nodeText?: ReadonlyMap<number, string>,
): PointMark[] {
  const stretches = wires.flatMap(({ node, points: corners }) =>
    corners.slice(1).map((to, at) => ({ node, from: corners[at]!, to })),
  );
  const level = new Map<number, typeof stretches>();
  for (const one of stretches) {
    if (Math.abs(one.from.y - one.to.y) > 0.5 || Math.abs(one.from.x - one.to.x) < 22) continue;
    level.set(one.node, [...(level.get(one.node) ?? []), one]);
  }
  const clear = (node: number, x: number, y: number) =>
    stretches.every(
      ({ node: other, from, to }) =>
        other === node ||
        x < Math.min(from.x, to.x) - CLEAR ||
        x > Math.max(from.x, to.x) + CLEAR ||
        y < Math.min(from.y, to.y) - CLEAR ||
        y > Math.max(from.y, to.y) + CLEAR,
    );
  return [...level].flatMap(([node, own]) => {
    const number = points?.get(node);
    const text = nodeText?.get(node) ?? '';
    if (number === undefined && !text) return [];
    const longest = own.toSorted((a, b) => Math.abs(b.to.x - b.from.x) - Math.abs(a.to.x - a.from.x));
    const places = longest.flatMap(({ from, to }) =>
      PLACES.map((share) => ({ x: from.x + share * (to.x - from.x), y: from.y })),
    );
    const place = places.find(({ x, y }) => clear(node, x, y)) ?? places[0]!;
    return [{ node, number: number ?? null, ...place, text }];
  });
}
