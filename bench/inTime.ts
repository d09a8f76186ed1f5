import { CircuitModel } from '../src/core/circuit/model';
import { circuitSchema, type Circuit } from '../src/core/circuit/schema';
import { timeCircuit } from '../src/core/transient/ofCircuit';
import { runInTime } from '../src/core/transient/run';
import { largeCircuit } from './lib/largeCircuit';

/**
 * A second of machine time of 60 parts: one function switched on and off, and all eight at once, as the application asks for it and finer.
 * Milliseconds of a core, the middle one of five; beside them one steady solution of the same circuit, which says how fast this machine is.
 * `npm run bench:time`.
 */
const ROUNDS = 5;
const ALL = 'all';

/** The same with a position in which every function is on. */
function withAll(circuit: Circuit): Circuit {
  const lever = [...circuit.controls.lever!, ALL];
  const parts = circuit.parts.map((part) =>
    part.kind === 'switch' ? { ...part, closedWhen: { lever: [...part.closedWhen.lever!, ALL] } } : part,
  );
  return circuitSchema.parse({ ...circuit, controls: { lever }, parts });
}

function cpuMs(work: () => void): number {
  const took = Array.from({ length: ROUNDS }, () => {
    const before = process.cpuUsage();
    work();
    const { user, system } = process.cpuUsage(before);
    return (user + system) / 1000;
  });
  return took.sort((a, b) => a - b)[ROUNDS >> 1]!;
}

const circuit = withAll(largeCircuit(8));
const model = new CircuitModel(circuit);
const steady = cpuMs(() => {
  new CircuitModel(circuit).situation({ controls: { lever: 'f3' } }).solve({ mode: 'live' });
});
console.log(`${circuit.parts.length} parts; one steady solution ${steady.toFixed(1)} ms`);
for (const [name, position] of [
  ['one function', 'f3'],
  ['all eight at once', ALL],
] as const) {
  const setup = (lever: string) => ({ controls: { lever } });
  const { nodes, elements } = timeCircuit(model, [
    { seconds: 0, setup: setup('rest') },
    { seconds: 0.05, setup: setup(position) },
    { seconds: 0.55, setup: setup('rest') },
  ]);
  for (const [how, options] of [
    ['as asked for', { tolerance: 1e-3, mostStep: 1 / 400 }],
    ['finer', {}],
  ] as const) {
    let steps = 0;
    const ms = cpuMs(() => (steps = runInTime(nodes, elements, 1, options).steps));
    console.log(
      `${name.padEnd(18)} ${how.padEnd(13)} ${String(steps).padStart(5)} steps  ${ms.toFixed(0).padStart(4)} ms  ${(ms / steady).toFixed(0).padStart(3)} steady solutions`,
    );
  }
}
