/**
 * Times the layout of a schematic and of a path for circuits of 12 and 60 parts. `npm run bench:schematic`. Prints
 * medians and their ratio; asserts nothing.
 */
import { emptyDrawing, layChains } from '../src/core/draw/layChain';
import { checkCircuit } from '../src/core/draw/checkCircuit';
import { CircuitModel } from '../src/core/circuit/model';
import { findLanes } from '../src/core/path/lanes';
import { layoutPath } from '../src/core/path/layoutPath';
import { schematicGraph } from '../src/core/schematic/schematicGraph';
import { layoutHere } from '../src/workers/layoutHere';

const ROUNDS = 15;

/** Outputs of one controller, each a run of its own: 3 parts, and 8 for each output. */
function outputs(count: number) {
  const runs = Array.from(
    { length: count },
    (_one, k) =>
      `after W1, lever=p${k} switch, wire, plug X${k + 1}, coil 24, plug X${k + 1}, wire, plug X90, ground`,
  );
  return layChains(emptyDrawing('Outputs'), ['battery 24, fuse 20, wire W1', ...runs].join('; ')).circuit;
}

async function median(work: () => unknown): Promise<number> {
  const times: number[] = [];
  for (let round = 0; round < ROUNDS + 3; round++) {
    const start = performance.now();
    await work();
    if (round >= 3) times.push(performance.now() - start);
  }
  return times.sort((a, b) => a - b)[Math.floor(ROUNDS / 2)]!;
}

const small = outputs(1);
const large = outputs(8);
const rows: string[] = [];
for (const [name, work] of [
  ['schematic laid out', (circuit: typeof small) => layoutHere(schematicGraph(new CircuitModel(circuit)))],
  [
    'path laid out',
    (circuit: typeof small) => {
      const model = new CircuitModel(circuit);
      const lanes = findLanes(model);
      const standings = circuit.parts.map(() => ({ state: 'doubt' as const, share: 0.01, turns: 0 }));
      return layoutPath(model, lanes, lanes.lanes[0]!, { width: 1280, standings, asked: [] });
    },
  ],
  ['live checks', (circuit: typeof small) => checkCircuit(circuit)],
] as const) {
  const [few, many] = [await median(() => work(small)), await median(() => work(large))];
  rows.push(
    `${name.padEnd(20)} ${small.parts.length} parts ${few.toFixed(1).padStart(7)} ms   ${large.parts.length} parts ${many
      .toFixed(1)
      .padStart(7)} ms   ratio ${(many / few).toFixed(1)}`,
  );
}
process.stdout.write(`${rows.join('\n')}\n`);
