import { seededRandom } from '../src/core/random';
import { coilFeed } from '../src/core/trace/coilFeed';
import { judgeCoil } from '../src/core/trace/judgeCoil';
import { CoilOfMachine, PLANTED_CONDITIONS } from '../src/core/trace/testing/plantedCoil';
import { tracePlaces } from '../src/testing/tracePlaces';

/**
 * How often a coil's trace alone names what was planted, in the whole circuits of demonstration and templates: held against an earlier trace
 * of the same coil, and without one. `npm run bench:traces -- [--seed=7] [--rounds=1] [--show]`.
 */
const option = (name: string, usual: number) =>
  Number(process.argv.find((one) => one.startsWith(`--${name}=`))?.split('=')[1] ?? usual);
const [seed, rounds] = [option('seed', 7), option('rounds', 1)];
const show = process.argv.includes('--show');

const places = tracePlaces();
console.log(
  `${places.length} coils of ${new Set(places.map(({ model }) => model.compiled.circuit.name)).size} circuits, seed ${seed}`,
);
for (const compared of [true, false]) {
  const random = seededRandom(seed);
  const rows = new Map(PLANTED_CONDITIONS.map((one) => [one, { right: 0, wrong: 0, open: 0 }]));
  let [took, plays] = [0, 0];
  for (let round = 0; round < rounds; round++) {
    for (const place of places) {
      const coil = new CoilOfMachine(place, random);
      const feed = coilFeed(place.model, place.ref, place.on);
      const before = coil.take('sound')!;
      for (const condition of PLANTED_CONDITIONS) {
        const trace = coil.take(condition);
        if (!trace) continue;
        const begin = performance.now();
        const { named, standings } = judgeCoil(feed, trace, compared ? before : null);
        took += performance.now() - begin;
        plays++;
        const outcome = named === condition ? 'right' : named === null ? 'open' : 'wrong';
        rows.get(condition)![outcome]++;
        if (show && outcome !== 'right')
          console.log(
            outcome,
            place.model.compiled.circuit.name,
            place.ref,
            condition,
            standings
              .slice(0, 3)
              .map((one) => `${one.condition} ${one.share.toFixed(2)}`)
              .join(', '),
          );
      }
    }
  }
  console.log(compared ? '\nheld against an earlier trace' : '\nwithout an earlier trace');
  for (const [condition, { right, wrong, open }] of rows) {
    const all = right + wrong + open;
    const share = (value: number) => `${((100 * value) / all).toFixed(1)} %`.padStart(9);
    if (all > 0)
      console.log(
        `${condition.padEnd(13)} ${String(all).padStart(4)}  right${share(right)}  wrong${share(wrong)}  open${share(open)}`,
      );
  }
  console.log(`${(took / plays / 1000).toFixed(1)} s a trace`);
}
