import { CELSIUS_LEAST, CELSIUS_MOST } from '../units/parseCelsius';
import { z } from 'zod';
import { CIRCUMSTANCES, LOOKED_AT } from './circumstances';
import { COIL_CONDITIONS } from '../trace/conditions';
import { ENERGIES, SUPPLY_ENERGIES } from './energies';
import { name, notNegative, partSchema, positive, type Part, type PartOf } from './partSchema';

/**
 * Circuit, set-up, reading and case: the open formats. These schemas are the source; `docs/formats.md`
 * describes them for people.
 */

export const circuitSchema = z.object({
  format: z.literal('spiraxis-circuit'),
  version: z.literal(1),
  name: z.string(),
  frame: name,
  controls: z.record(name, z.array(name).min(1)).default({}),
  parts: z.array(partSchema).min(1).max(400),
  /** Energies at the work that no part of the circuit shows: a raised load, a charged capacitor, a hot pipe. */
  energies: z
    .array(
      z.object({
        energy: z.enum(ENERGIES),
        name,
        /** How it is isolated and released on this machine. */
        how: z.string().max(500).optional(),
      }),
    )
    .max(40)
    .optional(),
  /** Standing conditions that shift which faults are likely. */
  environment: z
    .object({ wet: z.boolean(), hot: z.boolean(), vibration: z.boolean(), worked: z.boolean() })
    .partial()
    .optional(),
});

/** Strict: a misspelt key would otherwise change what a reading means without a word. */
export const setupSchema = z
  .strictObject({
    controls: z.record(name, name),
    isolated: z.array(name),
    pulled: z.array(name),
    unplugged: z.array(name),
    removed: z.array(name),
    lifted: z.array(z.object({ part: name, node: name })),
    jumpers: z.array(z.tuple([name, name])),
    energised: z.array(name),
    afterSeconds: notNegative,
    /** Valves pushed over by hand: "Q1", or "Q1:12" for the other way. */
    override: z.array(name),
    /** Fluid nodes stopped with a plug or a finger: the line's end where one is lifted there, else the exhaust. */
    plugged: z.array(name),
    /** Fluid nodes opened to the atmosphere. */
    open: z.array(name),
    /** Coils whose load is blocked or lowered, so that it stays when they let go. */
    secured: z.array(name),
    /** Two alike parts in each other's place. A reading's `part` names the place. */
    swapped: z.array(z.tuple([name, name])),
  })
  .partial();

const meterSchema = z
  .object({
    accuracyPercent: notNegative,
    counts: notNegative,
    leadOhms: notNegative,
    loadOhms: positive,
  })
  .partial();

const readingCommon = {
  setup: setupSchema.default({}),
  meter: meterSchema.optional(),
  unsteady: z.boolean().optional(),
};
const pair = { from: name, to: name };
const stoodSeconds = notNegative.max(100_000).optional();
const readCelsius = z.number().min(CELSIUS_LEAST).max(CELSIUS_MOST).optional();

/** Which way the pressure went as a pressure switch changed over. */
export const EDGES = ['rising', 'falling'] as const;
export type Edge = (typeof EDGES)[number];

/** What an actuator was seen to do; `little` is a start that stops, `still` that it stays where it rests. */
export const MOTIONS = ['extends', 'retracts', 'little', 'still'] as const;
export type MotionSeen = (typeof MOTIONS)[number];

/** What somebody saw of a gauge on the machine itself, by its scale: nobody reads a figure in passing. */
export const GAUGE_STANDS = ['zero', 'underHalf', 'half', 'overHalf', 'full'] as const;
export type GaugeStand = (typeof GAUGE_STANDS)[number];

function readingKinds(valued: boolean) {
  const value = <V extends z.ZodType>(schema: V) => (valued ? { value: schema } : {}) as { value: V };
  const numberOrOver = z.union([z.number(), z.literal('OL')]);
  return z.discriminatedUnion('kind', [
    z.object({ kind: z.literal('volts'), ...pair, ...readingCommon, ...value(z.number()) }),
    z.object({
      kind: z.literal('ohms'),
      ...pair,
      ...readingCommon,
      ...value(numberOrOver),
      /** How warm the winding was, where that was taken. */
      ...((valued ? { celsius: readCelsius } : {}) as { celsius: typeof readCelsius }),
    }),
    z.object({ kind: z.literal('diode'), ...pair, ...readingCommon, ...value(numberOrOver) }),
    z.object({ kind: z.literal('amps'), through: name, ...readingCommon, ...value(z.number()) }),
    z.object({
      kind: z.literal('insulation'),
      ...pair,
      testVolts: positive,
      ...readingCommon,
      ...value(numberOrOver),
      /** How long the volts had stood on, where it was timed. */
      ...((valued ? { seconds: stoodSeconds } : {}) as { seconds: typeof stoodSeconds }),
      /** How warm it was, where that was taken. */
      ...((valued ? { celsius: readCelsius } : {}) as { celsius: typeof readCelsius }),
    }),
    z.object({
      kind: z.literal('fuse'),
      part: name,
      ...readingCommon,
      ...value(z.enum(['holds', 'blows'])),
    }),
    z.object({ kind: z.literal('click'), part: name, ...readingCommon, ...value(z.boolean()) }),
    z.object({
      kind: z.literal('function'),
      part: name,
      ...readingCommon,
      ...value(z.enum(['works', 'weak', 'dead'])),
    }),
    z.object({
      kind: z.literal('trace'),
      part: name,
      ...readingCommon,
      /** What a coil's whole current was named as: see `trace/conditions.ts`. */
      ...value(z.enum(COIL_CONDITIONS)),
    }),
    z.object({ kind: z.literal('hertz'), ...pair, ...readingCommon, ...value(z.number()) }),
    z.object({ kind: z.literal('pressure'), at: name, ...readingCommon, ...value(z.number()) }),
    z.object({
      kind: z.literal('flow'),
      at: name,
      ...readingCommon,
      ...value(z.enum(['none', 'bubbles', 'weak', 'full'])),
    }),
    z.object({
      kind: z.literal('hold'),
      at: name,
      ...readingCommon,
      ...value(z.enum(['holds', 'falls'])),
    }),
    z.object({
      kind: z.literal('changes'),
      part: name,
      edge: z.enum(EDGES),
      ...readingCommon,
      // Over the pump's range where it does not change at all.
      ...value(numberOrOver),
    }),
    z.object({
      kind: z.literal('moves'),
      part: name,
      ...readingCommon,
      ...value(z.enum(MOTIONS)),
    }),
    z.object({
      kind: z.literal('gauge'),
      part: name,
      ...readingCommon,
      ...value(z.enum(GAUGE_STANDS)),
    }),
    z.object({
      kind: z.literal('bit'),
      part: name,
      which: z.enum(['command', 'feedback']),
      ...readingCommon,
      ...value(z.enum(['0', '1'])),
    }),
    z.object({ kind: z.literal('code'), part: name, ...readingCommon, ...value(z.array(z.number().int())) }),
  ]);
}

export const readingSchema = readingKinds(true);
type ReadingWithValue = z.infer<typeof readingSchema>;
/** The same schema without the value; typed by hand since the value's presence is a run-time choice above. */
export const testSchema = readingKinds(false) as unknown as z.ZodType<Test>;

export type Circuit = z.infer<typeof circuitSchema>;
export type { Part, PartOf };
export type Setup = z.infer<typeof setupSchema>;
export type Reading = ReadingWithValue;
export type ReadingKind = Reading['kind'];
export type ReadingValue = Reading['value'];
type WithoutValue<T> = T extends { value: unknown } ? Omit<T, 'value' | 'celsius' | 'seconds'> : T;
/** A reading that has not been taken yet. */
export type Test = WithoutValue<Reading>;

export const preferencesSchema = z
  .object({
    order: z.enum(['best', 'loadedVoltsFirst', 'resistanceFirst', 'mechanicalFirst', 'electricalFirst']),
    noLiveWork: z.boolean(),
    /** Site policy. Bridging a contact is offered only where this is given as false, and never across a safety switch. */
    noJumpers: z.boolean(),
    /** Minutes that it takes here to lock, tag and prove a supply, by what it is; the usual ones stand for the rest. */
    lockMinutes: z.partialRecord(z.enum(SUPPLY_ENERGIES), positive.max(240)),
  })
  .partial();
export type Preferences = z.infer<typeof preferencesSchema>;

const signsSchema = z.object({
  when: z.array(z.enum(CIRCUMSTANCES)).default([]),
  looks: z
    .array(
      z.object({
        at: z.enum(LOOKED_AT),
        subject: name.nullable(),
        good: z.boolean(),
      }),
    )
    .max(200)
    .default([]),
});

export const caseSchema = z.object({
  format: z.literal('spiraxis-case'),
  version: z.literal(1),
  circuit: circuitSchema,
  readings: z.array(readingSchema).max(500).default([]),
  tests: z.array(testSchema).max(2000).optional(),
  preferences: preferencesSchema.optional(),
  /** What was said and seen without a meter. */
  signs: signsSchema.optional(),
});
export type Case = z.infer<typeof caseSchema>;
