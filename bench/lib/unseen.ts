import type { Circuit } from '../../src/core/circuit/schema';
import { CircuitModel } from '../../src/core/circuit/model';
import { parseCircuit } from '../../src/core/circuit/parse';
import { workingPatterns } from '../../src/core/diagnosis/patterns';
import { emptyDrawing, layChains } from '../../src/core/draw/layChain';
import { seededRandom, type Random } from '../../src/core/random';
import { around, chance, pick } from './byChance';

/** Circuits that nobody had in mind when the engine was written: put together by chance out of what such machines are made of. */
const COUNT = 32;
const SEED = 20261127;
const POSITIONS = ['left', 'right', 'up', 'down'];

/** The same circuits each time for the same seed, by name; 32 of them where nobody says. */
export function unseenCircuits(count = COUNT, seed = SEED): [string, Circuit][] {
  const random = seededRandom(seed);
  return Array.from({ length: count }, (_one, k): [string, Circuit] => {
    const kind = k % 8 === 6 ? 'line' : k % 8 === 7 ? 'air' : 'battery';
    const text =
      kind === 'line' ? lineChain(random) : kind === 'air' ? airChain(random) : batteryChain(random);
    const circuit = parseCircuit(layChains(emptyDrawing(`Unseen ${k + 1}`), text).circuit);
    if (workingPatterns(new CircuitModel(circuit)).length === 0)
      throw new Error(`unseen circuit ${k + 1} does nothing: ${text}`);
    return [`unseen-${k + 1}-${kind}`, circuit];
  });
}

/** One to four functions between a feed and a return that they share, some over a relay with its own feed. */
function batteryChain(random: Random): string {
  const volts = pick(random, [12.6, 24.8, 25.4, 48]);
  const feed = [`battery ${volts}`, `fuse F1 ${pick(random, [5, 10, 15])}`];
  if (chance(random, 0.6)) feed.push('key switch S0');
  if (chance(random, 0.4)) feed.push('plug X1', 'wire W3 4 m 1.5 mm2');
  feed.push('wire W1');
  const runs = [feed.join(', ')];
  const count = 1 + Math.floor(4 * random.next());
  for (let k = 1; k <= count; k++) runs.push(...functionRuns(random, k, volts));
  const back = ['@R'];
  if (chance(random, 0.4)) back.push('plug X9');
  back.push('wire W2', 'ground');
  return [...runs, back.join(', ')].join('; ');
}

function functionRuns(random: Random, k: number, volts: number): string[] {
  const control = chance(random, 0.75) ? `lever=${POSITIONS[k - 1]} switch S${k}` : `switch "b${k}"=on S${k}`;
  const run = ['after W1', control];
  if (chance(random, 0.3)) run.push(`switch "guard ${k}"=shut S5${k}`);
  if (chance(random, 0.5)) run.push(`wire W1${k}`);
  if (chance(random, 0.25)) {
    const load = pick(random, [
      `motor M${k} ${around(random, volts / 20)}`,
      `heater E${k} ${around(random, volts / 8)}`,
    ]);
    return [
      [...run, `relay K${k} ${around(random, 4 * volts)}`, `wire W2${k}`, '@R'].join(', '),
      [`@B+`, `fuse F1${k} 40`, `K${k}`, `wire W3${k}`, load, `wire W4${k}`, 'ground'].join(', '),
    ];
  }
  const plugged = chance(random, 0.7);
  if (plugged) run.push(`plug X1${k}`);
  const coil = `coil Y${k} ${around(random, volts)}`;
  run.push(pick(random, [coil, coil, coil, `lamp H${k} ${around(random, volts)}`]));
  if (plugged) run.push(`plug X1${k}`);
  if (chance(random, 0.6)) run.push(`wire W5${k}`);
  return [[...run, '@R'].join(', ')];
}

function lineChain(random: Random): string {
  const volts = pick(random, [120, 240]);
  const feed = [`line ${volts} V 50 Hz`, 'breaker F1 10', `transformer ${volts}/24`, 'fuse F2 3'];
  if (chance(random, 0.5)) feed.push('switch "main"=on S0');
  feed.push(
    'switch "call"=on S1',
    'wire W1',
    'plug X1',
    `coil Y1 ${around(random, 20)}`,
    'plug X1',
    'wire W2',
    'back',
  );
  return feed.join(', ');
}

function airChain(random: Random): string {
  const electric = [
    'battery 24.6',
    'fuse F1 3',
    'switch "push"=on S1',
    'wire W1',
    'plug X1',
    `coil Y1 ${around(random, 45)}`,
    'plug X1',
    'wire W2',
    'ground',
  ];
  const air = [
    `air ${pick(random, [6, 7, 8])} bar`,
    'filter',
    'regulator 5.5 bar',
    'hose',
    `valve ${pick(random, ['3/2', '5/2'])}`,
  ];
  if (chance(random, 0.5)) air.push('throttle');
  air.push('hose', 'cylinder');
  return `${electric.join(', ')}; ${air.join(', ')}`;
}
