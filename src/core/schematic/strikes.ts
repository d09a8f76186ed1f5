import type { Schematic } from './schematic';

/** Half a pixel of a block's edge may be touched: that is where wires arrive. */
const EDGE = 0.5;

/** Wires that run through a block, as "w3 through Y1". A sound drawing has none. */
export function strikes({ blocks, wires }: Pick<Schematic, 'blocks' | 'wires'>): string[] {
  const found: string[] = [];
  for (const { id, points } of wires) {
    points.slice(1).forEach((to, at) => {
      const from = points[at]!;
      const [left, right] = [Math.min(from.x, to.x), Math.max(from.x, to.x)];
      const [top, bottom] = [Math.min(from.y, to.y), Math.max(from.y, to.y)];
      for (const block of blocks) {
        const inside =
          left < block.x + block.width - EDGE &&
          right > block.x + EDGE &&
          top < block.y + block.height - EDGE &&
          bottom > block.y + EDGE;
        if (inside) found.push(`${id} through ${block.id}`);
      }
    });
  }
  return found;
}
