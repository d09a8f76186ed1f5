import { COIL_CONDITIONS, TRACE_KINDS } from '../trace/conditions';
import { keptTrace } from '../trace/keptTrace';
import { z } from 'zod';
import { ENERGIES } from '../circuit/energies';
import { BENCH_MEASURES } from './benchMeasures';
import { WEATHERS } from './weather';
import { WHEN } from './when';
import { readingSchema, setupSchema, testSchema } from '../circuit/schema';

/** Entries of a job's log. They are only ever added; a correction names the entry it supersedes. */
const head = {
  /** UUIDv7 made by whoever wrote the entry, so that saving twice is harmless. */
  id: z.uuid(),
  person: z.string().min(1).max(60),
  /** ISO time, UTC, of the writer's clock. */
  at: z.iso.datetime(),
  supersedes: z.uuid().optional(),
  /**
   * What its writer had seen: the last entry that the server had numbered, and the writer's own that were still waiting.
   * Not kept; the server holds what needs the newest state against it.
   */
  against: z.object({ number: z.number().int().min(0), own: z.array(z.uuid()).max(2000) }).optional(),
  /** What the server gave for a second person who signed beside its writer with a PIN. Not kept; the name stands in the body. */
  witness: z.uuid().optional(),
};

const entry = <T extends string, B extends z.ZodRawShape>(type: T, body: B) =>
  z.object({ ...head, type: z.literal(type), body: z.object(body) });

const words = (most = 500) => z.string().trim().max(most);
const name = words(120).min(1);
const personOf = words(60).min(1);

/** What a meter showed, in SI, and as it was typed. */
const measured = z.object({ value: z.number(), unit: z.enum(['V', 'Pa']), typed: words(40) });
export type Measured = z.infer<typeof measured>;

/** Live, dead, live: the meter on a known source, on every place of the work, on the source again. */
const provedDead = z.object({
  /** The meter it was done with; empty where nobody said. */
  meter: words(60).default(''),
  knownBefore: measured,
  work: z.array(z.object({ from: name, to: words(120), measured })).min(1),
  knownAfter: measured,
});
export type ProvedDead = z.infer<typeof provedDead>;

const anyEntry = z.discriminatedUnion('type', [
  entry('complaint', {
    words: z.string().min(1).max(2000),
    when: z.array(z.enum(WHEN)).optional(),
    /** The weather it failed in, where somebody said. */
    weather: z.enum(WEATHERS).optional(),
  }),
  entry('code', {
    system: z.string().max(10),
    component: z.union([z.number().int().min(0), z.string().max(20)]),
    failureMode: z.union([z.number().int().min(0), z.string().max(10)]).optional(),
    text: words(300),
    via: z.enum(['typed', 'log', 'bus']),
    sourceAddress: z.number().int().optional(),
    /** Driver of the circuit that it was linked to. */
    part: z.string().max(60).optional(),
    /** False: it was looked for and is gone. */
    present: z.boolean(),
  }),
  entry('reading', {
    reading: readingSchema,
    /** What the technician wrote, kept beside what it was taken to mean. */
    typed: z.string().max(60),
    /** Taken after the fix: it proves the repair and says nothing about the fault. */
    phase: z.literal('fixed').optional(),
    /** The check it answers, where it came from a list. */
    check: words(120).optional(),
    /** What the instrument calls itself that the value came from by wire. */
    instrument: words(120).optional(),
  }),
  /** A current watched while it was switched on, and what it was taken for. What of it is a reading stands as one beside it. */
  entry('trace', {
    part: name,
    kind: z.enum(TRACE_KINDS),
    on: setupSchema,
    amps: keptTrace,
    /** The file or the instrument that it came from. */
    source: words(120),
    named: z.enum(COIL_CONDITIONS).nullable(),
    /** Taken after the fix: it is what the sound machine shows. */
    phase: z.literal('fixed').optional(),
  }),
  /** Nothing is said to be wrong: the machine is looked at again, and these places are read as they were read before. */
  entry('retest', { tests: z.array(testSchema).max(60) }),
  /** Another function of the machine is asked about as well: what it shares with this one counts for both. */
  entry('joined', { function: name }),
  /** The job goes on with a later version of its drawing. */
  entry('redrawn', { version: z.number().int().min(1) }),
  entry('noReach', { node: z.string().min(1) }),
  entry('skippedTest', { test: testSchema }),
  /** A point of the isolation plan closed, locked, released and proved. */
  entry('isolation', {
    point: name,
    energy: z.enum(ENERGIES),
    how: words(),
    lock: words(40),
    tag: words(40),
    released: words(),
    proved: provedDead.optional(),
    /** How it was proved where no meter can: gauge at zero, load resting, tried. */
    tried: words().optional(),
    /** What a gauge at the point showed, where there is one. */
    gauge: measured.optional(),
  }),
  /** A point of the plan opened again, by name and with a reason. */
  entry('reopened', {
    point: name,
    reason: words().min(1),
    setup: setupSchema.optional(),
    /** Whose lock came off, where it was not the writer's own. */
    owner: personOf.optional(),
    /** Who stood by as somebody else's lock was taken off. */
    second: personOf.optional(),
  }),
  /** The plan signed: every energy named, isolated and proved. */
  entry('madeSafe', {
    points: z.array(name).max(60),
    /** Who looked at it beside a learner. */
    second: personOf.optional(),
  }),
  entry('photo', {
    /** Content hash of the stored picture. */
    photo: z.string().regex(/^[0-9a-f]{64}$/),
    caption: words(200),
    part: z.string().max(60).optional(),
    marks: z
      .array(
        z.object({
          kind: z.enum(['arrow', 'ring', 'text']),
          /** Places as shares of width and height. */
          at: z.tuple([z.number().min(0).max(1), z.number().min(0).max(1)]),
          to: z.tuple([z.number().min(0).max(1), z.number().min(0).max(1)]).optional(),
          text: words(60).optional(),
        }),
      )
      .max(40)
      .default([]),
  }),
  /** A wire as it sits on its terminal, before it comes off or after it went back. */
  entry('wire', {
    part: name,
    terminal: words(40).min(1),
    mark: words(40),
    colour: words(40),
    to: words(80),
    through: z.enum(['switched', 'straight', 'unknown']),
    phase: z.enum(['found', 'left']),
  }),
  /** A look that no meter takes. */
  entry('looked', {
    check: name,
    finding: z.enum(['good', 'bad', 'notSeen']),
    words: words().optional(),
  }),
  /** Something put in that must come out: a jumper, an override, a plug, a lifted wire. */
  entry('ledger', {
    item: name,
    kind: z.enum(['jumper', 'override', 'plug', 'lifted', 'other']),
    minutes: z.number().int().min(1).max(480).optional(),
    /** Part that it leads past, where the machine works without it and should not. */
    bypasses: name.optional(),
    /** What it does to the circuit, where the drawing can say: the bridge between two nodes, the end that is off. */
    puts: setupSchema.optional(),
    /** It was found in the machine; nobody of this job put it in. */
    found: z.literal(true).optional(),
  }),
  /** Somebody took it out. It counts as gone once a reading shows it, or a second person has seen it. */
  entry('ledgerOut', { item: name }),
  /** A second person saw that it is out. */
  entry('ledgerSeen', { item: name, second: personOf }),
  entry('decision', {
    part: z.string().max(60),
    fault: words(60),
    action: z.enum(['repair', 'replace', 'nothing']),
    why: words(1000),
    cleared: z.array(words(200)).max(20).default([]),
    minutes: z.number().min(0).max(100_000).nullable().default(null),
    cost: z.number().min(0).max(10_000_000).nullable().default(null),
    /** Taken before the program would name the part: why. */
    against: words(500).optional(),
    /** A learner's: it waits for a second pair of eyes. */
    learner: z.literal(true).optional(),
  }),
  entry('opinion', { decision: z.uuid(), says: z.enum(['approve', 'sendBack']), note: words(1000) }),
  entry('fix', {
    part: z.string().max(60),
    work: words(1000).min(1),
    spare: words(120),
    serial: words(60),
    dated: words(40),
    torque: words(120),
    seals: words(200),
    ratings: z.record(words(40), words(60)).default({}),
    /** Why the spare was fitted without its reading on the bench. */
    untested: words(500).min(1).optional(),
  }),
  /** A spare on the bench, before it is fitted. */
  entry('spareTest', {
    part: z.string().max(60),
    measure: words(80),
    typed: words(40),
    good: z.boolean(),
    /** Which reading of it, and its value in SI; what counts before it is fitted. Entries of old have neither. */
    bench: z.enum(BENCH_MEASURES).optional(),
    value: z.union([z.number(), z.literal('OL')]).optional(),
  }),
  /** One line of the proof list done, or left with a reason. */
  entry('proof', { proof: name, done: z.boolean(), found: words(200), reason: words(500).optional() }),
  entry('handOver', {
    note: words(2000),
    left: z.array(words(300)).max(40).default([]),
    retest: z.iso.date().nullable().default(null),
  }),
  /** Takes back the entry it supersedes; that one stays in the record, struck through. */
  z.object({ ...head, type: z.literal('withdrawal'), supersedes: z.uuid(), body: z.object({}) }),
]);

/** Half a character (a lone surrogate) is no text: no database keeps it, and nobody meant it. */
export const entrySchema = anyEntry.superRefine((entry, context) => {
  const at = halfCharacter(entry);
  if (at) context.addIssue({ code: 'custom', path: at, message: 'holds half a character; type it again' });
});

function halfCharacter(value: unknown): (string | number)[] | null {
  if (typeof value === 'string') return value.isWellFormed() ? null : [];
  if (typeof value !== 'object' || value === null) return null;
  for (const [key, inner] of Object.entries(value)) {
    const at = key.isWellFormed() ? halfCharacter(inner) : [];
    if (at) return [key, ...at];
  }
  return null;
}

export type Entry = z.infer<typeof anyEntry>;
export type EntryOf<T extends Entry['type']> = Extract<Entry, { type: T }>;
