import { COPPER_PER_K, REFERENCE_C } from '../src/core/circuit/copper';
import { CircuitModel } from '../src/core/circuit/model';
import type { Edit } from '../src/core/circuit/edits';
import type { Circuit, Reading, Test } from '../src/core/circuit/schema';
import { bindTest, predict, predictedValue } from '../src/core/diagnosis/predict';
import { Diagnoser } from '../src/core/diagnosis/diagnose';
import { windingRead } from '../src/core/diagnosis/windingRead';
import { entrySchema, type Entry } from '../src/core/job/entries';
import { proofList, proofStanding, proves, type Proof } from '../src/core/job/proofList';
import { reduceJob } from '../src/core/job/reduceJob';
import { stillToTakeOut } from '../src/core/job/rules/ledgerStanding';
import { benchChecks, type BenchCheck } from '../src/core/job/rules/spareOnBench';
import { isolationPlan } from '../src/core/safety/isolationPlan';
import { measureWords } from '../src/words/en/bench';
import { valueWords } from '../src/words/en/readings';
import { verdictWhy } from '../src/words/en/verdict';
import { seededRandom } from '../src/core/random';
import { keepTrace } from '../src/core/trace/keptTrace';
import { workedIn } from '../src/core/trace/restOf';
import { jobSheet } from '../src/core/sheets/onCircuit/build';
import { shopMarks } from '../src/core/tables/marks';
import { soundFloat } from './traces';
import { hiddenEdits, readAs, shown, takeReadings, type DemoJob } from './shed';

const MINUTE = 60_000;
const MOST_TESTS = 10;
const MOST_LOOKS = 8;

/** How far a demonstration job has come. */
export type Reached = 'complaint' | 'made-safe' | 'test' | 'decide' | 'fix' | 'prove' | 'handed-over';
const ORDER: readonly Reached[] = ['complaint', 'made-safe', 'test', 'decide', 'fix', 'prove', 'handed-over'];

export type Draft = { type: Entry['type']; body: object; supersedes?: string };

/** A job's log up to a step: its readings come out of the circuit with its hidden fault, its tests out of the engine. */
export function storyEntries(
  circuit: Circuit,
  job: DemoJob,
  opened: number,
  makeId: (at: number) => string,
  /** Content hash of the job's picture, where it was kept. */
  picture?: string,
): Entry[] {
  const entries: Entry[] = [];
  let clock = opened;
  const write = (draft: Draft, minutes = 1) => {
    clock += minutes * MINUTE;
    const id = makeId(clock);
    entries.push(
      entrySchema.parse({ ...draft, id, person: job.person ?? 'Lead', at: new Date(clock).toISOString() }),
    );
    return id;
  };
  const upTo = (step: Reached) => ORDER.indexOf(job.reached ?? 'complaint') >= ORDER.indexOf(step);
  const pin = (reading: Reading, more: object = {}, minutes = 2) =>
    write({ type: 'reading', body: { reading, typed: String(reading.value), ...more } }, minutes);

  write({ type: 'complaint', body: complaintOf(job) }, 0);
  for (const code of job.codes ?? []) write({ type: 'code', body: { ...code, via: 'typed', present: true } });
  for (const reading of takeReadings(circuit, job)) pin(reading, {}, 1);
  const model = new CircuitModel(circuit);
  const plan = isolationPlan(model);
  if (upTo('made-safe')) {
    closePoints(plan, write);
    write({ type: 'madeSafe', body: { points: plan.map(({ point }) => point) } });
  }
  if (job.picture && picture) {
    write({
      type: 'photo',
      body: {
        photo: picture,
        caption: job.picture.caption,
        part: job.picture.part,
        marks: [{ kind: 'ring', at: [0.46, 0.38], to: [0.58, 0.53] }],
      },
    });
  }
  const readings = () => reduceJob(entries).readings.map(({ reading }) => reading);
  if (job.sheet) {
    const random = seededRandom(job.number);
    for (let cell = 0; cell < job.sheet.cells; cell++) {
      const sheet = jobSheet(model, job.sheet.name, readings(), shopMarks({}));
      const asked = sheet?.next && sheet.rows[sheet.next[0]]!.cells[sheet.next[1]];
      if (!asked) break;
      pin(warmed(model, readAs(model, hiddenEdits(circuit, job.hidden), asked.test, random), job.celsius));
    }
  }
  if (!upTo('test') || job.reached === 'test') return entries;

  const diagnoser = new Diagnoser(circuit);
  const edits = hiddenEdits(circuit, job.hidden);
  let diagnosis = diagnoser.diagnose(readings(), { most: 1 });
  for (let k = 0; k < MOST_TESTS && diagnosis.verdict.state === 'keepTesting' && diagnosis.next[0]; k++) {
    const { test } = diagnosis.next[0];
    const value = predictedValue(test.kind, predict(bindTest(model, test), edits));
    pin({ ...test, value: typeof value === 'number' ? shown(value) : value } as Reading, {}, 4);
    diagnosis = diagnoser.diagnose(readings(), { most: 1 });
  }
  const { verdict } = diagnosis;
  if (verdict.state !== 'name')
    throw new Error(`job ${job.number}: the demonstration fault was not named (${verdictWhy(verdict)})`);
  if (!upTo('fix')) return entries;

  const wire = {
    part: verdict.part,
    terminal: '1',
    mark: '12',
    colour: 'blue',
    to: 'loom',
    through: 'unknown',
  };
  write({ type: 'wire', body: { ...wire, phase: 'found' } });
  const replace = job.action === 'replace';
  write(
    {
      type: 'decision',
      body: {
        part: verdict.part,
        fault: verdict.fault,
        action: replace ? 'replace' : 'repair',
        why: job.why ?? 'Two readings of different kinds agree.',
        cleared: verdict.clearFirst.map(({ part }) => `${part} looked at`),
        minutes: 35,
        cost: replace ? 62 : 4,
      },
    },
    6,
  );
  const decision = entries.at(-1)!.id;
  entries.push(
    entrySchema.parse({
      type: 'opinion',
      body: { decision, says: 'approve', note: 'Agreed.' },
      id: makeId((clock += 9 * MINUTE)),
      person: 'Henrike',
      at: new Date(clock).toISOString(),
    }),
  );
  if (!upTo('prove')) return entries;

  if (replace) {
    for (const check of benchChecks(model, verdict.part)) {
      const value = soundBench(check);
      const unit = check.quantity === 'ohms' ? 'Ω' : 'V';
      write({
        type: 'spareTest',
        body: {
          part: verdict.part,
          measure: measureWords(check.measure),
          bench: check.measure,
          value,
          typed: value === 'OL' ? 'OL' : `${value} ${unit}`,
          good: true,
        },
      });
    }
  }
  write(
    {
      type: 'fix',
      body: {
        part: verdict.part,
        work: job.work ?? 'Cleaned, crimped anew, sealed',
        spare: replace ? 'OR-4471' : '',
        serial: '',
        dated: replace ? new Date(clock).toISOString().slice(0, 10) : '',
        torque: '',
        seals: 'new seal, greased',
      },
    },
    25,
  );
  write({ type: 'wire', body: { ...wire, phase: 'left' } });
  if (!upTo('handed-over')) return entries;

  putAllBack(model, entries, write);
  for (const { point } of plan)
    write({ type: 'reopened', body: { point, reason: 'work done, put back to service' } });
  for (const { entry } of reduceJob(entries).codes)
    write({ type: 'code', body: { ...entry.body, present: false } });
  showProofs({ model, entries, edits: [], write, pin, name: `job ${job.number}` });
  if (job.watched) {
    write({
      type: 'trace',
      body: {
        part: job.watched,
        kind: 'dip',
        on: workedIn(model, job.watched)!.setup,
        amps: keepTrace(soundFloat(circuit, job.number)),
        source: 'Shed recorder 1',
        named: null,
        phase: 'fixed',
      },
    });
  }
  const retest = new Date(clock + 90 * 24 * 60 * MINUTE).toISOString().slice(0, 10);
  write(
    { type: 'handOver', body: { note: job.note ?? 'Back in service.', left: job.left ?? [], retest } },
    5,
  );
  return entries;
}

/** Who looks as well at what is back on: the first, or the second where it was the first who put it there. */
const SECOND = ['Ilse', 'Rasmus'] as const;

type Write = (draft: Draft, minutes?: number) => string;

/** Every point of the plan closed, locked and proved dead. */
export function closePoints(plan: ReturnType<typeof isolationPlan>, write: Write): void {
  plan.forEach(({ point, energy, prove }, at) => {
    const lock = String(11 + at);
    write({
      type: 'isolation',
      body: {
        point,
        energy,
        how: 'Off, locked and tagged',
        lock,
        tag: lock,
        released: 'Nothing left stored',
        ...(prove.length > 0
          ? {
              proved: {
                meter: 'Shed meter 3',
                knownBefore: { value: 12.7, unit: 'V', typed: '12.7' },
                work: prove.map(({ from, to }) => ({
                  from,
                  to,
                  measured: { value: 0, unit: 'V', typed: '0.0' },
                })),
                knownAfter: { value: 12.7, unit: 'V', typed: '12.7' },
              },
            }
          : { tried: 'Tried, does not move' }),
      },
    });
  });
}

/** What the tests put in or took off is out or back on again, and seen by somebody else where no reading shows it. */
export function putAllBack(model: CircuitModel, entries: readonly Entry[], write: Write): void {
  for (const { line } of stillToTakeOut(model, reduceJob(entries))) {
    const { item } = line.entry.body;
    if (!line.out) write({ type: 'ledgerOut', body: { item } });
    const second = entries[0]!.person === SECOND[0] ? SECOND[1] : SECOND[0];
    write({ type: 'ledgerSeen', body: { item, second } });
  }
}

/** Shows what is left to be shown, on the machine as it is with `edits`. Throws where it does not hold and is not left. */
export function showProofs({
  model,
  entries,
  edits,
  write,
  pin,
  name,
  read = (value) => shown(value),
  only = () => true,
  leaves = null,
}: {
  model: CircuitModel;
  entries: readonly Entry[];
  edits: readonly Edit[];
  write: Write;
  pin: (reading: Reading, more?: object, minutes?: number) => string;
  name: string;
  /** A figure as the meter shows it. */
  read?: (value: number, test: Test) => number;
  /** Which of the proofs; all of them where nothing is said. */
  only?: (proof: Proof) => boolean;
  /** Why one that does not hold is left; null where it has to. */
  leaves?: string | null;
}): void {
  for (const proof of proofList(model, reduceJob(entries)).filter(only)) {
    if (proofStanding(proof, reduceJob(entries)).state === 'done') continue;
    if (proof.kind === 'tight') {
      write({ type: 'proof', body: { proof: proof.id, done: true, found: 'tight' } });
      continue;
    }
    if (!('test' in proof)) throw new Error(`${name}: ${proof.id} is left open`);
    const value = predictedValue(proof.test.kind, predict(bindTest(model, proof.test), edits));
    const look = () => (typeof value === 'number' ? read(value, proof.test) : value) as Reading['value'];
    let seen = look();
    // A clamp that shows two digits of a small current is held steadier.
    for (let again = 0; again < MOST_LOOKS && !proves(proof, seen); again++) seen = look();
    const holds = proves(proof, seen);
    if (!holds && leaves === null) throw new Error(`${name}: ${proof.id} reads ${String(seen)}`);
    pin({ ...proof.test, value: seen } as Reading, { phase: 'fixed', check: proof.id }, 1);
    write({
      type: 'proof',
      body: {
        proof: proof.id,
        done: holds,
        found:
          proof.kind === 'interlock' || proof.kind === 'withoutPressure'
            ? 'stops'
            : valueWords(proof.test.kind, seen, 'bar'),
        ...(!holds && leaves !== null ? { reason: leaves } : {}),
      },
    });
  }
}

/** A winding's ohms as they are at its temperature, which goes with them. */
export function warmed(model: CircuitModel, reading: Reading, celsius: number | undefined): Reading {
  if (celsius === undefined || reading.kind !== 'ohms' || typeof reading.value !== 'number') return reading;
  if (!windingRead(model, reading)) return reading;
  return { ...reading, value: shown(reading.value * (1 + COPPER_PER_K * (celsius - REFERENCE_C))), celsius };
}

/** What a sound spare shows on the bench. */
export function soundBench({ about, least, most }: BenchCheck): number | 'OL' {
  if (about) return Number(about.value.toPrecision(3));
  if (most === Infinity) return 'OL';
  return least === -Infinity ? 0.1 : Number(((least + most) / 4).toPrecision(2));
}

function complaintOf({ words, when, weather }: DemoJob): object {
  return { words, ...(when ? { when } : {}), ...(weather ? { weather } : {}) };
}
