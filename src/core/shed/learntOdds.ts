import type { CircuitModel } from '../circuit/model';
import { faultClass, faultKey } from '../diagnosis/experience';
import { listFaults } from '../diagnosis/faults';
import type { Weather } from '../job/weather';

/** A fault that a function can have, with its share by rule of thumb and what it is counted under. */
export interface Exposed {
  /** Part and fault: see `faultKey`. */
  key: string;
  /** Kind of part and fault. */
  of: string;
  prior: number;
}

/** Faults that functions of one type can have. */
export type Exposure = readonly Exposed[];

/** One proved job, as the odds learn from it. */
export interface ProvedFault {
  /** Type of the function: an index into the exposures. */
  type: number;
  /** What it was: see `faultKey`. */
  key: string;
  /** Class of equipment; null where nobody said. */
  equipment: string | null;
  season: Season;
  /** Where it stands: wet, shaken, hot, worked on. */
  place: string;
  /** The weather it failed in; null where nobody said. */
  weather: Weather | null;
  /** How far its machine had run; null where nobody had looked. */
  age: Age | null;
}

export type Season = 'winter' | 'summer';

/** How far a machine has run, by the hour meter: each band twice as long as the one before. */
export type Age = 'new' | 'run-in' | 'half-worn' | 'worn' | 'old';
const AGES: readonly (readonly [under: number, age: Age])[] = [
  [1000, 'new'],
  [2000, 'run-in'],
  [4000, 'half-worn'],
  [8000, 'worn'],
];

/** Band of an hour meter's figure, in hours; null where nobody has read it. */
export function ageOf(hours: number | null): Age | null {
  if (hours === null) return null;
  return AGES.find(([under]) => hours < under)?.[1] ?? 'old';
}

/** Levels on which something may break more often than the rule of thumb has it, the widest first. */
export const ODDS_LEVELS = ['shed', 'equipment', 'place', 'season', 'weather', 'age', 'alike'] as const;
export type OddsLevel = (typeof ODDS_LEVELS)[number];

/**
 * How many jobs' worth the parent of each level is held to be. Wide levels are built of many jobs and may move; of one part of one type of
 * function there are few, but it is there that a bad plug shows, and its parent does not know it.
 */
const HELD: Readonly<Record<OddsLevel, number>> = {
  shed: 4,
  equipment: 6,
  place: 8,
  season: 8,
  weather: 8,
  age: 8,
  alike: 3,
};
const SWEEPS = 40;
const SETTLED = 1e-4;
/** A factor nearer to one than that is none: it is not kept. */
const LEAST_KEPT = 0.005;

/** What a shed has learnt: factors on the rules of thumb, by level and what is counted there. */
export interface LearntOdds {
  /** As many proved jobs. */
  jobs: number;
  factors: Readonly<Record<OddsLevel, Readonly<Record<string, number>>>>;
}

export const NOTHING_LEARNT: LearntOdds = {
  jobs: 0,
  factors: { shed: {}, equipment: {}, place: {}, season: {}, weather: {}, age: {}, alike: {} },
};

/** What a function and a day are counted under. */
export interface OddsContext {
  /** The function's type, by a key that stays. */
  type: string;
  equipment: string | null;
  season: Season;
  weather: Weather | null;
  place: string;
  age: Age | null;
}

/** Faults that a function can have, before anything was learnt. */
export function exposureOf(model: CircuitModel): Exposure {
  const merged = new Map<string, Exposed>();
  for (const fault of listFaults(model)) {
    const key = faultKey(fault);
    const known = merged.get(key);
    if (known) known.prior += fault.prior;
    else merged.set(key, { key, of: faultClass(model, fault), prior: fault.prior });
  }
  return [...merged.values()];
}

/** Where a function stands, as one word for its level; empty where nothing is said. */
export function placeOfCircuit({ compiled }: CircuitModel): string {
  const environment = compiled.circuit.environment ?? {};
  return Object.entries(environment)
    .filter(([, is]) => is)
    .map(([name]) => name)
    .sort()
    .join(' ');
}

const MONTHS_OF_WINTER: readonly number[] = [11, 12, 1, 2, 3, 4];

/** Season of a moment, ISO 8601: November to April is winter. */
export function seasonOfDay(iso: string): Season {
  return MONTHS_OF_WINTER.includes(Number(iso.slice(5, 7))) ? 'winter' : 'summer';
}

function levelKey(
  level: OddsLevel,
  { key, of }: Pick<Exposed, 'key' | 'of'>,
  context: OddsContext,
): string | null {
  switch (level) {
    case 'shed':
      return of;
    case 'equipment':
      return context.equipment === null ? null : `${context.equipment}|${of}`;
    case 'place':
      return context.place === '' ? null : `${context.place}|${of}`;
    case 'season':
      return `${context.season}|${of}`;
    case 'weather':
      return context.weather === null ? null : `${context.weather}|${of}`;
    case 'age':
      return context.age === null ? null : `${context.age}|${of}`;
    case 'alike':
      return `${context.type}|${key}`;
  }
}

/**
 * Learns from proved jobs how often things break here. A job's fault is one draw out of those that its function can have, each with its
 * rule of thumb times a factor for every level that it is counted on. Factors begin at one and hold to it as {@link HELD} jobs would
 * (a gamma about the parent, which is what Dirichlet counts shrunk to their parent come to where not every job could have had every fault);
 * each is brought, in turn, to what was seen over what was to be expected.
 *
 * @param types exposures that the jobs point into
 * @param names keys of these types that stay
 */
export function learnOdds(
  types: readonly Exposure[],
  names: readonly string[],
  jobs: readonly ProvedFault[],
): LearntOdds {
  const factors: Record<OddsLevel, Map<string, number>> = {
    shed: new Map(),
    equipment: new Map(),
    place: new Map(),
    season: new Map(),
    weather: new Map(),
    age: new Map(),
    alike: new Map(),
  };
  const groups = groupsOf(types, names, jobs);
  const seen = Object.fromEntries(ODDS_LEVELS.map((level) => [level, new Map<string, number>()])) as Record<
    OddsLevel,
    Map<string, number>
  >;
  for (const { exposed, count, context, found } of groups) {
    if (count === 0) continue;
    for (const [at, n] of found)
      for (const level of ODDS_LEVELS) {
        const key = levelKey(level, exposed[at]!, context);
        if (key !== null) seen[level].set(key, (seen[level].get(key) ?? 0) + n);
      }
  }
  for (let sweep = 0; sweep < SWEEPS; sweep++) {
    let moved = 0;
    for (const level of ODDS_LEVELS) {
      const expected = new Map<string, number>();
      for (const group of groups) {
        const shares = group.exposed.map((one, at) => one.prior * group.factor(at, factors));
        const total = shares.reduce((sum, share) => sum + share, 0);
        group.keys[level].forEach((key, at) => {
          if (key !== null) expected.set(key, (expected.get(key) ?? 0) + (group.count * shares[at]!) / total);
        });
      }
      for (const [key, due] of expected) {
        const before = factors[level].get(key) ?? 1;
        const held = HELD[level];
        const after = (held + (seen[level].get(key) ?? 0)) / (held + due / before);
        moved = Math.max(moved, Math.abs(Math.log(after / before)));
        factors[level].set(key, after);
      }
    }
    if (moved < SETTLED) break;
  }
  return {
    jobs: jobs.length,
    factors: Object.fromEntries(
      ODDS_LEVELS.map((level) => [
        level,
        Object.fromEntries(
          [...factors[level]].filter(([, factor]) => Math.abs(Math.log(factor)) >= LEAST_KEPT),
        ),
      ]),
    ) as LearntOdds['factors'],
  };
}

/** Jobs that are counted under the same things, together. */
interface Group {
  exposed: Exposure;
  context: OddsContext;
  count: number;
  /** Place in the exposure of what was found, and how often. */
  found: Map<number, number>;
  keys: Record<OddsLevel, (string | null)[]>;
  factor: (at: number, factors: Record<OddsLevel, Map<string, number>>) => number;
}

function groupsOf(
  types: readonly Exposure[],
  names: readonly string[],
  jobs: readonly ProvedFault[],
): Group[] {
  const groups = new Map<string, Group>();
  for (const { type, key, equipment, season, weather, place, age } of jobs) {
    const exposed = types[type]!;
    const at = exposed.findIndex((one) => one.key === key);
    // Another version of the drawing could have it, this one cannot.
    if (at < 0) continue;
    const id = JSON.stringify([type, equipment, season, weather, place, age]);
    let group = groups.get(id);
    if (!group) {
      const context = { type: names[type]!, equipment, season, weather, place, age };
      const keys = Object.fromEntries(
        ODDS_LEVELS.map((level) => [level, exposed.map((one) => levelKey(level, one, context))]),
      ) as Group['keys'];
      group = {
        exposed,
        context,
        count: 0,
        found: new Map(),
        keys,
        factor: (place, factors) =>
          ODDS_LEVELS.reduce((product, level) => {
            const own = keys[level][place];
            return own === null || own === undefined ? product : product * (factors[level].get(own) ?? 1);
          }, 1),
      };
      groups.set(id, group);
    }
    group.count++;
    group.found.set(at, (group.found.get(at) ?? 0) + 1);
  }
  return [...groups.values()];
}

/** A factor of less than that either way is not worth carrying. */
const LEAST_FACTOR = 0.02;

/** Factors on the odds of one function's faults on a day, by part and fault; the lead's own stand in place of what was learnt. */
export function oddsFor(
  exposed: Exposure,
  learnt: LearntOdds,
  context: OddsContext,
  own: Readonly<Record<string, number>> = {},
): Record<string, number> {
  const odds: Record<string, number> = {};
  for (const one of exposed) {
    const factor =
      own[one.of] ??
      ODDS_LEVELS.reduce((product, level) => {
        const key = levelKey(level, one, context);
        return key === null ? product : product * (learnt.factors[level][key] ?? 1);
      }, 1);
    if (Math.abs(Math.log(factor)) >= LEAST_FACTOR) odds[one.key] = factor;
  }
  return odds;
}
