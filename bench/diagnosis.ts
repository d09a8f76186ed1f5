/**
 * Self-play: a hidden fault in a machine whose parts scatter, a meter that is off a little, 2 % blunders. The program's
 * own first choice is followed until it names a part or gives up; the same for two baselines under the same verdict rule.
 *
 *   npm run bench:diagnosis -- [--rounds=N] [--only=TEXT] [--own] [--mean] [--unseen] [--fluid] [--fuses] [--unsaid] [--odds] [--faults=N] [--verbose] [--seed=N]
 *
 * Every fault is as likely as the next, which tries the rare ones as hard; with `--odds` they are drawn by the odds that the engine gives
 * them, as a shed has them: only then can shares be held against how often they were true. With `--mean` besides, the shed breaks in a way
 * of its own: each fault of a kind of part comes more or less often than the engine thinks.
 * With `--fuses` a fuse that went stays gone until the program has it looked at, and nobody says that it went.
 * With `--unsaid` the drawing says of no coil what it reads or draws, as most do not.
 *
 * Prints rates, mean readings and minutes, and how well shares are calibrated. Asserts nothing.
 */
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { parseCircuit } from '../src/core/circuit/parse';
import type { Circuit, Part, Reading, Test } from '../src/core/circuit/schema';
import { listCandidateTests } from '../src/core/diagnosis/candidateTests';
import { Diagnoser } from '../src/core/diagnosis/diagnose';
import type { CandidateFault } from '../src/core/diagnosis/faultTypes';
import { workingPatterns } from '../src/core/diagnosis/patterns';
import { isOnPartOf } from '../src/core/diagnosis/onPart';
import { bindTest, predict, predictedValue } from '../src/core/diagnosis/predict';
import { seededRandom, type Random } from '../src/core/random';
import { TEMPLATES } from '../src/core/templates/templates';
import { Machine } from './lib/machine';
import { fluidCircuits } from './lib/fluidCircuits';
import { unseenCircuits } from './lib/unseen';
import { halfSplit, ownChoice, pathInOrder, type Policy } from './lib/policies';

const MOST_READINGS = 18;
const BLOWN_FUSE_MINUTES = 10;
/** Readings handed over to find out whether a fault could have been told apart at all. */
const MOST_EVIDENCE = 70;
/** A fault that shows at none of so many sizes has the usual one. */
const MOST_DRAWN = 40;
/** Shares nearer to each other than that say the same. */
const SAME_SHARE = 0.005;
/** Between the seeds of two circuits; no two runs of a few seeds meet. */
const APART = 7919;
/** How much more or less often a fault of a kind of part comes in a shed that breaks in its own way: sigma of the logarithm. */
const OWN_WAY = 0.7;
const BINS = [0.5, 0.7, 0.85, 0.95, 0.99, 1.0001];

interface Tally {
  played: number;
  right: number;
  wrong: number;
  gaveUp: number;
  /** Of those not named right: how many no reading at the available points could have settled. */
  hidden: number;
  readings: number;
  minutes: number;
  /** Minutes of the plays that ended with the right name. */
  rightMinutes: number;
}
interface Count {
  count: number;
  share: number;
  truly: number;
}
/** Shares between two limits: each that was said, and of a part that stood there more than once in a play the first alone. */
interface Bin {
  said: Count;
  once: Count;
}

const option = (name: string) => process.argv.find((word) => word.startsWith(`--${name}=`))?.split('=')[1];
const flag = (name: string) => process.argv.includes(`--${name}`);
const rounds = Number(option('rounds') ?? 1);
const seed = Number(option('seed') ?? 7);
const only = option('only');
const verbose = flag('verbose');
/** The meaner generator: parts, mistakes and severities that are not drawn from the engine's own tables. */
const meanly = flag('mean');
const keepsFuses = flag('fuses');

const empty = (): Tally => ({
  played: 0,
  right: 0,
  wrong: 0,
  gaveUp: 0,
  hidden: 0,
  readings: 0,
  minutes: 0,
  rightMinutes: 0,
});
const nothing = (): Count => ({ count: 0, share: 0, truly: 0 });
const bins: Bin[] = BINS.slice(1).map(() => ({ said: nothing(), once: nothing() }));

function circuits(): [string, Circuit][] {
  if (flag('unseen')) return unseenCircuits();
  if (flag('fluid')) return fluidCircuits();
  const folder = join(import.meta.dirname, '..', 'demo', 'circuits');
  const demo = readdirSync(folder)
    .sort()
    .map((file): [string, Circuit] => [
      file.replace('.circuit.json', ''),
      parseCircuit(JSON.parse(readFileSync(join(folder, file), 'utf8'))),
    ]);
  return [...demo, ...TEMPLATES.map(({ id, build }): [string, Circuit] => [id, build()])];
}

/** A drawing that says of no coil and no relay what it reads or draws. */
function unsaid(circuit: Circuit): Circuit {
  const parts = circuit.parts.map((part): Part => {
    if (part.kind !== 'coil' && part.kind !== 'relay') return part;
    const { henries: _henries, va: _va, sealedAmps: _sealed, inrushAmps: _inrush, ...bare } = part;
    if (bare.kind === 'relay') return { ...bare, assumed: [...(bare.assumed ?? []), 'ohms'] };
    const { ohms: _ohms, ...unread } = bare;
    return unread;
  });
  return { ...circuit, parts };
}

/** Something that is said of the machine: of what works in any case, of the rest where it is not as it should be. */
interface Said {
  test: Test;
  sound: (value: Reading['value']) => boolean;
  always: boolean;
}

/** What the operator may speak of: works, weak or dead in every position, which fuse blows, what a sensor's display shows. */
function spokenOf({ model }: Diagnoser): Said[] {
  const all: Said[] = [];
  for (const { setup, loads, driven } of workingPatterns(model)) {
    for (const { part } of model.compiled.parts) {
      const works = loads.includes(part.ref) && part.kind !== 'relay' && part.kind !== 'resistor';
      if (works || driven.includes(part.ref)) {
        const test: Test = { kind: 'function', part: part.ref, setup };
        all.push({ test, sound: (value) => value === 'works', always: true });
      }
      if (!keepsFuses && (part.kind === 'fuse' || part.kind === 'breaker')) {
        const test: Test = { kind: 'fuse', part: part.ref, setup };
        all.push({ test, sound: (value) => value === 'holds', always: false });
      }
      if (part.kind === 'sensor3') {
        const test: Test = {
          kind: 'volts',
          from: part.nodes.signal,
          to: model.compiled.circuit.frame,
          setup,
        };
        const drawn = Number(predictedValue('volts', predict(bindTest(model, test), [])));
        all.push({ test, sound: (value) => Math.abs(Number(value) - drawn) < 0.3, always: true });
      }
    }
  }
  return all;
}

/** What the operator says. */
function complaint(diagnoser: Diagnoser, machine: Machine): { readings: Reading[]; symptom: boolean } {
  const readings: Reading[] = [];
  let symptom = false;
  for (const { test, sound, always } of spokenOf(diagnoser)) {
    const reading = machine.read(test, true);
    const fine = sound(reading.value);
    if (!fine) symptom = true;
    if (always || !fine) readings.push(reading);
  }
  return { readings, symptom };
}

/**
 * A machine that somebody brings in, which is to say that its fault shows; null where nobody does. How often a fault comes is said of all
 * machines, and of those that have it how many are brought in is as the engine thinks. How bad it is then, on the meaner machine, is not: any
 * size that shows is as likely as the next.
 */
function broughtIn(
  diagnoser: Diagnoser,
  { severity, variants }: CandidateFault,
  circuit: Circuit,
  random: Random,
): Machine | null {
  const spoken = spokenOf(diagnoser);
  const drawn = (least: number, most: number): Machine | null => {
    const size = least * (most / least) ** random.next();
    const variant = variants[Math.floor(random.next() * variants.length)]!;
    const machine = new Machine(circuit, variant.edits(size), random, meanly, keepsFuses);
    return spoken.some(({ test, sound }) => !sound(machine.due(test))) ? machine : null;
  };
  const usual = severity ? drawn(severity.mainLeast, severity.mainMost) : drawn(1, 1);
  if (!meanly || !severity || !usual) return usual;
  for (let tried = 0; tried < MOST_DRAWN; tried++) {
    const machine = drawn(severity.least, severity.most);
    if (machine) return machine;
  }
  return usual;
}

function play(
  diagnoser: Diagnoser,
  machine: Machine,
  fault: CandidateFault,
  policy: Policy,
  tally: Tally,
  own: boolean,
): void {
  const { readings, symptom } = complaint(diagnoser, machine);
  if (!symptom) return;
  tally.played++;
  const guilty = (part: string) => part === fault.ref || part === fault.other;
  let named: string | null = null;
  let steps = 0;
  let minutes = 0;
  const trail: string[] = [];
  const said = new Map<string, number>();
  for (; steps < MOST_READINGS; steps++) {
    const diagnosis = diagnoser.diagnose(readings, { most: 1 });
    if (own) calibrate(diagnosis.suspects, guilty, said);
    const { verdict } = diagnosis;
    if (verdict.state === 'name') {
      named = verdict.part;
      break;
    }
    // What nothing explains is read again; more than that is not asked of a person.
    const going = verdict.state === 'keepTesting' || verdict.state === 'unexplained';
    const choice = going ? policy(diagnosis, readings) : null;
    if (!choice) {
      trail.push(`${verdict.state} ${JSON.stringify(verdict)}`);
      break;
    }
    minutes += choice.minutes + (machine.blows(choice.test) ? BLOWN_FUSE_MINUTES : 0);
    const reading = machine.read(choice.test);
    readings.push(reading);
    const place =
      'from' in reading
        ? `${reading.from}>${reading.to}`
        : 'at' in reading
          ? reading.at
          : 'part' in reading
            ? reading.part
            : '';
    trail.push(`${reading.kind} ${place}=${String(reading.value)}`);
  }
  tally.readings += steps;
  tally.minutes += minutes;
  if (named && guilty(named)) {
    tally.right++;
    tally.rightMinutes += minutes;
  } else {
    if (named) tally.wrong++;
    else tally.gaveUp++;
    const hidden = own && !distinguishable(diagnoser, machine, fault);
    if (hidden) tally.hidden++;
    if (verbose && own) {
      console.log(
        `  ${fault.ref}:${fault.fault} -> ${named ?? 'none'}${hidden ? ' (hidden)' : ''} | ${trail.join(' ; ')}`,
      );
    }
  }
}

/** So many of a circuit's faults by chance (`--faults=N`), or all of them; with `--odds` as many by their odds, some more than once. */
function sampled(
  faults: readonly CandidateFault[],
  random: Random,
  odds: (fault: CandidateFault) => number,
): readonly CandidateFault[] {
  const most = Number(option('faults') ?? Infinity);
  if (flag('odds'))
    return Array.from({ length: Math.min(most, faults.length) }, () => byOdds(faults, random, odds));
  if (faults.length <= most) return faults;
  return faults
    .map((fault) => [random.next(), fault] as const)
    .sort(([a], [b]) => a - b)
    .slice(0, most)
    .map(([, fault]) => fault);
}

function byOdds(
  faults: readonly CandidateFault[],
  random: Random,
  odds: (fault: CandidateFault) => number,
): CandidateFault {
  let left = random.next() * faults.reduce((sum, fault) => sum + odds(fault), 0);
  return faults.find((fault) => (left -= odds(fault)) <= 0) ?? faults.at(-1)!;
}

/** How often a fault comes here: as the engine thinks, or in the shed's own way. */
function oddsHere({ model }: Diagnoser, random: Random): (fault: CandidateFault) => number {
  if (!meanly) return ({ prior }) => prior;
  const factors = new Map<string, number>();
  return ({ part, fault, prior }) => {
    const key = `${model.compiled.parts[part]!.part.kind} ${fault}`;
    const factor = factors.get(key) ?? Math.exp(OWN_WAY * random.normal());
    factors.set(key, factor);
    return prior * factor;
  };
}

/**
 * Counts every share that is given, once: a reading that moves nothing says it no second time. Else a play that nothing at hand can
 * settle would count at each of its eighteen readings.
 *
 * @param said what was counted last in this play, by part, and where each part stood before
 */
function calibrate(
  suspects: readonly { part: string; share: number }[],
  guilty: (part: string) => boolean,
  said: Map<string, number>,
): void {
  const shares = new Map<string, number>();
  for (const { part, share } of suspects) shares.set(part, (shares.get(part) ?? 0) + share);
  for (const [part, share] of shares) {
    if (Math.abs(share - (said.get(part) ?? -1)) < SAME_SHARE) continue;
    said.set(part, share);
    const at = BINS.findIndex((low, k) => share >= low && share < (BINS[k + 1] ?? 0));
    if (at < 0) continue;
    const stood = `${part} in ${at}`;
    const { said: each, once } = bins[at]!;
    for (const one of said.has(stood) ? [each] : [each, once]) {
      one.count++;
      one.share += share;
      if (guilty(part)) one.truly++;
    }
    said.set(stood, share);
  }
}

/** Every kind of reading handed over without a blunder: does it put nine tenths on the part? */
function distinguishable(diagnoser: Diagnoser, played: Machine, fault: CandidateFault): boolean {
  const machine = played.withWholeFuses();
  const { tests } = listCandidateTests(diagnoser.model);
  const step = Math.max(1, Math.floor(tests.length / MOST_EVIDENCE));
  const { readings } = complaint(diagnoser, machine);
  for (let at = 0; at < tests.length; at += step) readings.push(machine.read(tests[at]!.bound.test, true));
  for (const { bound } of tests)
    if (isOnPartOf(diagnoser.model, bound, fault)) readings.push(machine.read(bound.test, true));
  const { suspects } = diagnoser.diagnose(readings.slice(0, 2 * MOST_EVIDENCE), { most: 1 });
  const share = suspects
    .filter(({ part }) => part === fault.ref || part === fault.other)
    .reduce((sum, one) => sum + one.share, 0);
  return share >= 0.9;
}

const policies: [string, (diagnoser: Diagnoser) => Policy][] = [
  ['own', ownChoice],
  ...(flag('own')
    ? []
    : [
        ['half-split', halfSplit] as [string, typeof halfSplit],
        ['in order', pathInOrder] as [string, typeof pathInOrder],
      ]),
];
const totals = new Map(policies.map(([name]) => [name, empty()]));
let count = 0;
for (const [at, [name, circuit]] of circuits().entries()) {
  if (only && !name.includes(only)) continue;
  count++;
  const diagnoser = new Diagnoser(flag('unsaid') ? unsaid(circuit) : circuit);
  for (const [policy, make] of policies) {
    const started = performance.now();
    const tally = empty();
    // Each circuit has chances of its own: with the same ones all would have their faults at the same places of their odds.
    const random: Random = seededRandom(seed + APART * at);
    const odds = oddsHere(diagnoser, seededRandom(seed + APART * at + 1));
    const chooses = make(diagnoser);
    for (let round = 0; round < rounds; round++) {
      for (const fault of sampled(diagnoser.faults, random, odds)) {
        const machine = broughtIn(diagnoser, fault, circuit, random);
        if (!machine) continue;
        play(diagnoser, machine, fault, chooses, tally, policy === 'own');
      }
    }
    const total = totals.get(policy)!;
    for (const key of Object.keys(total) as (keyof Tally)[]) total[key] += tally[key];
    if (policy === 'own') print(name, tally, performance.now() - started);
  }
}
console.log(`\n${count} circuits, ${rounds} round${rounds === 1 ? '' : 's'}, seed ${seed}`);
for (const [name, tally] of totals) print(name, tally, NaN);
const own = totals.get('own')!;
console.log(`right of what can be told apart: ${percent(own.right, own.played - own.hidden)}`);
for (const [name, tally] of totals) {
  if (name !== 'own')
    console.log(
      `minutes against ${name}: ${((own.minutes / own.played / (tally.minutes / tally.played) - 1) * 100).toFixed(0)} %`,
    );
}
console.log('\nshare given      suspects   mean share   were true   once a play   mean share   were true');
bins.forEach(({ said, once }, at) => {
  if (said.count === 0) return;
  const columns = [said, once].map(
    ({ count: n, share, truly }) =>
      `${String(n).padStart(9)}      ${percent(share, n)}     ${percent(truly, n)}`,
  );
  console.log(
    `${BINS[at]!.toFixed(2)} to ${Math.min(1, BINS[at + 1]!).toFixed(2)}   ${columns.join('     ')}`,
  );
});
console.log(`peak memory ${(process.resourceUsage().maxRSS / 1024).toFixed(0)} MB`);

function percent(part: number, whole: number): string {
  return `${((100 * part) / Math.max(whole, 1)).toFixed(1).padStart(5)} %`;
}

function print(name: string, t: Tally, milliseconds: number): void {
  console.log(
    `${name.padEnd(24)} ${String(t.played).padStart(5)} played  right ${percent(t.right, t.played)}  wrong ${percent(t.wrong, t.played)}  ` +
      `gave up ${percent(t.gaveUp, t.played)}  hidden ${t.hidden}  readings ${(t.readings / t.played).toFixed(1)}  minutes ${(t.minutes / t.played).toFixed(1)} (when right ${(t.rightMinutes / Math.max(t.right, 1)).toFixed(1)})` +
      (Number.isNaN(milliseconds) ? '' : `  ${(milliseconds / 1000).toFixed(1)} s`),
  );
}
