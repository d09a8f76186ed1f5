import { z } from 'zod';

/** Every kind of part a circuit file may hold: its nodes and its figures. */

export const name = z.string().min(1);
export const positive = z.number().positive();
export const notNegative = z.number().nonnegative();
const share = z.number().min(0).max(0.9);

/** What a contact may protect. */
export const GUARDS = ['person', 'limit', 'load', 'none'] as const;
export type Guard = (typeof GUARDS)[number];
/** Whom or what this contact protects. Unanswered counts as a guard: no test bridges it. */
const guards = { guards: z.enum(GUARDS).optional() };

/** Figures that only a part's label tells. */
export const LABEL_FIGURES = [
  'volts',
  'ratio',
  'va',
  'amps',
  'limitAmps',
  'ohms',
  'pullInAmps',
  'holdAmps',
  'fromAmps',
  'fullAmps',
  'seconds',
  'kPa',
  'pullKPa',
  'makeKPa',
  'breakKPa',
] as const;
export type LabelFigure = (typeof LABEL_FIGURES)[number];

/** Control positions in which a contact or output is on: every named control must match. */
const when = z.record(name, z.union([z.array(name), name.transform((one) => [one])]));

const common = {
  ref: name,
  /** What a person calls it: "Tilt right coil". */
  label: z.string().optional(),
  /** Where it sits on the machine. */
  place: z.string().optional(),
  /** Drawing it stands on, and the grid square there. */
  sheet: z.string().max(60).optional(),
  square: z.string().max(20).optional(),
  /** Minutes to get at it with a probe. */
  accessMinutes: notNegative.optional(),
  /** Relative likelihood of failing against others of its kind; 1 is usual. */
  wear: positive.optional(),
  /** It is electronic, or it is not: electronics must not see a test voltage. Drivers, sensors and timers are by kind. */
  electronic: z.boolean().optional(),
  /** Figures that nobody has said: the kind's usual ones stand in their place, and nothing is held against those. */
  assumed: z.array(z.enum(LABEL_FIGURES)).max(12).meta({ id: 'assumed' }).optional(),
  /** What happens to the machine when it is bypassed: it works without it, and that is what is wrong. */
  bypassDanger: z.string().max(300).optional(),
};

function part<K extends string, N extends z.ZodType, S extends z.ZodRawShape>(kind: K, nodes: N, shape: S) {
  return z.object({ ...common, kind: z.literal(kind), nodes, ...shape });
}

const two = z.object({ '1': name, '2': name });
const load = { ohms: positive, tolerance: share.optional() };
/** A load that a meter reads less of than it has at work: a filament cold, a rotor standing. */
const restingLoad = { ...load, restOhms: positive.optional() };
/** What limits a coil's current on alternating volts; with its ohms alone that is not known. */
const winding = {
  henries: positive.optional(),
  /** Of the label: apparent power, and currents with the armature closed and open. */
  va: positive.optional(),
  sealedAmps: positive.optional(),
  inrushAmps: positive.optional(),
};
/** Pressure lost per flow, kPa per L/min of free air (or of oil). */
const restriction = { restriction: positive.optional() };
const gauge = z.number().min(-101).max(100_000);

/** How this energy is cut off and kept off on the machine. */
const cutOff = { how: z.string().max(200).optional() };

/** A gauge of the machine's own that follows what this does: what it shows of its scale while this rests, and while it works. */
const watched = {
  ownGauge: z
    .object({
      name: z.string().min(1).max(60),
      atRest: z.number().min(0).max(1),
      works: z.number().min(0).max(1),
    })
    .refine(({ atRest, works }) => atRest !== works, {
      path: ['works'],
      error: 'a gauge that shows the same at rest and at work tells nothing: give two shares that differ',
    })
    .optional(),
};

const electrical = [
  part('source', z.object({ '+': name, '-': name }), {
    volts: z.number(),
    internalOhms: notNegative.optional(),
    hz: notNegative.optional(),
    /** What it is, where volts and frequency do not tell: a control supply on direct current beside the battery. */
    supplies: z.enum(['line', 'control', 'battery']).optional(),
    ...cutOff,
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
  part('switch', two, {
    closedWhen: when,
    ohms: notNegative.optional(),
    ...guards,
    /** Older files only: false says that it guards nothing, true leaves open whom. */
    safety: z.boolean().optional(),
  }),
  part('relay', z.record(name, name), {
    ohms: positive,
    ...winding,
    pickUpVolts: positive.optional(),
    dropOutVolts: positive.optional(),
    tolerance: share.optional(),
    contactOhms: notNegative.optional(),
    ...guards,
  }),
  part('coil', two, {
    /** At 20 °C; not there where nobody knows it. */
    ohms: positive.optional(),
    tolerance: share.optional(),
    ...winding,
    pullInAmps: positive.optional(),
    holdAmps: positive.optional(),
    /** A load comes down or lets go when this coil loses its current. */
    holdsLoad: z.boolean().optional(),
    /** A load comes down or lets go when this coil is fed: a brake or lock that a spring applies. */
    freesLoad: z.boolean().optional(),
  }),
  part('diode', z.object({ anode: name, cathode: name }), { forwardVolts: positive.optional() }),
  part('resistor', two, load),
  part('lamp', two, restingLoad),
  part('heater', two, load),
  part('motor', two, { ...restingLoad, ...watched }),
  part('sensor3', z.object({ supply: name, signal: name, return: name }), {
    ohms: positive,
    /** Control whose positions, first to last, carry the wiper from return to supply. */
    control: name.optional(),
    tolerance: share.optional(),
    ...guards,
  }),
  part('driver', z.object({ supply: name, out: name, return: name }), {
    onWhen: when,
    side: z.enum(['high', 'low']).optional(),
    limitAmps: positive.optional(),
    codes: z
      .record(name, z.object({ belowAmps: z.number().optional(), aboveAmps: z.number().optional() }))
      .optional(),
    ohms: notNegative.optional(),
    /** What the controller's page calls the bit that its program sets, and the one that its card reads back. */
    bits: z.object({ command: name, feedback: name }).partial().optional(),
  }),
  part('timer', two, { closedWhen: when, seconds: positive, ohms: notNegative.optional(), ...guards }),
] as const;

const domain = {
  domain: z.literal('fluid').optional(),
  /** It holds refrigerant: no test opens it, only who is licensed changes it. */
  refrigerant: z.boolean().optional(),
};
/** Its pressure or vacuum holds a load that comes down without it. */
const loaded = { holdsLoad: z.boolean().optional() };
const oneEnd = z.object({ in: name });
const through = z.object({ in: name, out: name });

const fluid = [
  /** Air main, compressor, or (below zero) vacuum, against the atmosphere. Gauge kPa. */
  part('airSupply', z.object({ out: name }), { ...domain, ...restriction, kPa: gauge, ...cutOff }),
  part('pump', z.object({ out: name }), { ...domain, ...restriction, kPa: gauge, ...cutOff }),
  /** Oil held by gas: `kPa` of its gas when it is empty. */
  part('accumulator', oneEnd, { ...domain, kPa: positive, ...cutOff }),
  /** Back to the tank from `kPa` on. */
  part('relief', oneEnd, { ...domain, ...restriction, kPa: positive }),
  part('regulator', through, { ...domain, ...restriction, kPa: gauge }),
  part('filter', through, { ...domain, ...restriction }),
  part('check', through, { ...domain, ...restriction, crackingKPa: notNegative.optional() }),
  part('hose', two, { ...domain, ...restriction }),
  part('throttle', two, { ...domain, ...restriction }),
  part('silencer', oneEnd, { ...domain, ...restriction }),
  part('plug', oneEnd, { ...domain }),
  part('valve', z.partialRecord(z.enum(['1', '2', '3', '4', '5']), name), {
    ...domain,
    ...restriction,
    ways: z.enum(['2/2', '3/2', '5/2', '5/3']),
    /** State at rest of a 2/2 or 3/2: port 1 blocked (closed) or passing (open). */
    atRest: z.enum(['closed', 'open']).optional(),
    /** Centre of a 5/3. */
    centre: z.enum(['closed', 'exhaust', 'pressure']).optional(),
    /** Coil that shifts it (pilot 12 of a 3/2, 14 of a 5/2 or 5/3), and the one that shifts a 5/3 the other way. */
    coil: name,
    coil2: name.optional(),
    /** Least pressure at port 1 to shift; below it the spool stands mid-way. */
    pilotKPa: positive.optional(),
  }),
  /** Solenoid valve whose opening follows its coil's current. */
  part('proportionalValve', z.object({ '1': name, '2': name, in: name, out: name }), {
    ...domain,
    ...load,
    /** Loss when fully open, kPa per L/min. */
    ...restriction,
    /** Current at which it begins to open, and at which it is fully open. */
    fromAmps: notNegative,
    fullAmps: positive,
  }),
  part('cylinder', z.object({ a: name, b: name.optional() }), {
    ...domain,
    /** Pressure that moves it against friction and load. */
    frictionKPa: positive.optional(),
    /** Spring of a single-acting cylinder, as pressure at port a. */
    springKPa: positive.optional(),
    /** Area behind port b over area behind port a. */
    areaRatio: positive.optional(),
    ...loaded,
    ...watched,
  }),
  /** Spring-returned actuator pulled by vacuum of `pullKPa` below the atmosphere. */
  part('vacuumActuator', z.object({ port: name }), { ...domain, pullKPa: positive, ...loaded, ...watched }),
  part('pressureSwitch', z.object({ '1': name, '2': name, port: name }), {
    ...domain,
    /** Pressure at which it operates, and at which it goes back. Operates downwards when make is the lower one. */
    makeKPa: gauge,
    breakKPa: gauge,
    contact: z.enum(['NO', 'NC']).optional(),
    ohms: notNegative.optional(),
    ...guards,
  }),
] as const;

export const partSchema = z.discriminatedUnion('kind', [...electrical, ...fluid]);

export type Part = z.infer<typeof partSchema>;
export type PartOf<K extends Part['kind']> = Extract<Part, { kind: K }>;

/** What a gauge of the machine's own shows of a part. */
export type OwnGauge = NonNullable<PartOf<'vacuumActuator'>['ownGauge']>;

/** Kinds that the fluid schemas describe. */
export const fluidSchemaKinds: readonly Part['kind'][] = fluid.map((one) => one.shape.kind.value);
