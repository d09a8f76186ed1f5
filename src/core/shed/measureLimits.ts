import type { CircuitModel } from '../circuit/model';
import type { Test } from '../circuit/schema';
import { totalSigma } from '../diagnosis/likelihood';
import { bindTest, predict } from '../diagnosis/predict';
import { ownVolts } from '../diagnosis/testerVolts';
import { dropPlace } from '../diagnosis/yardsticks';
import type { MeasureKind } from '../job/provedMeasures';
import { insulationMark, type InsulationPass } from '../tables/insulationPass';
import type { DropPlace, ShopMarks } from '../tables/marks';

/** Where a limit comes from. */
export type LimitSource =
  /** The drawing's ohms and their tolerance, a share. */
  | { code: 'drawn'; ohms: number; tolerance: number }
  /** The shop's rule for what may be lost at working current. */
  | { code: 'drop'; place: DropPlace }
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
  const reach = SOUND_SIGMAS * totalSigma(test.kind, due.mean, due.sigma, test.meter);
  const mean = test.kind === 'volts' ? due.mean : Math.abs(due.mean);
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
