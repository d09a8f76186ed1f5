/**
 * Writes the two winters behind the demonstration: rounds and repairs, made from the physics with a fixed seed. Machines are built with
 * their own scatter, some parts wear, the weather turns, people slip, and some come back. It takes some minutes, so that its result is kept
 * in the tree and only put into the database at the start.
 */
import { writeFileSync } from 'node:fs';
import { gzipSync } from 'node:zlib';
import { v7 as uuidv7 } from 'uuid';
import { FLEET, PEOPLE, SAYINGS, THINGS, WEAR } from '../demo/fleet';
import { PAST_FILE, type PastFile, type PastJob } from '../demo/pastFile';
import { hiddenEdits, JOBS, loadDemoCircuit, MACHINES, readAs, shown } from '../demo/shed';
import { closePoints, putAllBack, showProofs, soundBench, warmed, type Draft } from '../demo/story';
import { COPPER_PER_K, REFERENCE_C } from '../src/core/circuit/copper';
import type { Edit } from '../src/core/circuit/edits';
import { likeness } from '../src/core/circuit/likeness';
import { CircuitModel } from '../src/core/circuit/model';
import type { Circuit, Reading, Test } from '../src/core/circuit/schema';
import { isDeadKind } from '../src/core/circuit/testPlace';
import { Diagnoser } from '../src/core/diagnosis/diagnose';
import { NO_EXPERIENCE } from '../src/core/diagnosis/experience';
import { listFaults, typicalSeverity } from '../src/core/diagnosis/faults';
import type { CandidateFault } from '../src/core/diagnosis/faultTypes';
import { workingPatterns } from '../src/core/diagnosis/patterns';
import { bindTest, canBeAsked, predict, predictedValue } from '../src/core/diagnosis/predict';
import { windingRead } from '../src/core/diagnosis/windingRead';
import { entrySchema, type Entry } from '../src/core/job/entries';
import { reduceJob } from '../src/core/job/reduceJob';
import { benchChecks } from '../src/core/job/rules/spareOnBench';
import { seededRandom } from '../src/core/random';
import { isolationPlan } from '../src/core/safety/isolationPlan';
import { jobSheet } from '../src/core/sheets/onCircuit/build';
import { shopMarks } from '../src/core/tables/marks';
import { USUAL_POLICY } from '../src/features/policy/policy';
import { preferencesOf } from '../src/features/policy/preferencesOf';
import { measureWords } from '../src/words/en/bench';
import { makeJobDigest } from '../src/workers/jobDigest';

const NOW = Date.parse('2026-11-20T06:00:00Z');
const DAY = 86_400_000;
const MINUTE = 60_000;
const START = NOW - 735 * DAY;
const MOST_TESTS = 12;
const ROUNDS_EVERY_DAYS = 88;
const FAULT_JOBS = 140;
/** Functions whose machines are stood on: everything else is looked at when it fails. */
const IN_ROUNDS = [
  'groomer-tiller-float',
  'winch-reversing',
  'pump-fill-valve',
  'compressor-gate',
  'loader-bucket-lock',
];
const COMEBACKS = 6;
/** One reading of so many is a slip: a probe that did not touch. */
const SLIP = 0.02;

const random = seededRandom(20261120);
const pick = <T>(list: readonly T[]): T => list[Math.floor(random.next() * list.length)]!;
const makeId = (at: number) =>
  uuidv7({ msecs: at, random: Uint8Array.from({ length: 16 }, () => Math.floor(random.next() * 256)) });
const preferences = preferencesOf(USUAL_POLICY);

/** One function of one machine as it was built: the drawing, and the machine, which is a little off. */
interface Built {
  machine: string;
  name: string;
  file: string;
  circuit: Circuit;
  model: CircuitModel;
  /** The machine itself: same parts, own values. */
  real: CircuitModel;
  /** Places that its rounds read. */
  followed: Test[];
}

const diagnosers = new Map<string, Diagnoser>();
function diagnoserOf({ file, circuit }: Built): Diagnoser {
  let known = diagnosers.get(file);
  if (!known) diagnosers.set(file, (known = new Diagnoser(circuit)));
  return known;
}

function build(machine: string, name: string, file: string): Built {
  const circuit = loadDemoCircuit(file);
  const real = structuredClone(circuit);
  for (const part of real.parts) {
    if ((part.kind === 'coil' || part.kind === 'relay') && part.ohms !== undefined)
      part.ohms *= 1 + 0.02 * random.normal();
  }
  const model = new CircuitModel(circuit);
  return { machine, name, file, circuit, model, real: new CircuitModel(real), followed: followedOf(model) };
}

/** Windings, insulation of the runs that get wet, and the supply while it works. */
function followedOf(model: CircuitModel): Test[] {
  const marks = shopMarks({});
  const cells = (sheet: 'coil' | 'insulation') =>
    (jobSheet(model, sheet, [], marks)?.rows ?? []).flatMap(({ cells: own }) =>
      own[0] ? [own[0].test] : [],
    );
  const windings = cells('coil').filter((test) => windingRead(model, test));
  // Behind the first contact, where the loom is wet.
  const leaks = cells('insulation').slice(2, 4);
  const [pattern] = workingPatterns(model);
  const source = model.compiled.parts.find(({ part }) => part.kind === 'source');
  const ends = source?.nodes.map((node) => model.compiled.nodeNames[node]!);
  const supply: Test[] =
    pattern && ends?.length === 2
      ? [{ kind: 'volts', from: ends[0]!, to: ends[1]!, setup: pattern.setup }]
      : [];
  return [...windings, ...leaks, ...supply].filter((test) => canBeAsked(model, test));
}

const built = [...MACHINES, ...FLEET].flatMap(({ code, functions }) =>
  functions.map(({ name, circuit }) => build(code, name, circuit)),
);

/** Warmth of a parked machine, °C: a swing over the year, and the day's own. */
function celsiusAt(at: number): number {
  const day = at / DAY;
  return Math.round(4 - 11 * Math.cos((2 * Math.PI * (day - 15)) / 365.25) + 3 * random.normal());
}

/** The machine as it is on a day: what wears has worn so far, and a cold battery stands lower. */
function editsAt({ machine, name, circuit, real }: Built, at: number, celsius: number): Edit[] {
  const edits: Edit[] = WEAR.filter((one) => one.machine === machine && one.function === name).flatMap(
    (one): Edit[] => {
      const ohms = one.from * (one.to / one.from) ** ((at - START) / (NOW - START));
      if (one.fault === 'winding') {
        const { parts, partIndex } = real.compiled;
        return [{ type: 'ohms', branch: parts[partIndex.get(one.part)!]!.branches[0]!.index, ohms }];
      }
      return hiddenEdits(circuit, { part: one.part, fault: one.fault, ohms });
    },
  );
  const sources = real.compiled.branches.filter(({ emf, domain }) => emf !== 0 && domain === 'electrical');
  const factor = 1 + 0.0012 * (celsius - 10) + 0.006 * random.normal();
  return [...edits, ...sources.map(({ index }): Edit => ({ type: 'emf', branch: index, factor }))];
}

class Log {
  readonly entries: Entry[] = [];
  constructor(
    private clock: number,
    readonly person: string,
  ) {}
  get at() {
    return this.clock;
  }
  write = (draft: Draft, minutes = 1, person = this.person): string => {
    this.clock += minutes * MINUTE;
    const id = makeId(this.clock);
    this.entries.push(entrySchema.parse({ ...draft, id, person, at: new Date(this.clock).toISOString() }));
    return id;
  };
  pin = (reading: Reading, more: object = {}, minutes = 2): string =>
    this.write({ type: 'reading', body: { reading, typed: String(reading.value), ...more } }, minutes);
}

const measure = (model: CircuitModel, edits: readonly Edit[], test: Test): Reading =>
  readAs(model, edits as Edit[], test, random);

/** A round: locked, read dead, opened, read running. */
function round(one: Built, at: number): Log {
  const { model, real, followed } = one;
  const log = new Log(at, pick(PEOPLE));
  const celsius = celsiusAt(at);
  const edits = editsAt(one, at, celsius);
  log.write({ type: 'retest', body: { tests: followed } }, 0);
  const plan = isolationPlan(model);
  closePoints(plan, log.write);
  log.write({ type: 'madeSafe', body: { points: plan.map(({ point }) => point) } });
  const takesWarmth = random.next() < 0.8;
  const show = (only: (dead: boolean) => boolean) =>
    showProofs({
      model,
      entries: log.entries,
      edits,
      write: log.write,
      pin: (reading, more, minutes) =>
        log.pin({ ...winding(real, edits, reading, celsius, takesWarmth) }, more, minutes),
      name: `${one.machine} ${one.name} on ${new Date(at).toISOString()}`,
      read: (_value, test) => measure(real, edits, test).value as number,
      only: (proof) => proof.kind !== 'isolation' && 'test' in proof && only(isDeadKind(proof.test.kind)),
      // What wears out is followed, and changed when it is due.
      leaves: 'Followed: it still works, and is read again.',
    });
  show((dead) => dead);
  putAllBack(model, log.entries, log.write);
  for (const { point } of plan)
    log.write({ type: 'reopened', body: { point, reason: 'read, put back to service' } });
  show((dead) => !dead);
  const retest = new Date(log.at + 90 * DAY).toISOString().slice(0, 10);
  log.write({ type: 'handOver', body: { note: 'Looked at, nothing found.', left: [], retest } }, 3);
  return log;
}

/** A winding reads with its warmth, which most people take down with it. */
function winding(
  real: CircuitModel,
  edits: readonly Edit[],
  reading: Reading,
  celsius: number,
  takes: boolean,
): Reading {
  if (!windingRead(real, reading) || typeof reading.value !== 'number') return reading;
  if (takes) return warmed(real, reading, celsius);
  return {
    ...reading,
    value: shown(reading.value * (1 + COPPER_PER_K * (celsius - REFERENCE_C))),
  } as Reading;
}

/** How this shed breaks, beside the rules of thumb: its plugs suffer from the wash, its coils are good ones. */
function truth(model: CircuitModel, { part, fault, ref, other }: CandidateFault, file: string): number {
  if (other !== undefined) return 0;
  const { kind } = model.compiled.parts[part]!.part;
  const own = file === 'groomer-tiller-float' && ref === 'X31.2' && fault === 'highResistance' ? 14 : 1;
  const pins = kind === 'pin' ? 3 : 1;
  const coils = kind === 'coil' && fault === 'open' ? 0.4 : 1;
  const contacts = file === 'winch-reversing' && kind === 'relay' ? 2.5 : 1;
  return own * pins * coils * contacts;
}

interface Hidden {
  fault: CandidateFault;
  edits: Edit[];
  /** What the driver saw. */
  seen: Test & { kind: 'function' };
  value: Reading['value'];
}

function drawFault(one: Built): Hidden | null {
  const { model, file } = one;
  const faults = listFaults(model);
  const weights = faults.map((fault) => fault.prior * truth(model, fault, file));
  let left = random.next() * weights.reduce((sum, weight) => sum + weight, 0);
  const fault = faults[weights.findIndex((weight) => (left -= weight) < 0)];
  if (!fault) return null;
  const severity = fault.severity
    ? typicalSeverity(fault) * Math.exp(0.5 * random.normal())
    : typicalSeverity(fault);
  const edits = pick(fault.variants).edits(severity);
  for (const { setup, loads, driven } of workingPatterns(model)) {
    const load = [...driven, ...loads].find((ref) => {
      const { kind } = model.compiled.circuit.parts.find((part) => part.ref === ref)!;
      return kind !== 'relay' && kind !== 'resistor';
    });
    if (!load) continue;
    const seen = { kind: 'function', part: load, setup } as const;
    const value = predictedValue('function', predict(bindTest(model, seen), edits)) as Reading['value'];
    if (value === 'dead' || value === 'weak') return { fault, edits, seen, value };
  }
  return null;
}

/** A repair, as its technician wrote it; `blamed` is the part that was taken for it where that was wrong. */
function repair(one: Built, at: number, hidden: Hidden, blames: boolean): { log: Log; title: string } {
  const { model, real, file } = one;
  const log = new Log(at, pick(PEOPLE));
  const celsius = celsiusAt(at);
  const sound = editsAt(one, at, celsius);
  const edits = [...sound, ...hidden.edits];
  const saying = pick(SAYINGS);
  const { fault, seen, value } = hidden;
  log.write(
    { type: 'complaint', body: { words: saying.words, ...(saying.when ? { when: saying.when } : {}) } },
    0,
  );
  log.pin({ ...seen, value } as Reading, {}, 1);
  const plan = isolationPlan(model);
  closePoints(plan, log.write);
  log.write({ type: 'madeSafe', body: { points: plan.map(({ point }) => point) } });
  const diagnoser = diagnoserOf(one);
  const readings = () => reduceJob(log.entries).readings.map(({ reading }) => reading);
  let diagnosis = diagnoser.diagnose(readings(), { most: 1, preferences });
  for (let k = 0; k < MOST_TESTS && diagnosis.verdict.state === 'keepTesting' && diagnosis.next[0]; k++) {
    const { test } = diagnosis.next[0];
    let reading = measure(real, edits, test);
    if (reading.kind === 'volts' && random.next() < SLIP) reading = { ...reading, value: 0 };
    log.pin(reading, {}, 3 + 4 * random.next());
    diagnosis = diagnoser.diagnose(readings(), { most: 1, preferences });
  }
  const { verdict, suspects } = diagnosis;
  const named = verdict.state === 'name' ? verdict.part : null;
  const wrong = suspects.find(({ part }) => part !== fault.ref);
  const part = blames && wrong ? wrong.part : fault.ref;
  const blamedFault = blames && wrong ? wrong.fault : fault.fault;
  const { kind } = model.compiled.parts[model.compiled.partIndex.get(part)!]!.part;
  const replace = kind !== 'wire' && kind !== 'pin';
  log.write(
    {
      type: 'decision',
      body: {
        part,
        fault: blamedFault,
        action: replace ? 'replace' : 'repair',
        why: 'As read.',
        minutes: 20 + Math.round(40 * random.next()),
        cost: replace ? Math.round(20 + 180 * random.next()) : 4,
        ...(named === part ? {} : { against: 'Found by looking at it.' }),
      },
    },
    5,
  );
  if (replace) {
    for (const check of benchChecks(model, part)) {
      const read = soundBench(check);
      const unit = check.quantity === 'ohms' ? 'Ω' : 'V';
      log.write({
        type: 'spareTest',
        body: {
          part,
          measure: measureWords(check.measure),
          bench: check.measure,
          value: read,
          typed: read === 'OL' ? 'OL' : `${read} ${unit}`,
          good: true,
        },
      });
    }
  }
  log.write(
    {
      type: 'fix',
      body: {
        part,
        work: replace ? 'Fitted a new one' : 'Cleaned, crimped anew, sealed',
        spare: replace ? `OR-${4000 + Math.floor(900 * random.next())}` : '',
        serial: '',
        dated: replace ? new Date(log.at).toISOString().slice(0, 10) : '',
        torque: '',
        seals: '',
      },
    },
    15 + 30 * random.next(),
  );
  putAllBack(model, log.entries, log.write);
  for (const { point } of plan)
    log.write({ type: 'reopened', body: { point, reason: 'work done, put back to service' } });
  showProofs({
    model,
    entries: log.entries,
    edits: sound,
    write: log.write,
    pin: log.pin,
    name: `${one.machine} ${one.name} after ${part} ${blamedFault}`,
    read: (_value, test) => measure(real, sound, test).value as number,
    only: (proof) => proof.kind !== 'isolation',
  });
  // Only what rounds go past is looked at again by a day.
  const retest = IN_ROUNDS.includes(file) ? new Date(log.at + 90 * DAY).toISOString().slice(0, 10) : null;
  log.write({ type: 'handOver', body: { note: 'Back in service.', left: [], retest } }, 4);
  return { log, title: `${THINGS[file]} ${value === 'dead' ? 'dead' : 'weak'}` };
}

interface Draught {
  one: Built;
  at: number;
  title: string;
  log: Log;
}

/** Weekday mornings and nights of a shed that works in winter. */
const hourOf = (at: number) => Math.floor(at / DAY) * DAY + (5 + 14 * random.next()) * 60 * MINUTE;
const isWinter = (at: number) => [10, 11, 0, 1, 2, 3].includes(new Date(at).getUTCMonth());

const draughts: Draught[] = [];
for (const one of built) {
  // Rounds of the machines that work hardest; the others are looked at when they fail.
  const wears = WEAR.some(({ machine, function: name }) => machine === one.machine && name === one.name);
  if (!wears && !IN_ROUNDS.includes(one.file)) continue;
  for (let at = START + 60 * DAY * random.next(); at < NOW - 12 * DAY; at += ROUNDS_EVERY_DAYS * DAY) {
    const when = hourOf(at + 12 * DAY * random.next());
    draughts.push({ one, at: when, title: `Re-test: ${one.name}`, log: round(one, when) });
  }
}
process.stdout.write(`${draughts.length} rounds\n`);
const openFunctions = new Set(JOBS.map((job) => `${job.machine}|${job.function}`));
let repairs = 0;
let comebacks = 0;
for (let tries = 0; repairs < FAULT_JOBS && tries < 4000; tries++) {
  const one = pick(built);
  const at = hourOf(START + (NOW - START - 40 * DAY) * random.next());
  if (!isWinter(at) && random.next() < 0.6) continue;
  // What wears is followed to its end in the demonstration, not mended on the way.
  if (WEAR.some(({ machine, function: name }) => machine === one.machine && name === one.name)) continue;
  const own = draughts.filter((other) => other.one === one);
  if (own.some((other) => Math.abs(other.at - at) < 34 * DAY && !other.title.startsWith('Re-test'))) continue;
  const hidden = drawFault(one);
  if (!hidden) continue;
  const comes =
    comebacks < COMEBACKS && !openFunctions.has(`${one.machine}|${one.name}`) && random.next() < 0.1;
  try {
    const made = repair(one, at, hidden, comes);
    if (comes) {
      const again = hourOf(at + (4 + 14 * random.next()) * DAY);
      const second = repair(one, again, hidden, false);
      draughts.push({ one, at: again, title: `${second.title} again`, log: second.log });
      comebacks++;
      repairs++;
    }
    draughts.push({ one, at, title: made.title, log: made.log });
    repairs++;
  } catch (error) {
    // A fault after which the list of proofs cannot be shown as drawn is left to the tests of the engine.
    process.stdout.write(`left out: ${error instanceof Error ? error.message : String(error)}\n`);
  }
}
process.stdout.write(`${repairs} repairs, ${comebacks} came back\n`);

draughts.sort((a, b) => a.at - b.at);
const first = Math.min(...JOBS.map(({ number }) => number)) - draughts.length;
if (first < 1) throw new Error(`${draughts.length} jobs do not fit before the first of the demonstration`);
const jobs = draughts.map(({ one, at, title, log }, k): PastJob => {
  const { digest, past } = makeJobDigest({
    circuit: one.circuit,
    entries: log.entries,
    preferences,
    gaugeUnit: USUAL_POLICY.gaugeUnit,
    experience: NO_EXPERIENCE,
  });
  if (past.type !== likeness(one.circuit)) throw new Error('a job is of another type than its function');
  return {
    number: first + k,
    machine: one.machine,
    function: one.name,
    title,
    person: log.person,
    opened: new Date(at).toISOString(),
    entries: log.entries,
    digest,
    left: past,
  };
});
const file: PastFile = { now: new Date(NOW).toISOString(), jobs };
writeFileSync(PAST_FILE, gzipSync(JSON.stringify(file), { level: 9 }));
process.stdout.write(
  `${jobs.length} jobs, ${jobs.reduce((sum, { entries }) => sum + entries.length, 0)} entries\n`,
);
