import type { CircuitModel } from '../../circuit/model';
import type { Part } from '../../circuit/partSchema';
import { kindOf } from '../../kinds/part';
import type { BenchMeasure } from '../benchMeasures';
import type { EntryOf } from '../entries';
import type { JobState } from '../reduceJob';

/** One reading of a spare, and what a sound one shows: ohms, or volts of a diode test. Over-range counts as infinite. */
export interface BenchCheck {
  measure: BenchMeasure;
  quantity: 'ohms' | 'volts';
  least: number;
  most: number;
  /** Middle of what is wanted, with its share either way; null where only a limit is known. */
  about: { value: number; tolerance: number } | null;
}

const USUAL_TOLERANCE = 0.1;
/** The meter's own part in a bench reading. */
const METER_SHARE = 0.02;
/** A sound closed contact, fuse or short lead reads less on an ohmmeter (shop rule), ohms. */
const THROUGH_OHMS = 1;
/** A longer lead may read this much of its copper. */
const LEAD_SHARE = 1.5;
/** An open contact reads more (shop rule), ohms. */
const OPEN_OHMS = 1e6;
/** Silicon, Schottky and light-emitting diodes at a meter's milliampere, volts. */
const FORWARD_VOLTS = [0.12, 2.4] as const;
/** Over-range of a diode test, volts. */
const REVERSE_VOLTS = 2.5;
/** A sensor's track scatters more than a winding. */
const TRACK_TOLERANCE = 0.25;

/** What a spare for a part is read by before it is fitted; empty where a meter on the bench tells nothing of it. */
export function benchChecks({ compiled }: CircuitModel, ref: string): BenchCheck[] {
  const at = compiled.partIndex.get(ref);
  return at === undefined ? [] : checksOf(compiled.parts[at]!.part);
}

function checksOf(part: Part): BenchCheck[] {
  switch (part.kind) {
    case 'coil':
    case 'heater':
    case 'resistor':
    case 'relay':
    case 'proportionalValve':
      return [winding(part.ohms, ('tolerance' in part && part.tolerance) || USUAL_TOLERANCE)];
    case 'lamp':
    case 'motor':
      // Drawn is what it has lit or running: on the bench a sound one reads anything under that, where nobody has said what.
      return [
        part.restOhms === undefined
          ? notOpen(part.ohms, part.tolerance ?? USUAL_TOLERANCE)
          : winding(part.restOhms, part.tolerance ?? USUAL_TOLERANCE),
      ];
    case 'sensor3':
      return [winding(part.ohms, TRACK_TOLERANCE)];
    case 'fuse':
    case 'breaker':
    case 'pin':
      return [through(THROUGH_OHMS)];
    case 'wire':
      return [through(Math.max(THROUGH_OHMS, LEAD_SHARE * (kindOf(part).branches(part, '')[0]?.ohms ?? 0)))];
    case 'switch':
    case 'pressureSwitch':
      return [
        { measure: 'closed', quantity: 'ohms', least: -Infinity, most: THROUGH_OHMS, about: null },
        { measure: 'open', quantity: 'ohms', least: OPEN_OHMS, most: Infinity, about: null },
      ];
    case 'diode':
      return [
        {
          measure: 'forward',
          quantity: 'volts',
          least: FORWARD_VOLTS[0],
          most: FORWARD_VOLTS[1],
          about: null,
        },
        { measure: 'reverse', quantity: 'volts', least: REVERSE_VOLTS, most: Infinity, about: null },
      ];
    case 'source':
    case 'transformer':
    case 'driver':
    case 'timer':
    case 'airSupply':
    case 'pump':
    case 'regulator':
    case 'filter':
    case 'hose':
    case 'check':
    case 'throttle':
    case 'silencer':
    case 'plug':
    case 'accumulator':
    case 'relief':
    case 'valve':
    case 'cylinder':
    case 'vacuumActuator':
      return [];
    default:
      return part satisfies never;
  }
}

/** A winding nobody knows the ohms of is only not open. */
function winding(ohms: number | undefined, tolerance: number): BenchCheck {
  if (ohms === undefined)
    return { measure: 'winding', quantity: 'ohms', least: -Infinity, most: OPEN_OHMS, about: null };
  const within = ohms * (tolerance + METER_SHARE);
  return {
    measure: 'winding',
    quantity: 'ohms',
    least: ohms - within,
    most: ohms + within,
    about: { value: ohms, tolerance },
  };
}

/** What reads less cold or standing than it has at work is only not open. */
function notOpen(ohms: number, tolerance: number): BenchCheck {
  const most = ohms * (1 + tolerance + METER_SHARE);
  return { measure: 'winding', quantity: 'ohms', least: -Infinity, most, about: null };
}

function through(most: number): BenchCheck {
  return { measure: 'through', quantity: 'ohms', least: -Infinity, most, about: null };
}

/** Whether a bench reading is that of a sound spare. */
export function soundSpare(
  value: number | 'OL',
  { least, most }: Pick<BenchCheck, 'least' | 'most'>,
): boolean {
  const number = value === 'OL' ? Infinity : value;
  return number >= least && number <= most;
}

/**
 * Readings of the spare that its fitting still waits for: the last of each measure counts, and it counts by its value, not by what was
 * said of it. Empty where the decision is no replacement.
 */
export function benchOpen(model: CircuitModel, state: JobState, part: string): BenchCheck[] {
  const { decision, sparesInHand } = state;
  if (decision?.body.action !== 'replace' || decision.body.part !== part) return [];
  return benchChecks(model, part).filter((check) => {
    const last = sparesInHand.findLast(({ body }) => body.part === part && body.bench === check.measure);
    return last?.body.value === undefined || !soundSpare(last.body.value, check);
  });
}

/** Whether what an entry says of a spare is what its reading says. */
export function saysWhatItReads(model: CircuitModel, { body }: EntryOf<'spareTest'>): boolean {
  const check = benchChecks(model, body.part).find(({ measure }) => measure === body.bench);
  return !check || body.value === undefined || soundSpare(body.value, check) === body.good;
}
