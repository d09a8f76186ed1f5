/**
 * Times the engine on a 60-part circuit: first plan from cold, weigh and rank after one more reading (with the answer's
 * predictions worked out ahead, as the worker does, and without), and ratios against solving every world anew and
 * against an outside simulator on the same faults; then how it grows from 32 to 396 parts, each beside one dense inverse of the
 * same size. `npm run bench:core`, which bundles it first, as the build does: what runs TypeScript as it stands names each function anew at
 * every call. Prints medians and ratios; asserts nothing.
 */
import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { CircuitModel } from '../src/core/circuit/model';
import type { Reading } from '../src/core/circuit/schema';
import { applySetup } from '../src/core/circuit/situation';
import { SituationSolver } from '../src/core/circuit/solveSituation';
import { Diagnoser } from '../src/core/diagnosis/diagnose';
import { largeCircuit } from './lib/largeCircuit';

/** Memory in use once what nobody holds is given back, MB. */
function heldMb(): number {
  const { gc } = globalThis as { gc?: () => void };
  if (!gc) throw new Error('node was started without --expose-gc: npm run bench:core starts it right');
  gc();
  gc();
  const { heapUsed, external } = process.memoryUsage();
  return (heapUsed + external) / 1e6;
}
const atFirst = heldMb();

const ROUNDS = 11;
const circuit = largeCircuit();
const works: Reading = { kind: 'function', part: 'Y0', setup: { controls: { lever: 'f0' } }, value: 'works' };
const dead: Reading = { kind: 'function', part: 'Y3', setup: { controls: { lever: 'f3' } }, value: 'dead' };
const pulled = { pulled: ['F1'], controls: { lever: 'f3' } };
const first: Reading = { kind: 'ohms', from: 'X3', to: 'GND', setup: pulled, value: 'OL' };
const second: Reading = { kind: 'ohms', from: 'Y3a', to: 'GND', setup: pulled, value: 31.2 };

const sorted = (list: readonly number[]) => [...list].sort((a, b) => a - b);
const median = (list: readonly number[]) => sorted(list)[Math.floor(list.length / 2)]!;
const times = {
  open: [] as number[],
  'first plan': [] as number[],
  'next, unprepared': [] as number[],
  'next, prepared': [] as number[],
  'proof, unprepared': [] as number[],
};
let counted = { faults: 0, skippedFaults: 0, tests: 0, skipped: 0 };
const clock = <T>(list: number[], work: () => T): T => {
  const started = performance.now();
  const result = work();
  list.push(performance.now() - started);
  return result;
};
for (let round = 0; round < ROUNDS; round++) {
  const diagnoser = clock(times.open, () => new Diagnoser(circuit));
  counted = clock(times['first plan'], () => diagnoser.diagnose([works, dead])).counted;
  clock(times['next, unprepared'], () => diagnoser.diagnose([works, dead, first]));
  clock(times['proof, unprepared'], () => diagnoser.diagnose([works, dead, first, second]));
  const other = new Diagnoser(circuit);
  other.diagnose([works, dead]);
  const { value: _value, ...test } = first;
  other.prepare(test);
  clock(times['next, prepared'], () => other.diagnose([works, dead, first]));
}
console.log(
  `${circuit.parts.length} parts, ${counted.faults} faults, ${counted.tests} candidate tests, ${counted.skipped} left out; ${ROUNDS} rounds`,
);
for (const [name, list] of Object.entries(times)) {
  console.log(
    `${name.padEnd(18)} median ${median(list).toFixed(1).padStart(7)} ms   least ${sorted(list)[0]!.toFixed(1).padStart(7)} ms`,
  );
}

// The same question both ways: volts at one point in one set-up, under every fault.
const model = new CircuitModel(circuit);
const setup = { controls: { lever: 'f3' } };
const [i, j] = [model.compiled.nodeIndex.get('Y3a')!, model.compiled.frame];
const worlds = new Diagnoser(circuit).faults.flatMap(({ variants, severity }) =>
  variants.map(({ edits }) => edits(severity ? severity.mainMost / 3 : 1)),
);
const timed = (work: () => void, rounds = 5) =>
  median(
    Array.from({ length: rounds }, () => {
      const list: number[] = [];
      clock(list, work);
      return list[0]!;
    }),
  );
const kept = timed(() => {
  const solver = new SituationSolver(applySetup(model.compiled, setup));
  for (const edits of worlds) solver.solve({ mode: 'live' }, edits).changed.pairVolts(i, j);
});
const anew = timed(() => {
  for (const edits of worlds) {
    new SituationSolver(applySetup(model.compiled, setup))
      .solve({ mode: 'live' }, edits)
      .changed.pairVolts(i, j);
  }
});
console.log(
  `${worlds.length} worlds of one set-up: ${kept.toFixed(1)} ms kept, ${anew.toFixed(1)} ms refactored anew, ratio ${(anew / kept).toFixed(0)}`,
);

/** The networks of the same worlds as one batch for the simulator: a subcircuit for each. */
function netlist(): string {
  const solver = new SituationSolver(applySetup(model.compiled, setup));
  const lines = ['* every fault of one set-up'];
  worlds.forEach((edits, w) => {
    const world = solver.solve({ mode: 'live' }, edits);
    world.edges.forEach(({ a, b, siemens, emf }, at) => {
      const delta = world.deltas.find(({ branch }) => branch === at);
      const g = Math.max(siemens + (delta?.delta.siemens ?? 0), 0);
      if (g <= 0) return;
      const node = (n: number) => (n === j ? '0' : `n${w}_${n}`);
      lines.push(`R${w}_${at} ${node(a)} m${w}_${at} ${1 / g}`, `V${w}_${at} ${node(b)} m${w}_${at} ${emf}`);
    });
    for (const { index } of model.compiled.branches) {
      const { a } = world.edges[index]!;
      if (a !== j) lines.push(`RL${w}_${index} n${w}_${a} 0 1e12`);
    }
  });
  return [...lines, '.control', 'op', 'quit 0', '.endc', '.end', ''].join('\n');
}
const folder = mkdtempSync(join(tmpdir(), 'spiraxis-bench-'));
const file = join(folder, 'faults.cir');
writeFileSync(file, netlist());
if (spawnSync('ngspice', ['--version']).error) console.log('ngspice is not installed: no ratio against it');
else {
  const batch = timed(() => void spawnSync('ngspice', ['-b', file]), 3);
  console.log(
    `ngspice batch of the same ${worlds.length} worlds: ${batch.toFixed(0)} ms, ratio ${(batch / kept).toFixed(0)}`,
  );
}
rmSync(folder, { recursive: true });

/** One inverse of a full matrix of this size, ms: what a solver without structure pays for each set-up. */
function denseInverse(n: number): number {
  const z = Float64Array.from({ length: n * n }, (_one, at) =>
    at % (n + 1) === 0 ? n : -1 / (1 + ((at * 7919) % 13)),
  );
  return timed(() => {
    const work = z.slice();
    for (let k = 0; k < n; k++) {
      const pivot = 1 / work[k * n + k]!;
      work[k * n + k] = 1;
      for (let j = 0; j < n; j++) work[k * n + j] = work[k * n + j]! * pivot;
      for (let i = 0; i < n; i++) {
        const factor = work[i * n + k]!;
        if (i === k) continue;
        work[i * n + k] = 0;
        for (let j = 0; j < n; j++) work[i * n + j] = work[i * n + j]! - factor * work[k * n + j]!;
      }
    }
  }, 3);
}

console.log('parts  nodes  first plan      next     proof   dense inverse  first plan in those');
let largest: Diagnoser | null = null;
for (const functions of [4, 8, 17, 56]) {
  const grown = largeCircuit(functions);
  const [plans, nexts, proofs] = [[] as number[], [] as number[], [] as number[]];
  for (let round = 0; round < 3; round++) {
    const diagnoser = new Diagnoser(grown);
    clock(plans, () => diagnoser.diagnose([works, dead]));
    clock(nexts, () => diagnoser.diagnose([works, dead, first]));
    clock(proofs, () => diagnoser.diagnose([works, dead, first, second]));
    largest = diagnoser;
  }
  const nodes = new CircuitModel(grown).compiled.nodeNames.length;
  const dense = denseInverse(nodes);
  const ms = (list: readonly number[]) => `${median(list).toFixed(0)} ms`.padStart(9);
  console.log(
    `${String(grown.parts.length).padStart(5)} ${String(nodes).padStart(6)}   ${ms(plans)} ${ms(nexts)} ${ms(proofs)}   ${dense.toFixed(2).padStart(10)} ms  ${(median(plans) / dense).toFixed(0).padStart(8)}`,
  );
}
console.log(
  `memory ${heldMb().toFixed(0)} MB with the circuit of ${largest!.model.compiled.parts.length} parts open and weighed, ${atFirst.toFixed(0)} MB before any; the process ${(process.resourceUsage().maxRSS / 1024).toFixed(0)} MB at most`,
);
