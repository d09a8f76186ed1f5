import type { Edge } from '../circuit/network';

/** Frequency the reactances of a test network are meant at. */
const HERTZ = 60;

/** A network as a netlist for an outside simulator, node 0 to ground, every node's voltage printed in full. */
export function spiceNetlist(edges: readonly Edge[], nodes: number, alternating: boolean): string {
  const lines = ['* random network'];
  edges.forEach(({ a, b, siemens, susceptance = 0, emf }, at) => {
    const square = siemens * siemens + susceptance * susceptance;
    const [ohms, reactance] = [siemens / square, -susceptance / square];
    // A resistance of nothing is no part to a simulator: the coil is left out where there is none.
    const end = reactance > 0 ? `k${at}` : `m${at}`;
    lines.push(`R${at} ${a} m${at} ${ohms}`);
    if (reactance > 0) lines.push(`L${at} m${at} ${end} ${reactance / (2 * Math.PI * HERTZ)}`);
    lines.push(alternating ? `V${at} ${b} ${end} DC 0 AC ${emf}` : `V${at} ${b} ${end} ${emf}`);
  });
  const wanted = Array.from({ length: nodes - 1 }, (_one, k) => k + 1);
  lines.push('.control', 'set numdgt=14', alternating ? `ac lin 1 ${HERTZ} ${HERTZ}` : 'op');
  for (const node of wanted) {
    lines.push(alternating ? `print real(v(${node})) imag(v(${node}))` : `print v(${node})`);
  }
  return [...lines, 'quit 0', '.endc', '.end', ''].join('\n');
}

/** Voltages of nodes 1, 2 … from what the simulator printed. */
export function spiceVolts(printed: string, nodes: number, alternating: boolean): number[] {
  const figure = (name: string) => {
    const escaped = name.replace(/[()]/g, '\\$&');
    const found = new RegExp(`^\\s*${escaped}\\s*=\\s*([-+0-9.e]+)`, 'm').exec(printed);
    if (!found) throw new Error(`the simulator printed no ${name}:\n${printed.slice(0, 400)}`);
    return Number(found[1]);
  };
  return Array.from({ length: nodes - 1 }, (_one, k) => {
    const node = k + 1;
    if (!alternating) return figure(`v(${node})`);
    return Math.hypot(figure(`real(v(${node}))`), figure(`imag(v(${node}))`));
  });
}
