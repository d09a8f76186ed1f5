import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { seededRandom } from '../random';
import { closedBetween, pulses, sine, step, type Element } from './elements';
import { runInTime, valueAt } from './run';
import { DIODE } from './testing/figures';

const END = 0.02;
const NODES = 6;
const GRID = 400;
/** Switched volts run up in this time over there, in none here: what lies this near behind an edge is not compared, seconds. */
const EDGE = 1e-8;
const BLIND = 3e-5;
const seeds = Array.from({ length: 20 }, (_one, k) => 700 + k);

interface Built {
  elements: Element[];
  lines: string[];
  edges: number[];
}

/** A random circuit of everything that an outside simulator has too: a fed chain of coils, resistors and capacitors, diodes across the coils. */
function build(seed: number): Built {
  const random = seededRandom(seed);
  const log = (low: number, high: number) => low * (high / low) ** random.next();
  const elements: Element[] = [];
  const lines: string[] = ['* random'];
  const edges: number[] = [];
  const name = (letter: string) => `${letter}${elements.length}`;
  const volts = Math.round(log(5, 48));
  const kind = seed % 4;
  if (kind === 0) {
    const from = 1e-3;
    elements.push({ kind: 'source', a: 1, b: 0, volts: step(volts, from) });
    lines.push(`V0 1 0 PWL(0 0 ${from} 0 ${from + EDGE} ${volts})`);
    edges.push(from);
  } else if (kind === 1) {
    elements.push({ kind: 'source', a: 1, b: 0, volts: sine(volts, 100) });
    lines.push(`V0 1 0 SIN(0 ${volts} 100)`);
  } else {
    const [hz, duty] = [200, 0.3 + 0.4 * random.next()];
    elements.push({ kind: 'source', a: 1, b: 0, volts: pulses(volts, hz, duty) });
    lines.push(`V0 1 0 PULSE(0 ${volts} 0 ${EDGE} ${EDGE} ${duty / hz - EDGE} ${1 / hz})`);
    for (let k = 0; k < END * hz; k++) edges.push(k / hz, (k + duty) / hz);
  }
  for (let node = 1; node < NODES - 1; node++) {
    const ohms = log(5, 200);
    lines.push(`${name('R')} ${node} ${node + 1} ${ohms}`);
    elements.push({ kind: 'resistor', a: node, b: node + 1, ohms });
  }
  for (let node = 2; node < NODES; node++) {
    const pick = Math.floor(4 * random.next());
    const ohms = log(20, 2000);
    lines.push(`${name('R')} ${node} 0 ${ohms}`);
    elements.push({ kind: 'resistor', a: node, b: 0, ohms });
    if (pick === 0) {
      const farads = log(1e-7, 2e-5);
      lines.push(`${name('C')} ${node} 0 ${farads} IC=0`);
      elements.push({ kind: 'capacitor', a: node, b: 0, farads });
    } else if (pick === 1) {
      const henries = log(5e-3, 0.2);
      lines.push(`${name('L')} ${node} 0 ${henries} IC=0`);
      elements.push({ kind: 'inductor', a: node, b: 0, henries });
      lines.push(`${name('D')} 0 ${node} D1`);
      elements.push({ ...DIODE, anode: 0, cathode: node });
    } else if (pick === 2) {
      lines.push(`${name('D')} 0 ${node} D2`);
      elements.push({ ...DIODE, anode: 0, cathode: node, breakdownVolts: 3.9 });
    } else {
      const [on, off] = [4e-3, 11e-3];
      lines.push(`${name('S')} ${node} 0 99 0 SW1`);
      elements.push({
        kind: 'switch',
        a: node,
        b: 0,
        schedule: closedBetween(on, off),
        onOhms: 0.5,
        offOhms: 1e6,
      });
      edges.push(on, off);
    }
  }
  lines.push(
    `VC 99 0 PULSE(0 1 ${4e-3 - EDGE / 2} ${EDGE} ${EDGE} ${7e-3 - EDGE} 1)`,
    '.model D1 D(IS=1e-9 N=1.7 RS=0.1)',
    '.model D2 D(IS=1e-9 N=1.7 RS=0.1 BV=3.9 IBV=1e-9)',
    '.model SW1 SW(RON=0.5 ROFF=1e6 VT=0.5 VH=0)',
    '.options reltol=1e-5 abstol=1e-12 vntol=1e-8 gmin=1e-12',
  );
  return { elements, lines, edges };
}

/** Volts of nodes 1 and on over time, as the outside simulator has them. */
function simulate(lines: readonly string[]): { seconds: Float64Array; volts: Float64Array[] } {
  const folder = mkdtempSync(join(tmpdir(), 'spiraxis-course-'));
  const out = join(folder, 'out.txt');
  const nodes = Array.from({ length: NODES - 1 }, (_one, k) => `v(${k + 1})`).join(' ');
  const deck = [
    ...lines,
    `.tran 2e-6 ${END} 0 5e-6 UIC`,
    '.control',
    'set wr_singlescale',
    'run',
    `wrdata ${out} ${nodes}`,
    'quit',
    '.endc',
    '.end',
    '',
  ].join('\n');
  writeFileSync(join(folder, 'deck.cir'), deck);
  const done = spawnSync('ngspice', ['-b', join(folder, 'deck.cir')], { encoding: 'utf8' });
  if (done.error) throw new Error('ngspice is not installed: apt-get install ngspice', { cause: done.error });
  const rows = readFileSync(out, 'utf8')
    .trim()
    .split('\n')
    .map((row) => row.trim().split(/\s+/).map(Number));
  rmSync(folder, { recursive: true });
  return {
    seconds: Float64Array.from(rows, (row) => row[0]!),
    volts: Array.from({ length: NODES - 1 }, (_one, k) => Float64Array.from(rows, (row) => row[k + 1]!)),
  };
}

describe('against ngspice, in time', () => {
  it.each(seeds)('circuit %i is within one percent of full scale everywhere', (seed) => {
    const { elements, lines, edges } = build(seed);
    const theirs = simulate(lines);
    const ours = runInTime(NODES, elements, END, { mostStep: 2e-5 });
    for (let node = 1; node < NODES; node++) {
      const scale = Math.max(...theirs.volts[node - 1]!.map(Math.abs), 0.1);
      let worst = 0;
      for (let k = 1; k < GRID; k++) {
        const t = (k * END) / GRID;
        if (edges.some((edge) => t >= edge - BLIND && t < edge + BLIND)) continue;
        const apart =
          valueAt(ours.seconds, ours.volts[node]!, t) - valueAt(theirs.seconds, theirs.volts[node - 1]!, t);
        worst = Math.max(worst, Math.abs(apart) / scale);
      }
      expect(worst).toBeLessThan(0.01);
    }
  });
});
