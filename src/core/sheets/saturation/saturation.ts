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
  /** The maker's own table, which goes before every fit: absolute pressure, of a blend that of its dew line as well. */
  table: maybe(
    z
      .array(
        z.object({ celsius: z.number().min(-100).max(150), kPaAbs: positive, dewKPaAbs: maybe(positive) }),
      )
      .max(2000),
  ),
  /** Temperature of a pipe, by a clamp on it: on the vapour side for superheat, on the liquid side for subcooling. */
  vapourLineC: maybe(figure),
  liquidLineC: maybe(figure),
});
export type SaturationSheet = z.infer<typeof saturationSheet>;

export type SaturationFinding = Finding<
  | 'refrigerantNotKnown'
  | 'outsideFit'
  | 'outsideTable'
  | 'tableTooShort'
  | 'altitudeNotKnown'
  | 'notYetChecked'
  | 'liquidInVapour'
  | 'vapourInLiquid'
  | 'licensed'
>;

export interface SaturationAnswer extends SheetAnswer {
  bubbleC: number | null;
  dewC: number | null;
  kPaAbsBubble: number | null;
  kPaAbsDew: number | null;
  /** Of absolute pressure, of the fit against the points it was made from. */
  errorPercent: number | null;
  source: string | null;
  /** Of the vapour over its dew point, and of the liquid under its bubble point, K. */
  superheatK: number | null;
  subcoolingK: number | null;
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

/** One side of a refrigerant's saturation, within the range that it is known for. */
interface Curve {
  kPaAt: (celsius: number) => number | null;
  celsiusAt: (kPa: number) => number | null;
  errorPercent: number | null;
}

/** What a refrigerant's saturation is taken from. */
interface Curves {
  bubble: Curve;
  dew: Curve;
  source: string;
  fromC: number;
  toC: number;
  made: 'fit' | 'table';
}

/** Fewer points of a table draw no curve. */
const LEAST_POINTS = 3;
const KELVIN = 273.15;

/**
 * Saturation of a refrigerant from a pressure or a temperature, by the maker's table where one is given, else by a fit; and how far a
 * pipe stands from it. Nothing is said outside the range that either holds for.
 */
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
    superheatK: null,
    subcoolingK: null,
    findings,
  };
  const curves = curvesOf(sheet, findings);
  if (!curves) {
    if (!findings.some(({ code }) => code === 'tableTooShort'))
      findings.push({ code: 'refrigerantNotKnown', refrigerant });
    return { ...nothing, next: null };
  }
  if (given.length === 0) return { ...nothing, next: { ask: 'kPaGauge' } };
  if (kPaGauge !== undefined && altitudeMetres === undefined)
    findings.push({ code: 'altitudeNotKnown', takenAsMetres: 0 });
  const kPa = kPaOf(sheet, curves);
  const [bubble, dew] =
    kPa === null ? [null, null] : [curves.bubble.celsiusAt(kPa), curves.dew.celsiusAt(kPa)];
  if (kPa === null || bubble === null || dew === null) {
    const { made, fromC, toC } = curves;
    findings.push({ code: made === 'fit' ? 'outsideFit' : 'outsideTable', fromC, toC });
    if (kPa === null || (bubble === null && dew === null)) return { ...nothing, next: null };
  }
  const errors = [bubble === null ? null : curves.bubble, dew === null ? null : curves.dew].flatMap(
    (curve) => curve?.errorPercent ?? [],
  );
  return {
    bubbleC: bubble,
    dewC: dew,
    kPaAbsBubble: bubble === null ? null : kPa,
    kPaAbsDew: dew === null ? null : kPa,
    errorPercent: errors.length === 0 ? null : Math.max(...errors),
    source: curves.source,
    ...pipesOf(sheet, bubble, dew, findings),
    findings,
    next: kPaGauge !== undefined && altitudeMetres === undefined ? { ask: 'altitudeMetres' } : null,
  };
}

/** How far the pipes stand from saturation. Below it on the vapour side liquid comes along; above it on the liquid side gas does. */
function pipesOf(
  { vapourLineC, liquidLineC }: SaturationSheet,
  bubble: number | null,
  dew: number | null,
  findings: SaturationFinding[],
): Pick<SaturationAnswer, 'superheatK' | 'subcoolingK'> {
  const superheatK = vapourLineC === undefined || dew === null ? null : vapourLineC - dew;
  const subcoolingK = liquidLineC === undefined || bubble === null ? null : bubble - liquidLineC;
  if (superheatK !== null && superheatK < 0) findings.push({ code: 'liquidInVapour' });
  if (subcoolingK !== null && subcoolingK < 0) findings.push({ code: 'vapourInLiquid' });
  return { superheatK, subcoolingK };
}

function curvesOf({ refrigerant, table }: SaturationSheet, findings: SaturationFinding[]): Curves | null {
  if (table && table.length > 0) return ofTable(table, findings);
  const lines = REFRIGERANTS[refrigerant.toUpperCase().replace(/[^A-Z0-9]/g, '')];
  if (!lines) return null;
  if (lines.verify) findings.push({ code: 'notYetChecked', refrigerant });
  const [fromC, toC] = FITTED_C;
  return {
    bubble: ofLine(lines.bubble),
    dew: ofLine(lines.dew),
    source: `log10 fit, ${fromC} to ${toC} °C${lines.verify ? ', to be checked against the maker’s table' : ''}`,
    fromC,
    toC,
    made: 'fit',
  };
}

function ofLine({ a, b, c, errorPercent }: Line): Curve {
  return {
    kPaAt: (celsius) => (isFitted(celsius) ? 10 ** (a - b / (c + celsius)) : null),
    celsiusAt: (kPa) => {
      const celsius = b / (a - Math.log10(kPa)) - c;
      return isFitted(celsius) ? celsius : null;
    },
    errorPercent,
  };
}

/** Between two points of a table the logarithm of the pressure runs straight over the inverse temperature. */
function ofTable(table: NonNullable<SaturationSheet['table']>, findings: SaturationFinding[]): Curves | null {
  if (table.length < LEAST_POINTS) {
    findings.push({ code: 'tableTooShort', least: LEAST_POINTS });
    return null;
  }
  table.forEach(({ celsius, kPaAbs, dewKPaAbs }, at) => {
    const before = table[at - 1];
    if (before && celsius <= before.celsius)
      throw new InputError(
        `table[${at}].celsius`,
        `${celsius} does not come after ${before.celsius}; put the points in order of temperature`,
      );
    if (before && kPaAbs <= before.kPaAbs)
      throw new InputError(
        `table[${at}].kPaAbs`,
        `${kPaAbs} is not above ${before.kPaAbs}, and pressure rises with temperature; look at the line again`,
      );
    if (dewKPaAbs !== undefined && dewKPaAbs > kPaAbs)
      throw new InputError(
        `table[${at}].dewKPaAbs`,
        `${dewKPaAbs} is above the bubble line's ${kPaAbs}; exchange the two columns`,
      );
  });
  const curve = (pressures: readonly number[]): Curve => {
    const [x, y] = [table.map(({ celsius }) => -1 / (celsius + KELVIN)), pressures.map(Math.log)];
    return {
      kPaAt: (celsius) => {
        const found = between(x, y, -1 / (celsius + KELVIN));
        return found === null ? null : Math.exp(found);
      },
      celsiusAt: (kPa) => {
        const found = between(y, x, Math.log(kPa));
        return found === null ? null : -1 / found - KELVIN;
      },
      // What a table says of itself is between its lines.
      errorPercent: null,
    };
  };
  return {
    bubble: curve(table.map(({ kPaAbs }) => kPaAbs)),
    dew: curve(table.map(({ kPaAbs, dewKPaAbs }) => dewKPaAbs ?? kPaAbs)),
    source: `the maker’s table, ${table.length} points`,
    fromC: table[0]!.celsius,
    toC: table.at(-1)!.celsius,
    made: 'table',
  };
}

/** On a line through rising points; null before the first and behind the last. */
function between(x: readonly number[], y: readonly number[], at: number): number | null {
  const slack = 1e-12 * Math.abs(at);
  if (at < x[0]! - slack || at > x.at(-1)! + slack) return null;
  const right = Math.max(
    1,
    x.findIndex((one) => one >= at - slack),
  );
  const [x0, x1, y0, y1] = [x[right - 1]!, x[right]!, y[right - 1]!, y[right]!];
  return y0 + ((at - x0) / (x1 - x0)) * (y1 - y0);
}

/** Absolute pressure that was given or follows; null where a gauge reading lies below no pressure at all, or outside what is known. */
function kPaOf(
  { kPaAbs, kPaGauge, bubbleC, dewC, altitudeMetres = 0 }: SaturationSheet,
  { bubble, dew }: Curves,
): number | null {
  if (kPaAbs !== undefined) return kPaAbs;
  if (kPaGauge !== undefined) {
    const kPa = kPaGauge + atmosphereKPa(altitudeMetres);
    return kPa > 0 ? kPa : null;
  }
  return bubbleC !== undefined ? bubble.kPaAt(bubbleC) : dew.kPaAt(dewC!);
}

/** With room for the rounding of a figure at the very edge. */
function isFitted(celsius: number): boolean {
  return celsius >= FITTED_C[0] - 1e-9 && celsius <= FITTED_C[1] + 1e-9;
}
