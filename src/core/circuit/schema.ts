import { z } from 'zod';

/**
 * Circuit, set-up, reading and case: the open formats. These schemas are the source; `docs/formats.md`
 * describes them for people.
 */

const name = z.string().min(1);
const positive = z.number().positive();
const notNegative = z.number().nonnegative();

/** Control positions in which a contact or output is on: every named control must match. */
const when = z.record(name, z.union([z.array(name), name.transform((one) => [one])]));

const common = {
  ref: name,
  /** What a person calls it: "Tilt right coil". */
  label: z.string().optional(),
  /** Where it sits on the machine. */
  place: z.string().optional(),
  /** Minutes to get at it with a probe. */
  accessMinutes: notNegative.optional(),
  /** Relative likelihood of failing against others of its kind; 1 is usual. */
  wear: positive.optional(),
};

function part<K extends string, N extends z.ZodType, S extends z.ZodRawShape>(kind: K, nodes: N, shape: S) {
  return z.object({ ...common, kind: z.literal(kind), nodes, ...shape });
}

const two = z.object({ '1': name, '2': name });
const load = { ohms: positive, tolerance: z.number().min(0).max(0.9).optional() };

export const partSchema = z.discriminatedUnion('kind', [
  part('source', z.object({ '+': name, '-': name }), {
    volts: z.number(),
    internalOhms: notNegative.optional(),
    hz: notNegative.optional(),
  }),
  part('transformer', z.object({ p1: name, p2: name, s1: name, s2: name }), {
    /** Primary volts over secondary volts. */
    ratio: positive,
    internalOhms: notNegative.optional(),
    va: positive.optional(),
  }),
  part('fuse', two, { amps: positive, ohms: notNegative.optional() }),
  part('breaker', two, { amps: positive, ohms: notNegative.optional() }),
  part('wire', two, {
    ohms: notNegative.optional(),
    lengthMetres: positive.optional(),
    mm2: positive.optional(),
    awg: z.union([z.number(), z.string()]).optional(),
    bundle: z.string().optional(),
    colour: z.string().optional(),
    mark: z.string().optional(),
  }),
  part('pin', two, { connector: name, ohms: notNegative.optional() }),
  part('switch', two, { closedWhen: when, ohms: notNegative.optional() }),
  part('relay', z.record(name, name), {
    ohms: positive,
    pickUpVolts: positive.optional(),
    dropOutVolts: positive.optional(),
    tolerance: z.number().min(0).max(0.9).optional(),
    contactOhms: notNegative.optional(),
  }),
  part('coil', two, {
    ...load,
    henries: positive.optional(),
    pullInAmps: positive.optional(),
    holdAmps: positive.optional(),
  }),
  part('diode', z.object({ anode: name, cathode: name }), { forwardVolts: positive.optional() }),
  part('resistor', two, load),
  part('lamp', two, load),
  part('heater', two, load),
  part('motor', two, load),
  part('sensor3', z.object({ supply: name, signal: name, return: name }), {
    ohms: positive,
    /** Control whose positions, first to last, carry the wiper from return to supply. */
    control: name.optional(),
    tolerance: z.number().min(0).max(0.9).optional(),
  }),
  part('driver', z.object({ supply: name, out: name, return: name }), {
    onWhen: when,
    side: z.enum(['high', 'low']).optional(),
    limitAmps: positive.optional(),
    codes: z
      .record(name, z.object({ belowAmps: z.number().optional(), aboveAmps: z.number().optional() }))
      .optional(),
    ohms: notNegative.optional(),
  }),
  part('timer', two, { closedWhen: when, seconds: positive, ohms: notNegative.optional() }),
]);

export const circuitSchema = z.object({
  format: z.literal('spiraxis-circuit'),
  version: z.literal(1),
  name: z.string(),
  frame: name,
  controls: z.record(name, z.array(name).min(1)).default({}),
  parts: z.array(partSchema).min(1).max(400),
  /** Standing conditions that shift which faults are likely. */
  environment: z
    .object({ wet: z.boolean(), hot: z.boolean(), vibration: z.boolean(), worked: z.boolean() })
    .partial()
    .optional(),
});

export const setupSchema = z
  .object({
    controls: z.record(name, name),
    isolated: z.array(name),
    pulled: z.array(name),
    unplugged: z.array(name),
    removed: z.array(name),
    lifted: z.array(z.object({ part: name, node: name })),
    jumpers: z.array(z.tuple([name, name])),
    energised: z.array(name),
    afterSeconds: notNegative,
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

function readingKinds(valued: boolean) {
  const value = <V extends z.ZodType>(schema: V) => (valued ? { value: schema } : {}) as { value: V };
  const numberOrOver = z.union([z.number(), z.literal('OL')]);
  return z.discriminatedUnion('kind', [
    z.object({ kind: z.literal('volts'), ...pair, ...readingCommon, ...value(z.number()) }),
    z.object({ kind: z.literal('ohms'), ...pair, ...readingCommon, ...value(numberOrOver) }),
    z.object({ kind: z.literal('diode'), ...pair, ...readingCommon, ...value(numberOrOver) }),
    z.object({ kind: z.literal('amps'), through: name, ...readingCommon, ...value(z.number()) }),
    z.object({
      kind: z.literal('insulation'),
      ...pair,
      testVolts: positive,
      ...readingCommon,
      ...value(numberOrOver),
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
    z.object({ kind: z.literal('code'), part: name, ...readingCommon, ...value(z.array(z.number().int())) }),
  ]);
}

export const readingSchema = readingKinds(true);
type ReadingWithValue = z.infer<typeof readingSchema>;
/** The same schema without the value; typed by hand since the value's presence is a run-time choice above. */
export const testSchema = readingKinds(false) as unknown as z.ZodType<Test>;

export type Circuit = z.infer<typeof circuitSchema>;
export type Part = z.infer<typeof partSchema>;
export type PartOf<K extends Part['kind']> = Extract<Part, { kind: K }>;
export type Setup = z.infer<typeof setupSchema>;
export type Reading = ReadingWithValue;
export type ReadingKind = Reading['kind'];
export type ReadingValue = Reading['value'];
type WithoutValue<T> = T extends { value: unknown } ? Omit<T, 'value'> : T;
/** A reading that has not been taken yet. */
export type Test = WithoutValue<Reading>;

export const preferencesSchema = z
  .object({
    order: z.enum(['best', 'loadedVoltsFirst', 'resistanceFirst']),
    noLiveWork: z.boolean(),
    noJumpers: z.boolean(),
  })
  .partial();
export type Preferences = z.infer<typeof preferencesSchema>;

export const caseSchema = z.object({
  format: z.literal('spiraxis-case'),
  version: z.literal(1),
  circuit: circuitSchema,
  readings: z.array(readingSchema).max(500).default([]),
  tests: z.array(testSchema).max(2000).optional(),
  preferences: preferencesSchema.optional(),
});
export type Case = z.infer<typeof caseSchema>;
