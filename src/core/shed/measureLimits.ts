import type { CircuitModel } from '../circuit/model';
import type { Test } from '../circuit/schema';
import { totalSigma } from '../diagnosis/likelihood';
import { bindTest, predict } from '../diagnosis/predict';
import { ownVolts } from '../diagnosis/testerVolts';
import { dropPlace } from '../diagnosis/yardsticks';
import { LOST_SHARE, mostLost } from '../diagnosis/lostVolts';
import type { MeasureKind } from '../job/provedMeasures';
import { figureOf } from '../kinds/reading/index';
import { insulationMark, type InsulationPass } from '../tables/insulationPass';
import type { DropPlace, ShopMarks } from '../tables/marks';

/** Where a limit comes from. */
export type LimitSource =
  /** The drawing's ohms and their tolerance, a share. */
  | { code: 'drawn'; ohms: number; tolerance: number }
  /** The shop's rule for what may be lost at working current. */
  | { code: 'drop'; place: DropPlace }
  /** The share of the supply that a sound run may lose on its way. */
  | { code: 'lost'; share: number }
  /** Least insulation, of a standard or by the site's policy. */
  | { code: 'insulation'; by: Exclude<InsulationPass, 'table'> | { standard: string } }
  /** What the sound circuit may show, its parts' tolerances counted. */
  | { code: 'sound' };

/** Between which values a place is sound; null where a side has no limit. */
export interface MeasureLimits {
  least: number | null;
  most: number | null;
  source: LimitSource;
}

/** Standard deviations of good parts beyond which a value is no longer one of theirs. */
const SOUND_SIGMAS = 3;
/** Volts between two points that are below this share of the supply are lost on the way. */
const SMALL_SHARE = 0.1;
const MOST_OPEN = 0.5;

/** What a followed place is held against; null where nothing says. */
export function measureLimits(
  model: CircuitModel,
  { kind, part, test }: { kind: MeasureKind; part: string | null; test: Test | null },
  marks: ShopMarks,
): MeasureLimits | null {
  if (kind === 'winding') return part === null ? null : windingLimits(model, part, marks);
  if (!test) return null;
  if (test.kind === 'insulation') {
    const { ohms, by } = insulationMark(ownVolts(model, [test.from, test.to]), marks);
    return Number.isFinite(ohms) ? { least: ohms, most: null, source: { code: 'insulation', by } } : null;
  }
  const place = dropPlace(model, test);
  if (place) return { least: null, most: marks.drops[place].repair, source: { code: 'drop', place } };
  const due = predict(bindTest(model, test), []);
  if (due.type !== 'number' || due.loose || !Number.isFinite(due.mean)) return null;
  if (test.kind === 'volts' && Math.abs(due.mean) < SMALL_SHARE * ownVolts(model, [test.from, test.to])) {
    const most = mostLost(model, [test.from, test.to], due.mean);
    return { least: null, most, source: { code: 'lost', share: LOST_SHARE } };
  }
  const reach = SOUND_SIGMAS * totalSigma(test.kind, due.mean, due.sigma, test.meter);
  const mean = figureOf(test.kind).unsigned ? Math.abs(due.mean) : due.mean;
  // Where the drawing leaves so much open it is no limit.
  if (reach > MOST_OPEN * Math.abs(mean)) return null;
  return { least: mean - reach, most: mean + reach, source: { code: 'sound' } };
}

/** A winding's own ohms with their tolerance, or the shop's where the maker states none. */
function windingLimits(model: CircuitModel, ref: string, marks: ShopMarks): MeasureLimits | null {
  const { parts, partIndex } = model.compiled;
  const branch = parts[partIndex.get(ref) ?? -1]?.branches[0];
  if (!branch?.ohmsKnown) return null;
  const { ohms } = branch;
  const tolerance = branch.tolerance > 0 ? branch.tolerance : marks.coilOhms.maker;
  return {
    least: ohms * (1 - tolerance),
    most: ohms * (1 + tolerance),
    source: { code: 'drawn', ohms, tolerance },
  };
}
