import type { Edge } from './network';

/**
 * The conductance matrix of a resistive network, taken apart by star-mesh elimination; columns of its inverse are worked out as they are
 * asked for. Nodes go in the order of least neighbours (minimum degree), which keeps wiring as sparse as it is: the work grows with the
 * nodes, not with their cube. Only sums and products of positive numbers: no digit is lost between milliohms and gigaohms.
 */
export class StarMesh {
  /** Nodes as they were taken out; what each hung on lies from `starts` at its place to the next one's. */
  private readonly nodes: Int32Array;
  private readonly starts: Int32Array;
  private readonly neighbours: Int32Array;
  private readonly shares: Float64Array;
  private readonly siemens: Float64Array;
  /** Place of each node in the order; -1 for a reference. */
  private readonly places: Int32Array;

  /** `island`: reference node of each node's island; a reference is its own. */
  constructor(
    private readonly nodeCount: number,
    island: Int32Array,
    edges: readonly Edge[],
  ) {
    const stars = takenApart(nodeCount, island, edges);
    const total = stars.reduce((sum, { neighbours }) => sum + neighbours.length, 0);
    this.nodes = new Int32Array(stars.length);
    this.starts = new Int32Array(stars.length + 1);
    this.neighbours = new Int32Array(total);
    this.shares = new Float64Array(total);
    this.siemens = new Float64Array(stars.length);
    this.places = new Int32Array(nodeCount).fill(-1);
    let at = 0;
    stars.forEach(({ node, siemens, neighbours, weights }, place) => {
      this.nodes[place] = node;
      this.places[node] = place;
      this.siemens[place] = siemens;
      this.starts[place] = at;
      neighbours.forEach((one, k) => {
        this.neighbours[at] = one;
        this.shares[at] = weights[k]! / siemens;
        at++;
      });
    });
    this.starts[stars.length] = at;
  }

  /** Volts at every node while one ampere is fed into `node` and leaves at its reference. Ohms; zero for a reference node. */
  column(node: number): Float64Array {
    const { nodes, starts, neighbours, shares, siemens } = this;
    const volts = new Float64Array(this.nodeCount);
    const first = this.places[node]!;
    if (first < 0) return volts;
    // The current goes on to what a node hung on, each its share; on the way back a node stands at the mean of what it hung on.
    volts[node] = 1;
    for (let place = first; place < nodes.length; place++) {
      const amps = volts[nodes[place]!]!;
      if (amps === 0) continue;
      for (let at = starts[place]!; at < starts[place + 1]!; at++) {
        const other = neighbours[at]!;
        volts[other] = volts[other]! + shares[at]! * amps;
      }
    }
    for (let place = nodes.length - 1; place >= 0; place--) {
      const own = nodes[place]!;
      let sum = volts[own]! / siemens[place]!;
      for (let at = starts[place]!; at < starts[place + 1]!; at++) {
        sum += shares[at]! * volts[neighbours[at]!]!;
      }
      volts[own] = sum;
    }
    return volts;
  }
}

/** A node as it was taken out: what it hung on, with each one's conductance, and the sum. */
interface Star {
  node: number;
  siemens: number;
  neighbours: readonly number[];
  weights: readonly number[];
}

function takenApart(nodeCount: number, island: Int32Array, edges: readonly Edge[]): Star[] {
  const mesh = new Mesh(nodeCount);
  for (const { a, b, siemens } of edges) {
    if (!(siemens > 0) || a === b) continue;
    const [freeA, freeB] = [island[a] !== a, island[b] !== b];
    if (freeA && freeB) mesh.join(a, b, siemens);
    else if (freeA) mesh.tie(a, siemens);
    else if (freeB) mesh.tie(b, siemens);
  }
  const stars: Star[] = [];
  const left: number[] = [];
  for (let node = 0; node < nodeCount; node++) if (island[node] !== node) left.push(node);
  while (left.length > 0) {
    const at = mesh.leastJoined(left);
    const node = left[at]!;
    left[at] = left[left.length - 1]!;
    left.pop();
    stars.push(mesh.eliminate(node));
  }
  return stars;
}

/** Conductances between free nodes, and of each to the reference of its island. */
class Mesh {
  private readonly toReference: Float64Array;
  private readonly neighbours: number[][];
  /** Conductance to each neighbour, in the same order. */
  private readonly weights: number[][];

  constructor(nodeCount: number) {
    this.toReference = new Float64Array(nodeCount);
    this.neighbours = [];
    this.weights = [];
    for (let node = 0; node < nodeCount; node++) {
      this.neighbours.push([]);
      this.weights.push([]);
    }
  }

  join(a: number, b: number, siemens: number): void {
    // The shorter list is the one to look through.
    const [one, other] = this.neighbours[a]!.length <= this.neighbours[b]!.length ? [a, b] : [b, a];
    const at = this.neighbours[one]!.indexOf(other);
    if (at < 0) {
      this.neighbours[one]!.push(other);
      this.weights[one]!.push(siemens);
      this.neighbours[other]!.push(one);
      this.weights[other]!.push(siemens);
      return;
    }
    const back = this.neighbours[other]!.indexOf(one);
    this.weights[one]![at] = this.weights[one]![at]! + siemens;
    this.weights[other]![back] = this.weights[one]![at]!;
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
    const { toReference } = this;
    const [neighbours, weights] = [this.neighbours[node]!, this.weights[node]!];
    let siemens = toReference[node]!;
    for (const own of weights) siemens += own;
    for (const one of neighbours) {
      const [list, own] = [this.neighbours[one]!, this.weights[one]!];
      const at = list.indexOf(node);
      list[at] = list[list.length - 1]!;
      own[at] = own[own.length - 1]!;
      list.pop();
      own.pop();
    }
    for (let x = 0; x < neighbours.length; x++) {
      const [one, share] = [neighbours[x]!, weights[x]! / siemens];
      this.tie(one, share * toReference[node]!);
      for (let y = 0; y < x; y++) this.join(one, neighbours[y]!, share * weights[y]!);
    }
    return { node, siemens, neighbours, weights };
  }
}
