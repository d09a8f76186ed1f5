import { z } from 'zod';
import { figure, maybe, positive, sheetHead, type Finding, type SheetAnswer } from '../sheet';
import { median } from '../../statistics';

const cycle = z.object({ makeKpa: maybe(figure), breakKpa: maybe(figure), changed: maybe(z.boolean()) });

export const actuationSheet = z.object({
  ...sheetHead('actuation'),
  atRest: maybe(z.enum(['open', 'closed'])),
  cycles: maybe(z.array(cycle).max(1000)),
  ratedKpa: maybe(positive),
});
export type ActuationSheet = z.infer<typeof actuationSheet>;

export type ActuationFinding = Finding<
  'fewCycles' | 'restDisagrees' | 'ratedNotKnown' | 'spread' | 'offRated'
>;

export interface ActuationAnswer extends SheetAnswer {
  contact: 'NO' | 'NC' | null;
  verdict: 'good' | 'sticky' | 'intermittent' | 'drifted' | 'dead' | null;
  makeKpa: number | null;
  breakKpa: number | null;
  hysteresisKpa: number | null;
}

/** Fewer cycles than this prove nothing of a switch that comes and goes. */
export const LEAST_CYCLES = 3;
/** Points that scatter more than this share of themselves are those of one that sticks. */
const STICKY_SHARE = 0.1;
/** A set point may be this share off what is written on it (verify; the maker's figure goes before). */
const DRIFT_SHARE = 0.1;

/** A pressure switch over cycles of slow rise and fall: what its contact is, where it makes and breaks, and whether it does so again. */
export function judgeActuation({ atRest, cycles = [], ratedKpa }: ActuationSheet): ActuationAnswer {
  const findings: ActuationFinding[] = [];
  const changed = cycles.filter((one) => changes(one) === true);
  const still = cycles.filter((one) => changes(one) === false);
  const makes = changed.flatMap(({ makeKpa }) => (makeKpa === undefined ? [] : [makeKpa]));
  const breaks = changed.flatMap(({ breakKpa }) => (breakKpa === undefined ? [] : [breakKpa]));
  const makeKpa = makes.length > 0 ? median(makes) : null;
  const breakKpa = breaks.length > 0 ? median(breaks) : null;
  // A contact that closes on the rise was open before it.
  const moved =
    makeKpa === null || breakKpa === null || makeKpa === breakKpa ? null : makeKpa > breakKpa ? 'NO' : 'NC';
  const rested = atRest === undefined ? null : atRest === 'open' ? 'NO' : 'NC';
  const disagree = moved !== null && rested !== null && moved !== rested;
  if (disagree) findings.push({ code: 'restDisagrees' });
  const contact = disagree ? null : (moved ?? rested);
  const figures: Pick<ActuationAnswer, 'contact' | 'makeKpa' | 'breakKpa' | 'hysteresisKpa'> = {
    contact,
    makeKpa,
    breakKpa,
    hysteresisKpa: makeKpa === null || breakKpa === null ? null : Math.abs(makeKpa - breakKpa),
  };
  if (changed.length + still.length < LEAST_CYCLES) {
    findings.push({ code: 'fewCycles', wanted: LEAST_CYCLES });
    return { ...figures, verdict: null, findings, next: { ask: 'cycles' } };
  }
  if (changed.length === 0) return { ...figures, verdict: 'dead', findings, next: null };
  if (still.length > 0) return { ...figures, verdict: 'intermittent', findings, next: null };
  if (makeKpa === null || breakKpa === null)
    return { ...figures, verdict: null, findings, next: { ask: 'cycles' } };
  const size = Math.max(Math.abs(makeKpa), Math.abs(breakKpa));
  const spread = Math.max(spreadOf(makes), spreadOf(breaks));
  if (spread > STICKY_SHARE * size) {
    findings.push({ code: 'spread', kPa: spread });
    return { ...figures, verdict: 'sticky', findings, next: null };
  }
  if (ratedKpa === undefined) {
    findings.push({ code: 'ratedNotKnown' });
    return { ...figures, verdict: null, findings, next: { ask: 'ratedKpa' } };
  }
  if (contact === null) return { ...figures, verdict: null, findings, next: { ask: 'atRest' } };
  const rising = contact === 'NO' ? makeKpa : breakKpa;
  if (Math.abs(rising - ratedKpa) > DRIFT_SHARE * ratedKpa) {
    findings.push({ code: 'offRated', kPa: rising - ratedKpa });
    return { ...figures, verdict: 'drifted', findings, next: null };
  }
  return { ...figures, verdict: 'good', findings, next: null };
}

/** Whether a cycle changed the contact; two points say so where nobody else did. */
function changes({ changed, makeKpa, breakKpa }: z.infer<typeof cycle>): boolean | null {
  return changed ?? (makeKpa !== undefined && breakKpa !== undefined ? true : null);
}

function spreadOf(values: readonly number[]): number {
  return Math.max(...values) - Math.min(...values);
}
