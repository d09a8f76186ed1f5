import type { Edge } from './network';

/**
 * Inverse of the conductance matrix of a resistive network by star-mesh elimination, n·n, ohms; rows and columns of reference nodes are
 * zero. Nodes go in the order of least neighbours (minimum degree), which keeps wiring as sparse as it is: the work grows with the square
 * of the nodes, not with their cube. Only sums and products of positive numbers: no digit is lost between milliohms and gigaohms.
 *
 * @param island reference node of each node's island; a reference is its own
 */
export function invertResistive(n: number, island: Int32Array, edges: readonly Edge[]): Float64Array {
  const mesh = new Mesh(n);
  for (const { a, b, siemens } of edges) {
    if (!(siemens > 0) || a === b) continue;
    const [freeA, freeB] = [island[a] !== a, island[b] !== b];
    if (freeA && freeB) mesh.join(a, b, siemens);
    else if (freeA) mesh.tie(a, siemens);
    else if (freeB) mesh.tie(b, siemens);
  }
  const order: Star[] = [];
  const left: number[] = [];
  for (let node = 0; node < n; node++) if (island[node] !== node) left.push(node);
  while (left.length > 0) {
    const at = mesh.leastJoined(left);
    const node = left[at]!;
    left[at] = left[left.length - 1]!;
    left.pop();
    order.push(mesh.eliminate(node));
  }
  return backwards(n, order);
}

/** A node as it was taken out: what it hung on, each with its share of all, and the sum. */
interface Star {
  node: number;
  siemens: number;
  neighbours: readonly number[];
  shares: Float64Array;
}

/** Conductances between free nodes, and of each to the reference of its island. */
class Mesh {
  private readonly between: Float64Array;
  private readonly toReference: Float64Array;
  private readonly neighbours: number[][];

  constructor(private readonly n: number) {
    this.between = new Float64Array(n * n);
    this.toReference = new Float64Array(n);
    this.neighbours = Array.from({ length: n }, () => []);
  }

  join(a: number, b: number, siemens: number): void {
    const { between, n } = this;
    if (between[a * n + b] === 0) {
      this.neighbours[a]!.push(b);
      this.neighbours[b]!.push(a);
    }
    between[a * n + b] = between[b * n + a] = between[a * n + b]! + siemens;
  }

  tie(node: number, siemens: number): void {
    this.toReference[node] = this.toReference[node]! + siemens;
  }

  /** Place in the list of the node with the fewest neighbours. */
  leastJoined(nodes: readonly number[]): number {
    let best = 0;
    let least = Infinity;
    for (let at = 0; at < nodes.length; at++) {
      const degree = this.neighbours[nodes[at]!]!.length;
      if (degree >= least) continue;
      [best, least] = [at, degree];
      if (degree <= 1) break;
    }
    return best;
  }

  /** Takes a node out: what it hung on is joined in its place. */
  eliminate(node: number): Star {
    const { between, n, toReference } = this;
    const neighbours = this.neighbours[node]!;
    const shares = new Float64Array(neighbours.length);
    let siemens = toReference[node]!;
    for (const one of neighbours) siemens += between[node * n + one]!;
    neighbours.forEach((one, at) => {
      const own = between[node * n + one]!;
      shares[at] = own / siemens;
      const list = this.neighbours[one]!;
      list[list.indexOf(node)] = list[list.length - 1]!;
      list.pop();
    });
    for (let x = 0; x < neighbours.length; x++) {
      const one = neighbours[x]!;
      this.tie(one, shares[x]! * toReference[node]!);
      for (let y = 0; y < x; y++) {
        const other = neighbours[y]!;
        this.join(one, other, shares[x]! * between[node * n + other]!);
      }
    }
    return { node, siemens, neighbours, shares };
  }
}

/**
 * The inverse from the nodes as they were taken out, the last first: a node stands at the mean of what it hung on. What hangs together only
 * over the reference knows nothing of each other: between such blocks the inverse is zero and is not gone over.
 */
function backwards(n: number, order: readonly Star[]): Float64Array {
  const z = new Float64Array(n * n);
  /** Nodes of its block that are done, by node. */
  const blocks: number[][] = [];
  for (let step = order.length - 1; step >= 0; step--) {
    const { node, siemens, neighbours, shares } = order[step]!;
    const row = node * n;
    const known = neighbours.length > 0 ? blocks[neighbours[0]!]! : [];
    for (let at = 0; at < neighbours.length; at++) {
      const [from, share] = [neighbours[at]! * n, shares[at]!];
      for (let k = 0; k < known.length; k++) {
        const other = known[k]!;
        z[row + other] = z[row + other]! + share * z[from + other]!;
      }
    }
    let own = 1 / siemens;
    for (let at = 0; at < neighbours.length; at++) own += shares[at]! * z[row + neighbours[at]!]!;
    for (let k = 0; k < known.length; k++) {
      const other = known[k]!;
      z[other * n + node] = z[row + other]!;
    }
    z[row + node] = own;
    known.push(node);
    blocks[node] = known;
  }
  return z;
}
