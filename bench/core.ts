/**
 * Times the engine on a 60-part circuit: opening, first plan from cold, and weigh-and-rank after one more reading,
 * against solving every world anew. `npm run bench:core`. Prints medians and ratios; asserts nothing.
 */
import { CircuitModel } from '../src/core/circuit/model';
import { circuitSchema, type Circuit, type Reading } from '../src/core/circuit/schema';
import { applySetup } from '../src/core/circuit/situation';
import { SituationSolver } from '../src/core/circuit/solveSituation';
import { Diagnoser } from '../src/core/diagnosis/diagnose';

const ROUNDS = 9;

/** Ten two-wire functions off one supply: 60 parts, a lever of eleven positions. */
function largeCircuit(): Circuit {
  const positions = ['rest', ...Array.from({ length: 8 }, (_one, k) => `f${k}`)];
  const parts: unknown[] = [
    { ref: 'G1', kind: 'source', nodes: { '+': 'B+', '-': 'GND' }, volts: 25.2, internalOhms: 0.02 },
    { ref: 'F1', kind: 'fuse', nodes: { '1': 'B+', '2': 'F' }, amps: 20 },
    { ref: 'W0', kind: 'wire', nodes: { '1': 'F', '2': 'C' }, ohms: 0.02 },
    { ref: 'W99', kind: 'wire', nodes: { '1': 'R', '2': 'GND' }, ohms: 0.01 },
  ];
  for (let k = 0; k < 8; k++) {
    parts.push(
      { ref: `S${k}`, kind: 'switch', nodes: { '1': 'C', '2': `S${k}` }, closedWhen: { lever: [`f${k}`] } },
      { ref: `W${k}a`, kind: 'wire', nodes: { '1': `S${k}`, '2': `X${k}` }, ohms: 0.05, bundle: 'loom' },
      { ref: `X${k}.1`, kind: 'pin', connector: `X${k}`, nodes: { '1': `X${k}`, '2': `Y${k}a` } },
      { ref: `Y${k}`, kind: 'coil', nodes: { '1': `Y${k}a`, '2': `Y${k}b` }, ohms: 28 + k },
      { ref: `V${k}`, kind: 'diode', nodes: { anode: `Y${k}b`, cathode: `Y${k}a` } },
      { ref: `X${k}.2`, kind: 'pin', connector: `X${k}`, nodes: { '1': `Y${k}b`, '2': `Z${k}` } },
      { ref: `W${k}b`, kind: 'wire', nodes: { '1': `Z${k}`, '2': 'R' }, ohms: 0.05 },
    );
  }
  return circuitSchema.parse({
    format: 'spiraxis-circuit',
    version: 1,
    name: 'sixty parts',
    frame: 'GND',
    controls: { lever: positions },
    parts,
  });
}

const circuit = largeCircuit();
const works: Reading = { kind: 'function', part: 'Y0', setup: { controls: { lever: 'f0' } }, value: 'works' };
const dead: Reading = { kind: 'function', part: 'Y3', setup: { controls: { lever: 'f3' } }, value: 'dead' };
const ohms: Reading = {
  kind: 'ohms',
  from: 'X3',
  to: 'GND',
  setup: { pulled: ['F1'], controls: { lever: 'f3' } },
  value: 'OL',
};

const times: Record<string, number[]> = { open: [], cold: [], warm: [], next: [] };
let counted = { faults: 0, tests: 0 };
for (let round = 0; round < ROUNDS; round++) {
  const marks = [performance.now()];
  const diagnoser = new Diagnoser(circuit);
  marks.push(performance.now());
  counted = diagnoser.diagnose([works, dead]).counted;
  marks.push(performance.now());
  diagnoser.diagnose([works, dead, ohms]);
  marks.push(performance.now());
  diagnoser.diagnose([works, dead, ohms, { ...ohms, from: 'Y3a', value: 31.2 }]);
  marks.push(performance.now());
  ['open', 'cold', 'warm', 'next'].forEach((name, at) => times[name]!.push(marks[at + 1]! - marks[at]!));
}

const median = (list: number[]) => [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)]!;
console.log(
  `${circuit.parts.length} parts, ${counted.faults} faults, ${counted.tests} candidate tests, median of ${ROUNDS}`,
);
for (const [name, list] of Object.entries(times))
  console.log(`${name.padEnd(6)} ${median(list).toFixed(1).padStart(8)} ms`);

// The naive way: every fault's world built and inverted anew, against one inverse and closed forms.
const model = new CircuitModel(circuit);
const { faults } = new Diagnoser(circuit);
const setup = { controls: { lever: 'f3' } };
const [i, j] = [model.compiled.nodeIndex.get('Y3a')!, model.compiled.frame];
const timed = (work: () => void) => {
  const list = Array.from({ length: 5 }, () => {
    const started = performance.now();
    work();
    return performance.now() - started;
  });
  return median(list);
};
const all = faults.flatMap(({ variants, severity }) =>
  variants.map(({ edits }) => edits(severity ? severity.mainMost / 3 : 1)),
);
const fast = timed(() => {
  const solver = new SituationSolver(applySetup(model.compiled, setup));
  for (const edits of all) solver.solve({ mode: 'live' }, edits).changed.pairVolts(i, j);
});
const naive = timed(() => {
  for (const edits of all) {
    new SituationSolver(applySetup(model.compiled, setup))
      .solve({ mode: 'live' }, edits)
      .changed.pairVolts(i, j);
  }
});
console.log(
  `one set-up, ${all.length} worlds: ${fast.toFixed(1)} ms kept, ${naive.toFixed(1)} ms anew, ratio ${(naive / fast).toFixed(0)}`,
);
console.log(`memory ${(process.memoryUsage().heapUsed / 1e6).toFixed(0)} MB heap`);
