import { differenceInCalendarDays } from 'date-fns';
import type { PlaceTrend } from '@/core/shed/functionTrends';
import { calendarDay } from '@/core/units/siteTime';
import type { Drifting, PastLimit } from '@/core/shed/readPastLimit';
import type { LimitSource } from '@/core/shed/measureLimits';
import { isWound } from '@/core/diagnosis/windingRead';
import type { MeasureKind } from '@/core/job/provedMeasures';
import type { ReadingKind } from '@/core/circuit/schema';
import { figureWords, kindOfPart, partWords, positionWords, testPlace, type Speaker } from './readings';
import { passWords } from './heldAgainst';
import { followedWords } from './proofs';

const WEEK_DAYS = 7;
const MONTH_DAYS = 30.4;
/** Up to so many days are counted in days, in weeks. */
const DAYS_UP_TO = 12;
const WEEKS_UP_TO = 70;

/** What places of one function are called in a list; two that would be called the same by their whole set-up. */
export function placeTitles(speaker: Speaker, places: readonly Placed[]): string[] {
  const titles = places.map((place) => placeTitle(speaker, place));
  return titles.map((title, k) => {
    const { test } = places[k]!;
    const isAlone = titles.indexOf(title) === titles.lastIndexOf(title);
    return isAlone || !test ? title : followedWords(speaker, test);
  });
}

type Placed = Pick<PlaceTrend, 'kind' | 'part' | 'test' | 'limits'>;

/** What a place is called: "X9.1 blade plug, volts lost 4 to 6, float on". */
function placeTitle(speaker: Speaker, { kind, part, test, limits }: Placed): string {
  if (kind === 'winding' && part !== null)
    return `${partWords(speaker, part)}, ${isWoundPart(speaker, part) ? 'winding at 20 °C' : 'its ohms'}`;
  if (!test) return part ?? kind;
  const stand = positionWords(speaker.model.compiled.circuit.controls, test.setup);
  const behind = stand ? `, ${stand}` : '';
  if (part !== null && kind === 'volts' && kindOfPart(speaker, part) === 'source')
    return `${partWords(speaker, part)}, its volts at work${behind}`;
  if (part === null && limits?.source.code === 'lost')
    return `Volts lost, ${testPlace(speaker, test)}${behind}`;
  if (test.kind === 'pressure') return `Pressure at ${testPlace(speaker, test)}${behind}`;
  // A contactor has more than one contact: the points say which.
  if (part !== null && kind === 'volts')
    return `${partWords(speaker, part)}, volts lost ${testPlace(speaker, test)}${behind}`;
  if (part !== null && kind === 'amps') return `${partWords(speaker, part)}, amps${behind}`;
  if (test.kind === 'insulation') return `Insulation ${testPlace(speaker, test)}, ${test.testVolts} V`;
  return followedWords(speaker, test);
}

function isWoundPart({ model: { compiled } }: Speaker, ref: string): boolean {
  const part = compiled.parts[compiled.partIndex.get(ref) ?? -1];
  return part !== undefined && isWound(part);
}

/** Kind of reading that a measure is shown as. */
export function shownAs(kind: MeasureKind): ReadingKind {
  return kind === 'winding' ? 'ohms' : kind;
}

/** A value of a place with its unit; one that was over range as that. */
export function measureFigure(
  kind: MeasureKind,
  value: number,
  gaugeUnit: Parameters<typeof figureWords>[2],
  over = false,
): string {
  const shown = figureWords(shownAs(kind), value, gaugeUnit);
  return over ? `over ${shown}` : shown;
}

/** A span of days as people say it: "9 days", "7 weeks", "5 months". */
export function spanWords(days: number): string {
  const whole = Math.max(0, Math.round(days));
  if (whole <= DAYS_UP_TO) return whole === 1 ? '1 day' : `${whole} days`;
  if (whole <= WEEKS_UP_TO) return `${Math.round(whole / WEEK_DAYS)} weeks`;
  return `${Math.round(whole / MONTH_DAYS)} months`;
}

/** "4 to 13 weeks", in the unit that the middle of it is said in. */
function spanBetween(from: number, to: number, about: number): string {
  const unit = about <= DAYS_UP_TO ? 1 : about <= WEEKS_UP_TO ? WEEK_DAYS : MONTH_DAYS;
  const name = unit === 1 ? 'days' : unit === WEEK_DAYS ? 'weeks' : 'months';
  const [least, most] = [from, to].map((days) => Math.round(days / unit));
  if (least === 0) return `or any day, ${most} ${name} at the latest`;
  return least === most ? `${most} ${name}` : `${least} to ${most} ${name}`;
}

export interface TrendWords {
  /** "Rising." */
  moves: string;
  /** When it meets its limit, or for how long it has been steady. */
  when: string;
  tone: 'stamp' | 'copper' | 'plain';
}

/** How a place moves, in two short sentences. @param today calendar day, 2026-12-03 */
export function trendWords({ trend, limits, lastOn, dots }: PlaceTrend, today: string): TrendWords {
  const { state, toLimit, beyond, used } = trend;
  const since = dots[0] ? differenceInCalendarDays(day(lastOn), day(dots[0].at.slice(0, 10))) : 0;
  const moves = { few: '', steady: 'Steady', rising: 'Rising', falling: 'Falling' }[state];
  if (beyond)
    return {
      moves: beyond === 'least' ? 'Below its limit.' : 'Above its limit.',
      when: state === 'few' || state === 'steady' ? 'By its last reading.' : `${moves} still.`,
      tone: 'stamp',
    };
  if (state === 'few')
    return {
      moves: used === 1 ? 'One reading so far.' : `${used} readings so far.`,
      when: 'A slope needs four, over three weeks.',
      tone: 'plain',
    };
  if (state === 'steady') return { moves: `Steady over ${spanWords(since)}.`, when: '', tone: 'plain' };
  if (!toLimit)
    return {
      moves: `${moves}.`,
      when: limits ? 'No limit within three years.' : 'Nothing says what its limit is.',
      tone: 'plain',
    };
  const gone = differenceInCalendarDays(day(today), day(lastOn));
  const about = toLimit.about - gone;
  const soonest = Math.max(0, toLimit.soonest - gone);
  const latest = toLimit.latest === null ? null : toLimit.latest - gone;
  if (about <= 0) return { moves: `${moves}.`, when: 'May be at its limit by now.', tone: 'stamp' };
  const between = latest === null ? '' : spanBetween(soonest, Math.max(latest, soonest), about);
  const until = latest === null ? `${spanWords(soonest)} at the soonest` : between;
  return {
    moves: `${moves}.`,
    when: `At its limit in about ${spanWords(about)}${until === spanWords(about) ? '' : `, ${until}`}.`,
    tone: soonest <= MONTH_DAYS ? 'stamp' : 'copper',
  };
}

/** Where a limit comes from. */
export function limitWords(source: LimitSource): string {
  switch (source.code) {
    case 'drawn':
      return `the drawing: ${Number(source.ohms.toPrecision(4))} Ω, ${Math.round(100 * source.tolerance)} % either way`;
    case 'drop':
      return 'the shop’s rule for lost volts';
    case 'lost':
      return `${Math.round(100 * source.share)} % of the supply, which a sound run may lose`;
    case 'insulation':
      return typeof source.by === 'string'
        ? `the site’s policy: ${passWords(source.by)}`
        : source.by.standard;
    case 'sound':
      return 'what the sound circuit may show, by the drawing';
  }
}

/** Against what a place is past its limit: "above 0.2 V: the shop’s rule for lost volts". */
export function pastLimitWords({ gaugeUnit }: Speaker, { measure, side, limits }: PastLimit): string {
  const limit = measureFigure(measure.kind, limits[side]!, gaugeUnit);
  return `${side === 'least' ? 'below' : 'above'} ${limit}: ${limitWords(limits.source)}`;
}

/** Places that a job leaves past their limits, a sentence for each: "K1 contactors in, volts lost 1 to 8: 0.215 V, above 0.2 V: the shop’s rule for lost volts". */
export function pastLimitLines(speaker: Speaker, past: readonly PastLimit[]): string[] {
  const titles = placeTitles(
    speaker,
    past.map(({ measure: { kind, part }, test, limits }) => ({ kind, part, test, limits })),
  );
  return past.map((one, k) => {
    const { kind, value } = one.measure;
    return `${titles[k]!}: ${measureFigure(kind, value, speaker.gaugeUnit)}, ${pastLimitWords(speaker, one)}`;
  });
}

/** What drifted before a job, and was not read or mended in it. */
export function driftingWords({ title, on, beyond }: Drifting): string {
  return beyond || on === null
    ? `${title} was past its limit when it was read last.`
    : `${title} may be at its limit from ${calendarDay(on)} on.`;
}

/** What a repair changed: "0.41 V before, 0.06 V after". */
export function stepWords(
  { kind, trend: { step } }: Pick<PlaceTrend, 'kind' | 'trend'>,
  gaugeUnit: Parameters<typeof figureWords>[2],
): string | null {
  if (!step) return null;
  const of = (value: number) => figureWords(shownAs(kind), value, gaugeUnit);
  return `${of(step.before)} before, ${of(step.after)} after`;
}

/** How fast it moves: "about 0.3 V a year, 0.2 to 0.4". */
export function slopeWords(
  { kind, trend: { perYear, state, byFactors } }: Pick<PlaceTrend, 'kind' | 'trend'>,
  gaugeUnit: Parameters<typeof figureWords>[2],
): string | null {
  if (!perYear || state === 'steady') return null;
  if (byFactors) {
    const factor = 1 + perYear.about;
    if (factor < 1) return `after a year ${share(factor)} of it is left`;
    const times = Number(factor.toPrecision(2));
    return `${times === 2 ? 'twice' : `${times} times`} as much after a year`;
  }
  const of = (value: number) => figureWords(shownAs(kind), Math.abs(value), gaugeUnit);
  return `about ${of(perYear.about)} ${perYear.about < 0 ? 'less' : 'more'} each year`;
}

function share(of: number): string {
  return of >= 0.1 ? `${Math.round(100 * of)} %` : `a ${Math.round(1 / of)}th`;
}

function day(iso: string): Date {
  return new Date(`${iso}T12:00:00`);
}

/** "186 places followed on 21 machines, 6 of them move or are past their limit". */
export function followedCount({
  all,
  moving,
  machines,
}: {
  all: number;
  moving: number;
  machines: number;
}): string {
  if (all === 0) return 'No place is followed yet';
  const places = `${all} ${all === 1 ? 'place' : 'places'} followed on ${machines} ${machines === 1 ? 'machine' : 'machines'}`;
  if (moving === 0) return `${places}, none of them moves`;
  return `${places}, ${moving} of them ${moving === 1 ? 'moves or is past its limit' : 'move or are past their limits'}`;
}

/** How many places are at their limit or may soon be. */
export function soonWords(count: number): string {
  return count === 1 ? 'One place is near its limit' : `${count} places are near their limits`;
}
