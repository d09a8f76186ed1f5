import { seededRandom } from '../src/core/random';
import { playSheet, PLANTED } from '../src/core/sheets/testing/planted';

/** How often each sheet names what was planted, out of so many: `npm run bench:sheets -- [--seed=7] [--count=200] [--show]`. */
const option = (name: string, usual: number) =>
  Number(process.argv.find((one) => one.startsWith(`--${name}=`))?.split('=')[1] ?? usual);
const [seed, count] = [option('seed', 7), option('count', 200)];
const show = process.argv.includes('--show');

console.log('sheet           right   wrong    open  asked   ms each');
for (const [name, plant] of Object.entries(PLANTED)) {
  const random = seededRandom(seed);
  const sums = { right: 0, wrong: 0, open: 0 };
  let readings = 0;
  const begin = performance.now();
  for (let k = 0; k < count; k++) {
    const planted = plant(random);
    const { outcome, asked, document, answer } = playSheet(planted);
    sums[outcome]++;
    readings += asked;
    if (show && outcome !== 'right')
      console.log(
        outcome,
        planted.cause,
        JSON.stringify(document).slice(0, 1500),
        '\n  ->',
        JSON.stringify(answer).slice(0, 800),
      );
  }
  const each = (performance.now() - begin) / count;
  const share = (value: number) => `${((100 * value) / count).toFixed(1)} %`.padStart(8);
  console.log(
    `${name.padEnd(13)} ${share(sums.right)}${share(sums.wrong)}${share(sums.open)}  ${(readings / count).toFixed(1).padStart(5)}  ${each.toFixed(2)}`,
  );
}
