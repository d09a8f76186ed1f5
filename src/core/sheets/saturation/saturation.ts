import { z } from 'zod';
import { InputError } from '../../circuit/inputError';
import { figure, maybe, positive, sheetHead, thing, type Finding, type SheetAnswer } from '../sheet';

export const saturationSheet = z.object({
  ...sheetHead('saturation'),
  refrigerant: thing,
  kPaAbs: maybe(positive),
  kPaGauge: maybe(figure),
  bubbleC: maybe(figure),
  dewC: maybe(figure),
  altitudeMetres: maybe(z.number().min(-500).max(9000)),
});
export type SaturationSheet = z.infer<typeof saturationSheet>;

export type SaturationFinding = Finding<
  'refrigerantNotKnown' | 'outsideFit' | 'altitudeNotKnown' | 'notYetChecked' | 'licensed'
>;

export interface SaturationAnswer extends SheetAnswer {
  bubbleC: number | null;
  dewC: number | null;
  kPaAbsBubble: number | null;
  kPaAbsDew: number | null;
  /** Of absolute pressure, of the fit against the points it was made from. */
  errorPercent: number | null;
  source: string | null;
}

/** log10(kPa abs) = A − B / (C + °C); reference `fluid-power.md` section 8. */
interface Line {
  a: number;
  b: number;
  c: number;
  errorPercent: number;
}
interface Refrigerant {
  bubble: Line;
  dew: Line;
  /** Points recalled, not looked up: a maker's table goes before them. */
  verify: boolean;
}

const line = (a: number, b: number, c: number, errorPercent: number): Line => ({ a, b, c, errorPercent });
const pure = (one: Line): Refrigerant => ({ bubble: one, dew: one, verify: false });
const REFRIGERANTS: Readonly<Record<string, Refrigerant>> = {
  R134A: pure(line(6.2877, 925.58, 242.2, 0.2)),
  R22: pure(line(6.2804, 905.74, 252.75, 0.25)),
  R410A: { bubble: line(6.5653, 963.24, 263, 0.65), dew: line(6.5729, 967.67, 263.55, 0.66), verify: true },
  R404A: { bubble: line(6.3965, 944.84, 261.6, 0.57), dew: line(6.391, 937.32, 259.4, 0.38), verify: true },
  R448A: { bubble: line(6.5149, 971.27, 261.45, 0.44), dew: line(6.397, 912.48, 247.55, 0.29), verify: true },
};
/** Where the fits hold, °C. */
const FITTED_C = [-40, 60] as const;
const SEA_LEVEL_KPA = 101.325;

/** Standard atmosphere at a height, kPa (ISO 2533). */
export function atmosphereKPa(altitudeMetres: number): number {
  return SEA_LEVEL_KPA * (1 - 2.25577e-5 * altitudeMetres) ** 5.25588;
}

/** Saturation of a refrigerant from a pressure or a temperature. Nothing is said outside the range that the fit was made for. */
export function saturate(sheet: SaturationSheet): SaturationAnswer {
  const { refrigerant, kPaAbs, kPaGauge, bubbleC, dewC, altitudeMetres } = sheet;
  const given = Object.entries({ kPaAbs, kPaGauge, bubbleC, dewC }).filter(
    ([, value]) => value !== undefined,
  );
  if (given.length > 1)
    throw new InputError(
      given[1]![0],
      `stands beside ${given[0]![0]}; give one of kPaAbs, kPaGauge, bubbleC, dewC`,
    );
  const findings: SaturationFinding[] = [{ code: 'licensed' }];
  const nothing = {
    bubbleC: null,
    dewC: null,
    kPaAbsBubble: null,
    kPaAbsDew: null,
    errorPercent: null,
    source: null,
    findings,
  };
  const lines = REFRIGERANTS[refrigerant.toUpperCase().replace(/[^A-Z0-9]/g, '')];
  if (!lines) {
    findings.push({ code: 'refrigerantNotKnown', refrigerant });
    return { ...nothing, next: null };
  }
  if (given.length === 0) return { ...nothing, next: { ask: 'kPaGauge' } };
  if (kPaGauge !== undefined && altitudeMetres === undefined)
    findings.push({ code: 'altitudeNotKnown', takenAsMetres: 0 });
  if (lines.verify) findings.push({ code: 'notYetChecked', refrigerant });
  const kPa = kPaOf(sheet, lines);
  const [bubble, dew] =
    kPa === null ? [null, null] : [celsiusAt(lines.bubble, kPa), celsiusAt(lines.dew, kPa)];
  const asked = bubbleC ?? dewC;
  if (kPa === null || bubble === null || dew === null || (asked !== undefined && !isFitted(asked))) {
    findings.push({ code: 'outsideFit', fromC: FITTED_C[0], toC: FITTED_C[1] });
    if (kPa === null || (asked !== undefined && !isFitted(asked)) || (bubble === null && dew === null))
      return { ...nothing, next: null };
  }
  return {
    bubbleC: bubble,
    dewC: dew,
    kPaAbsBubble: bubble === null ? null : kPa,
    kPaAbsDew: dew === null ? null : kPa,
    errorPercent: Math.max(
      bubble === null ? 0 : lines.bubble.errorPercent,
      dew === null ? 0 : lines.dew.errorPercent,
    ),
    source: `log10 fit, ${FITTED_C[0]} to ${FITTED_C[1]} °C${lines.verify ? ', to be checked against the maker’s table' : ''}`,
    findings,
    next: kPaGauge !== undefined && altitudeMetres === undefined ? { ask: 'altitudeMetres' } : null,
  };
}

/** Absolute pressure that was given or follows; null where a gauge reading lies below no pressure at all. */
function kPaOf(
  { kPaAbs, kPaGauge, bubbleC, dewC, altitudeMetres = 0 }: SaturationSheet,
  lines: Refrigerant,
): number | null {
  if (kPaAbs !== undefined) return kPaAbs;
  if (kPaGauge !== undefined) {
    const kPa = kPaGauge + atmosphereKPa(altitudeMetres);
    return kPa > 0 ? kPa : null;
  }
  const [celsius, own] = bubbleC !== undefined ? [bubbleC, lines.bubble] : [dewC!, lines.dew];
  return isFitted(celsius) ? 10 ** (own.a - own.b / (own.c + celsius)) : null;
}

/** Null outside the fit. */
function celsiusAt({ a, b, c }: Line, kPa: number): number | null {
  const celsius = b / (a - Math.log10(kPa)) - c;
  return isFitted(celsius) ? celsius : null;
}

/** With room for the rounding of a figure at the very edge. */
function isFitted(celsius: number): boolean {
  return celsius >= FITTED_C[0] - 1e-9 && celsius <= FITTED_C[1] + 1e-9;
}
