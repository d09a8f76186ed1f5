/**
 * Self-play: a hidden fault, noisy readings, and the program's own first choice followed until it names a part or
 * gives up. `npm run bench:diagnosis [-- rounds]`. Prints rates; asserts nothing.
 */
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { parseCircuit } from '../src/core/circuit/parse';
import type { Reading, Test } from '../src/core/circuit/schema';
import { workingPatterns } from '../src/core/diagnosis/patterns';
import { Diagnoser } from '../src/core/diagnosis/diagnose';
import { totalSigma } from '../src/core/diagnosis/likelihood';
import { bindTest, predict, predictedValue } from '../src/core/diagnosis/predict';
import type { Prediction } from '../src/core/diagnosis/prediction';
import { seededRandom, type Random } from '../src/core/random';

const MOST_READINGS = 16;
const BLUNDERS = 0.02;

interface Tally {
  right: number;
  wrong: number;
  gaveUp: number;
  readings: number;
  minutes: number;
  played: number;
}

function showOnMeter(test: Test, prediction: Prediction, random: Random, supplyVolts: number): Reading {
  if (prediction.type === 'choice') {
    return { ...test, value: predictedValue(test.kind, prediction) } as Reading;
  }
  let value: number | 'OL' = prediction.mean === Infinity ? 'OL' : prediction.mean;
  if (value !== 'OL') value += 0.6 * random.normal() * totalSigma(test.kind, value, 0, test.meter);
  if (random.next() < BLUNDERS) {
    value =
      test.kind === 'volts'
        ? random.next() * supplyVolts
        : random.next() < 0.4
          ? 'OL'
          : 10 ** (6 * random.next());
  }
  if (value !== 'OL' && test.kind !== 'volts' && test.kind !== 'amps') value = Math.max(0, value);
  return { ...test, value: value === 'OL' ? value : Number(value.toPrecision(4)) } as Reading;
}

function play(file: string, rounds: number, random: Random, verbose: boolean): Tally {
  const circuit = parseCircuit(JSON.parse(readFileSync(file, 'utf8')));
  const diagnoser = new Diagnoser(circuit);
  const { supplyVolts } = diagnoser.model.compiled;
  const tally: Tally = { right: 0, wrong: 0, gaveUp: 0, readings: 0, minutes: 0, played: 0 };
  const patterns = workingPatterns(diagnoser.model);
  for (let round = 0; round < rounds; round++) {
    for (const fault of diagnoser.faults) {
      if (fault.fault === 'swapped') continue;
      const { severity } = fault;
      const ohms = severity
        ? severity.mainLeast * (severity.mainMost / severity.mainLeast) ** random.next()
        : 1;
      const variant = fault.variants[Math.floor(random.next() * fault.variants.length)]!;
      const edits = variant.edits(ohms);
      const readings: Reading[] = [];
      let symptom = false;
      for (const { setup, loads } of patterns) {
        for (const part of loads) {
          const { kind } =
            diagnoser.model.compiled.parts[diagnoser.model.compiled.partIndex.get(part)!]!.part;
          if (kind === 'relay' || kind === 'resistor') continue;
          const test: Test = { kind: 'function', part, setup };
          const reading = showOnMeter(
            test,
            predict(bindTest(diagnoser.model, test), edits),
            random,
            supplyVolts,
          );
          if (reading.value !== 'works') symptom = true;
          readings.push(reading);
        }
        for (const part of circuit.parts) {
          if (part.kind !== 'fuse') continue;
          const test: Test = { kind: 'fuse', part: part.ref, setup };
          const reading = showOnMeter(
            test,
            predict(bindTest(diagnoser.model, test), edits),
            random,
            supplyVolts,
          );
          if (reading.value === 'blows') {
            symptom = true;
            readings.push(reading);
          }
        }
      }
      if (!symptom) continue;
      tally.played++;
      let named: string | null = null;
      let minutes = 0;
      let steps = 0;
      const trail: string[] = [];
      for (; steps < MOST_READINGS; steps++) {
        const { verdict, next } = diagnoser.diagnose(readings, { most: 1 });
        if (verdict.state === 'name') {
          named = verdict.part;
          break;
        }
        if (verdict.state !== 'keepTesting' || next.length === 0) {
          trail.push(verdict.state);
          break;
        }
        const [best] = next;
        minutes += best!.minutes;
        const bound = bindTest(diagnoser.model, best!.test);
        const reading = showOnMeter(best!.test, predict(bound, edits), random, supplyVolts);
        readings.push(reading);
        trail.push(
          `${best!.test.kind} ${'from' in best!.test ? `${best!.test.from}>${best!.test.to}` : ''}=${String(reading.value)}`,
        );
      }
      tally.readings += steps;
      tally.minutes += minutes;
      const guilty = named === fault.ref || named === fault.other;
      if (guilty) tally.right++;
      else if (named) tally.wrong++;
      else tally.gaveUp++;
      if (verbose && !guilty) {
        console.log(
          `  ${fault.ref}:${fault.fault}=${ohms.toPrecision(3)} -> ${named ?? 'none'} | ${trail.join(' ; ')}`,
        );
      }
    }
  }
  return tally;
}

const rounds = Number(process.argv[2] ?? 1);
const verbose = process.argv.includes('--verbose');
const folder = join(import.meta.dirname, '..', 'demo', 'circuits');
const only = process.argv.find((word) => word.startsWith('--only='))?.slice(7);
const total: Tally = { right: 0, wrong: 0, gaveUp: 0, readings: 0, minutes: 0, played: 0 };
for (const name of readdirSync(folder).sort()) {
  if (only && !name.includes(only)) continue;
  const started = performance.now();
  const tally = play(join(folder, name), rounds, seededRandom(7), verbose);
  for (const key of Object.keys(total) as (keyof Tally)[]) total[key] += tally[key];
  print(name.replace('.circuit.json', ''), tally, performance.now() - started);
}
print('all', total, NaN);

function print(name: string, t: Tally, milliseconds: number): void {
  const share = (n: number) => `${((100 * n) / t.played).toFixed(1).padStart(5)} %`;
  console.log(
    `${name.padEnd(28)} ${String(t.played).padStart(4)} played  right ${share(t.right)}  wrong ${share(t.wrong)}  ` +
      `gave up ${share(t.gaveUp)}  readings ${(t.readings / t.played).toFixed(1)}  minutes ${(t.minutes / t.played).toFixed(1)}` +
      (Number.isNaN(milliseconds) ? '' : `  ${(milliseconds / 1000).toFixed(1)} s`),
  );
}
