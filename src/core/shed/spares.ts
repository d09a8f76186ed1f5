import { z } from 'zod';
import { isAssumed, voltsAssumed } from '../circuit/assumed';
import { kindOf, unsaidFigures } from '../kinds/part/index';
import type { PartKind } from '../kinds/part/module';
import { mediumOf } from '../circuit/medium';
import type { CircuitModel } from '../circuit/model';
import { isOfRefrigerant } from '../safety/refrigerant';
import { significant } from '../units/significant';
import { mostAmps } from './mostAmps';
import { nominalVolts } from './nominalVolts';

export const SPARE_MEDIA = ['air', 'oil', 'vacuum', 'refrigerant'] as const;
export type SpareMedium = (typeof SPARE_MEDIA)[number];

/** What is said of a spare by its label; what is not known is left out. */
export const spareRatings = z
  .strictObject({
    volts: z.number().positive().max(100_000),
    current: z.enum(['AC', 'DC']),
    ohms: z.number().positive().max(1e9),
    watts: z.number().positive().max(1e6),
    va: z.number().positive().max(1e6),
    /** What its contacts carry, and of which kind they are: as many of each. */
    contactAmps: z.number().positive().max(10_000),
    normallyOpen: z.number().int().min(0).max(12),
    normallyClosed: z.number().int().min(0).max(12),
    /** A fuse's or breaker's. */
    amps: z.number().positive().max(10_000),
    mm2: z.number().positive().max(1000),
    seconds: z.number().positive().max(1e6),
    /** Of a valve: its ways and positions, 5/3. */
    ways: z.string().trim().min(1).max(10),
    /** What it is made for: seals that bear air swell in oil, and none of these holds a refrigerant. */
    medium: z.enum(SPARE_MEDIA),
    /** Highest pressure it bears, kPa. */
    kPa: z.number().positive().max(1e6),
  })
  .partial();
export type SpareRatings = z.infer<typeof spareRatings>;
export type RatingName = keyof SpareRatings;

const OF_CONTACTS = ['contactAmps', 'normallyOpen', 'normallyClosed'] as const;
const OF_WINDING = ['current', 'volts', 'ohms', 'watts'] as const;
const OF_FLUID = ['medium', 'kPa'] as const;

/** What the label of a kind says, in the order in which it is read off; whatever else stands on one is no rating of its kind. */
export const LABELLED: Readonly<Record<PartKind, readonly RatingName[]>> = {
  source: ['current', 'volts', 'amps'],
  transformer: ['volts', 'va', 'amps'],
  fuse: ['amps', 'current', 'volts'],
  breaker: ['amps', 'current', 'volts'],
  wire: ['mm2'],
  pin: ['amps', 'mm2'],
  switch: ['current', 'volts', ...OF_CONTACTS],
  relay: [...OF_WINDING, 'va', ...OF_CONTACTS],
  coil: [...OF_WINDING, 'va'],
  diode: ['volts', 'amps'],
  resistor: ['ohms', 'watts'],
  lamp: ['current', 'volts', 'watts'],
  heater: OF_WINDING,
  motor: [...OF_WINDING, 'amps'],
  sensor3: ['volts', 'kPa', 'medium'],
  driver: ['current', 'volts', 'amps'],
  timer: ['current', 'volts', 'seconds', ...OF_CONTACTS],
  airSupply: OF_FLUID,
  pump: OF_FLUID,
  accumulator: OF_FLUID,
  relief: OF_FLUID,
  regulator: OF_FLUID,
  filter: OF_FLUID,
  check: OF_FLUID,
  hose: OF_FLUID,
  throttle: OF_FLUID,
  silencer: OF_FLUID,
  plug: OF_FLUID,
  valve: ['ways', ...OF_FLUID],
  proportionalValve: [...OF_WINDING, 'ways', ...OF_FLUID],
  cylinder: OF_FLUID,
  vacuumActuator: OF_FLUID,
  pressureSwitch: [...OF_FLUID, 'current', 'volts', ...OF_CONTACTS],
};

/** What a part in its own circuit asks of a spare. */
export interface Wanted {
  kind: PartKind;
  ratings: SpareRatings;
  /** How far its ohms may be off, a share; null where nobody said. */
  ohmsTolerance: number | null;
  /** Something that it is told by was never said: the old part's label decides. */
  unsaid: boolean;
}

/** How one rating of a spare stands against what is wanted. */
export interface Difference {
  rating: RatingName;
  wanted: number | string;
  /** Null: the label in stock says nothing of it. */
  has: number | string | null;
  /** It does the work, and is not the same: more than is needed. */
  isMore: boolean;
}

/** Whether a spare does: all that is wanted is known and met; it is met as far as it is known; or it does not do. */
export type Fit = 'fits' | 'askLabel' | 'doesNot';

export interface SpareMatch {
  fit: Fit;
  /** What is not as wanted, or not known. */
  differs: Difference[];
}

/** Ohms of a winding from a label and of the one that is wanted may be off by so much where no tolerance is said. */
const USUAL_TOLERANCE = 0.1;
const LEAST_AMPS = 1e-3;

/** What a spare for a part has to have, by what the solved circuit asks of it there; null where there is no such part. */
export function wantedSpare(model: CircuitModel, ref: string): Wanted | null {
  const compiled = model.compiled.parts[model.compiled.partIndex.get(ref) ?? -1];
  if (!compiled) return null;
  const { part, branches } = compiled;
  const { alternating } = model.compiled;
  const body = branches.find(({ role }) => role === 'body');
  const ratings: SpareRatings = {};
  const isAlternating = body !== undefined && (alternating[body.a] === 1 || alternating[body.b] === 1);
  if (body && body.volts > 0 && kindOf(part).traits.draws) {
    if (!voltsAssumed(model.compiled.circuit.parts)) ratings.volts = nominalVolts(body.volts, isAlternating);
    ratings.current = isAlternating ? 'AC' : 'DC';
    if (body.ohmsKnown && kindOf(part).traits.ohmic) ratings.ohms = significant(body.ohms, 3);
  }
  const contacts = branches.filter(
    ({ role }) => role === 'made' || role === 'resting' || (role === 'body' && isContact(part.kind)),
  );
  if (contacts.length > 0) {
    const carried = mostAmps(
      model,
      contacts.map(({ index }) => index),
    );
    if (carried > LEAST_AMPS) ratings.contactAmps = significant(carried, 2);
    const made = branches.filter(({ role }) => role === 'made').length;
    const resting = branches.filter(({ role }) => role === 'resting').length;
    if (made > 0) ratings.normallyOpen = made;
    if (resting > 0) ratings.normallyClosed = resting;
  }
  if ((part.kind === 'fuse' || part.kind === 'breaker') && !isAssumed(part, 'amps')) ratings.amps = part.amps;
  if (part.kind === 'wire' && part.mm2 !== undefined) ratings.mm2 = part.mm2;
  if (part.kind === 'timer' && !isAssumed(part, 'seconds')) ratings.seconds = part.seconds;
  if (part.kind === 'valve') ratings.ways = part.ways;
  if (part.kind === 'transformer' && part.va !== undefined && !isAssumed(part, 'va')) ratings.va = part.va;
  if (kindOf(part).traits.fluid) {
    ratings.medium = isOfRefrigerant(model, ref) ? 'refrigerant' : mediumOf(model);
    const most = mostPressure(model);
    // What pulls is borne by whatever closes.
    if (most > 0) ratings.kPa = most;
  }
  return {
    kind: part.kind,
    ratings,
    unsaid: voltsAssumed(model.compiled.circuit.parts) || unsaidFigures(part).length > 0,
    ohmsTolerance: body && body.tolerance > 0 && body.ohmsKnown ? body.tolerance : null,
  };
}

/** The most that a part may come to bear: what the strongest supply gives, or lets off at. Gauge kPa; 0 where nothing presses, or nobody said how much. */
function mostPressure({ compiled: { circuit } }: CircuitModel): number {
  const pressing = circuit.parts.filter(
    (part) => part.kind === 'airSupply' || part.kind === 'pump' || part.kind === 'relief',
  );
  return pressing.some((part) => isAssumed(part, 'kPa')) ? 0 : Math.max(0, ...pressing.map(({ kPa }) => kPa));
}

function isContact(kind: PartKind): boolean {
  return kind === 'switch' || kind === 'pressureSwitch' || kind === 'timer';
}

/**
 * How a rating has to meet what is wanted. A fuse is never larger and never smaller; a winding's volts and kind of current are its own; what
 * carries may carry more.
 */
const RULES: Readonly<Record<RatingName, 'same' | 'atLeast' | 'ohms' | 'told'>> = {
  volts: 'same',
  current: 'same',
  ohms: 'ohms',
  // Follows from volts and ohms: said beside them, and held against nothing.
  watts: 'told',
  va: 'atLeast',
  contactAmps: 'atLeast',
  normallyOpen: 'atLeast',
  normallyClosed: 'atLeast',
  amps: 'same',
  mm2: 'atLeast',
  seconds: 'same',
  ways: 'same',
  medium: 'same',
  kPa: 'atLeast',
};

/** Whether a spare does for what is wanted. A rating that its label does not say is never taken for met. */
export function matchSpare(wanted: Wanted, spare: { kind: PartKind; ratings: SpareRatings }): SpareMatch {
  if (spare.kind !== wanted.kind) return { fit: 'doesNot', differs: [] };
  const differs: Difference[] = [];
  let fit: Fit = 'fits';
  for (const [name, value] of Object.entries(wanted.ratings) as [RatingName, number | string][]) {
    const has = spare.ratings[name] ?? null;
    const standing = has === null ? 'unknown' : meets(name, value, has, wanted.ohmsTolerance);
    if (standing === 'same') continue;
    if (RULES[name] === 'told') continue;
    differs.push({ rating: name, wanted: value, has, isMore: standing === 'more' });
    if (standing === 'no') fit = 'doesNot';
    else if (standing === 'unknown' && fit === 'fits') fit = 'askLabel';
  }
  // Nothing is known that a spare could be told by, or no drawing knows its ports and its size: the label decides.
  const unsized =
    wanted.unsaid || Object.keys(wanted.ratings).length === 0 || wanted.ratings.medium !== undefined;
  if (unsized && fit === 'fits') fit = 'askLabel';
  return { fit, differs };
}

function meets(
  name: RatingName,
  wanted: number | string,
  has: number | string,
  tolerance: number | null,
): 'same' | 'more' | 'no' {
  if (wanted === has) return 'same';
  if (typeof wanted !== 'number' || typeof has !== 'number') return 'no';
  switch (RULES[name]) {
    case 'same':
    case 'told':
      return 'no';
    case 'atLeast':
      return has > wanted ? 'more' : 'no';
    case 'ohms':
      return Math.abs(has / wanted - 1) <= (tolerance ?? USUAL_TOLERANCE) ? 'same' : 'no';
  }
}

/** Kinds that the ratings of a card tell whole, apart from plug and size. Of any other something decides that no card has: a setting, a flow, a characteristic. */
const TOLD_BY_RATINGS: readonly PartKind[] = ['coil', 'relay', 'fuse', 'breaker', 'lamp'];

/**
 * Spares of the shelf that could stand in for one, by what its own label says, the best first; none where it says nothing. What a circuit asks
 * may be less: in a job a spare is found by that.
 */
export function standIns<T extends { number: string; kind: PartKind; ratings: SpareRatings; stock: number }>(
  spare: T,
  shelf: readonly T[],
): (T & SpareMatch)[] {
  const { kind, ratings } = spare;
  if (Object.keys(ratings).length === 0) return [];
  const others = shelf.filter(({ number }) => number !== spare.number);
  const unsaid = !TOLD_BY_RATINGS.includes(kind);
  return rankSpares({ kind, ratings, ohmsTolerance: null, unsaid }, others).filter(
    ({ fit }) => fit !== 'doesNot',
  );
}

const FITS: readonly Fit[] = ['fits', 'askLabel', 'doesNot'];

/** The best first: what fits, with the least that is more than needed, and what lies nearer to hand where there is a choice. */
export function rankSpares<T extends { kind: PartKind; ratings: SpareRatings; stock: number }>(
  wanted: Wanted,
  spares: readonly T[],
): (T & SpareMatch)[] {
  return spares
    .filter(({ kind }) => kind === wanted.kind)
    .map((spare) => ({ ...spare, ...matchSpare(wanted, spare) }))
    .sort(
      (a, b) =>
        FITS.indexOf(a.fit) - FITS.indexOf(b.fit) ||
        Number(b.stock > 0) - Number(a.stock > 0) ||
        a.differs.length - b.differs.length,
    );
}
