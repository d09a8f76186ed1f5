import { z } from 'zod';
import { shopMarks, type ShopMarks } from '../../tables/marks';
import { figure, maybe, positive, sheetHead, type Finding, type SheetAnswer } from '../sheet';

export const holdSheet = z.object({
  ...sheetHead('hold'),
  /** An actuator on a hand pump, a line or vessel of air, or a system left standing under nitrogen. */
  of: maybe(z.enum(['vacuum', 'air', 'standing'])),
  /** Gauge, at the beginning and at the end; a vacuum is below nothing. */
  startKpa: maybe(figure),
  endKpa: maybe(figure),
  seconds: maybe(positive),
  litres: maybe(positive),
  startC: maybe(z.number().min(-60).max(150)),
  endC: maybe(z.number().min(-60).max(150)),
  /** The smallest step that the gauge shows. */
  gaugeKpa: maybe(positive),
  /** Of the air around it. */
  atmosphereKpa: maybe(z.number().min(30).max(120)),
});
export type HoldSheet = z.infer<typeof holdSheet>;

export type HoldFinding = Finding<
  'temperatureNotKnown' | 'volumeNotKnown' | 'atmosphereUsual' | 'gaugeNotKnown' | 'withinGauge' | 'wrongSide'
>;

export interface HoldAnswer extends SheetAnswer {
  verdict: 'holds' | 'leaks' | null;
  /** What was lost, beyond what the change of temperature explains; towards the pressure around it, kPa. */
  lostKpa: number | null;
  /** Of what it began with, each minute. */
  sharePerMinute: number | null;
  /** Free air that went out, or in, L/min. */
  litresPerMinute: number | null;
  /** What the gauge should show at the end by temperature alone. */
  expectedKpa: number | null;
}

const SEA_LEVEL = 101.325;
const KELVIN = 273.15;

/**
 * Whether something holds its pressure or its vacuum: what it lost, corrected for its temperature, and the leak in free air (reference
 * `fluid-power.md` sections 4, 5: P01, P16). Of a vacuum the shop's share in a minute decides, of a standing pressure what its gauge can show.
 */
export function judgeHold(sheet: HoldSheet, marks: ShopMarks = shopMarks({})): HoldAnswer {
  const { of, startKpa, endKpa, seconds, litres, startC, endC, gaugeKpa } = sheet;
  const findings: HoldFinding[] = [];
  const nothing = {
    verdict: null,
    lostKpa: null,
    sharePerMinute: null,
    litresPerMinute: null,
    expectedKpa: null,
    findings,
  };
  for (const [field, value] of Object.entries({ of, startKpa, endKpa, seconds }))
    if (value === undefined) return { ...nothing, next: { ask: field } };
  const wrong = of === 'vacuum' ? startKpa! >= 0 : startKpa! <= 0;
  if (wrong) {
    findings.push({ code: 'wrongSide', of: of!, kPa: startKpa });
    return { ...nothing, next: { ask: 'startKpa' } };
  }
  const atmosphere = sheet.atmosphereKpa ?? SEA_LEVEL;
  if (sheet.atmosphereKpa === undefined) findings.push({ code: 'atmosphereUsual', kPa: SEA_LEVEL });
  const warmed = startC !== undefined && endC !== undefined ? (endC + KELVIN) / (startC + KELVIN) : null;
  if (warmed === null)
    findings.push({ code: 'temperatureNotKnown', kPaPerK: (startKpa! + atmosphere) / 293 });
  const expectedKpa = warmed === null ? startKpa! : (startKpa! + atmosphere) * warmed - atmosphere;
  const lostKpa = Math.sign(startKpa!) * (expectedKpa - endKpa!);
  const sharePerMinute = (lostKpa / Math.abs(startKpa!)) * (60 / seconds!);
  if (litres === undefined) findings.push({ code: 'volumeNotKnown' });
  const figures = {
    lostKpa,
    sharePerMinute,
    // Less than nothing went the other way: there is no leak to be told.
    litresPerMinute:
      litres === undefined ? null : (Math.max(lostKpa, 0) * litres * 60) / (seconds! * SEA_LEVEL),
    expectedKpa: warmed === null ? null : expectedKpa,
    findings,
  };
  if (of === 'vacuum') {
    const leaks = sharePerMinute > marks.holds.vacuumActuator;
    return { ...figures, verdict: leaks ? 'leaks' : 'holds', next: null };
  }
  if (gaugeKpa === undefined) {
    findings.push({ code: 'gaugeNotKnown' });
    return { ...figures, verdict: null, next: { ask: 'gaugeKpa' } };
  }
  // Two readings of a gauge: a step each way says nothing.
  const told = 2 * gaugeKpa;
  if (lostKpa <= told) {
    if (lostKpa > 0) findings.push({ code: 'withinGauge', kPa: told });
    // Without its temperatures it may have warmed by what it lost.
    return {
      ...figures,
      verdict: warmed === null ? null : 'holds',
      next: warmed === null ? { ask: 'endC' } : null,
    };
  }
  if (warmed === null)
    return { ...figures, verdict: null, next: { ask: startC === undefined ? 'startC' : 'endC' } };
  return { ...figures, verdict: 'leaks', next: null };
}
