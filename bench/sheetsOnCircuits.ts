import { seededRandom } from '../src/core/random';
import type { JobSheetName } from '../src/core/sheets/onCircuit/jobSheet';
import { Circuits, play, PLAYS } from './lib/sheetPlays';

/**
 * How often a sheet of a job finds what is planted in a circuit put together by chance, filled in cell by cell as it asks, on a machine whose
 * parts scatter, with a meter that is off a little: `npm run bench:sheets:circuits -- [--seed=7] [--count=200] [--only=contacts] [--show]`.
 */
const said = (name: string) =>
  process.argv.find((one) => one.startsWith(`--${name}=`))?.slice(name.length + 3);
const [seed, count] = [Number(said('seed') ?? 7), Number(said('count') ?? 200)];
const show = process.argv.includes('--show');
const only = said('only');

const circuits = new Circuits(count, seed);
console.log('sheet           right   wrong    open  readings  plays');
for (const name of Object.keys(PLAYS) as JobSheetName[]) {
  if (only !== undefined && name !== only) continue;
  const random = seededRandom(seed);
  const sums = { right: 0, wrong: 0, open: 0 };
  let [plays, readings] = [0, 0];
  const fields = circuits.fieldsOf(name);
  // Where fewer circuits have what a sheet is about those are gone through again, with another machine and another fault.
  for (; fields.length > 0 && plays < count; plays++) {
    const played = play(fields[plays % fields.length]!, name, random);
    sums[played.outcome]++;
    readings += played.readings;
    if (show && played.outcome !== 'right') console.log(played.outcome, name, played.told);
  }
  const share = (value: number) => `${((100 * value) / plays).toFixed(1)} %`.padStart(8);
  console.log(
    `${name.padEnd(13)} ${share(sums.right)}${share(sums.wrong)}${share(sums.open)}  ${(readings / plays).toFixed(1).padStart(7)}  ${String(plays).padStart(5)}, ${fields.length} circuits`,
  );
}
