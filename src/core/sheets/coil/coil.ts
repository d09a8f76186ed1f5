import { z } from 'zod';
import { COPPER_PER_K, ohmsAt20, REFERENCE_C } from '../../circuit/copper';
import { CELSIUS_LEAST, CELSIUS_MOST } from '../../units/parseCelsius';
import { shopMarks, type ShopMarks } from '../../tables/marks';
import { maybe, meterOhms, ohmsShown, positive, sheetHead, type Finding, type SheetAnswer } from '../sheet';
import { median, robustSpread } from '../../statistics';
import {
  CLASS_MOST_C,
  coilDevice,
  DEVICES,
  dutyFound,
  fuseSeconds,
  onShareOf,
  pullInHot,
  pulsedVolts,
  windingC,
  type InsulationClass,
} from './service';

export const coilSheet = z.object({
  ...sheetHead('coil'),
  ohms: maybe(z.array(ohmsShown).max(200)),
  leadOhms: maybe(z.number().min(0).max(5)),
  temperatureC: maybe(z.number().min(CELSIUS_LEAST).max(CELSIUS_MOST)),
  maker: maybe(z.object({ ohms: positive, tolerance: maybe(z.number().min(0).max(1)) })),
  twins: maybe(z.array(positive).max(200)),
  own: maybe(z.array(positive).max(2000)),
  fleet: maybe(z.array(positive).max(20_000)),
  supplyVolts: maybe(positive),
  hz: maybe(z.number().min(0).max(1000)),
  sealedAmps: maybe(positive),
  inrushAmps: maybe(positive),
  va: maybe(positive),
  henries: maybe(positive),
  measuredAmps: maybe(z.number().min(0)),
  driverLimitAmps: maybe(positive),
  fuseAmps: maybe(positive),
  /** Ohms read again when it was hot, leads still in. */
  hotOhms: maybe(positive),
  insulationClass: maybe(z.enum(Object.keys(CLASS_MOST_C) as [InsulationClass, ...InsulationClass[]])),
  ratedVolts: maybe(positive),
  device: maybe(z.enum(DEVICES)),
  /** Volts at which it pulled in and let go, the supply slowly raised and lowered. */
  pullInVolts: maybe(positive),
  dropOutVolts: maybe(z.number().min(0)),
  /** Switched on and off fast: the share of time on, what diode and switch keep, and what a DC meter shows. */
  pulseShare: maybe(z.number().min(0).max(1)),
  flybackVolts: maybe(z.number().min(0).max(100)),
  switchVolts: maybe(z.number().min(0).max(20)),
  meterVolts: maybe(z.number()),
  pinVolts: maybe(z.number()),
  onSeconds: maybe(positive),
  cycleSeconds: maybe(positive),
  /** Share of a cycle that its label allows, 0 to 1. */
  dutyShare: maybe(z.number().gt(0).max(1)),
});
export type CoilSheet = z.infer<typeof coilSheet>;

export type CoilVerdict = 'good' | 'low' | 'high' | 'open' | 'wandering' | 'unknown';
export type HeldAgainst = 'maker' | 'twin' | 'own' | 'fleet' | 'range';

export type CoilFinding = Finding<
  | 'leadsNotKnown'
  | 'temperatureNotKnown'
  | 'toleranceUsual'
  | 'twinsDisagree'
  | 'settled'
  | 'tooNearToCall'
  | 'inductanceNotKnown'
  | 'jammedArmature'
  | 'shortedTurns'
  | 'drawsMore'
  | 'drawsLess'
  | 'unusual'
  | 'hotterThanClass'
  | 'pullsInLate'
  | 'pullsInLateHot'
  | 'dropsOutEarly'
  | 'staysIn'
  | 'dutyOver'
  | 'onTimeWithoutCycle'
  | 'diodeNotKnown'
  | 'noSuchPulses'
>;

export interface CoilAnswer extends SheetAnswer {
  /** Leads off, at 20 °C, ohms; null when open or not read. */
  ohms20: number | null;
  heldAgainst: HeldAgainst | null;
  verdict: CoilVerdict;
  ampsCold: number | null;
  ampsHot: number | null;
  turnsLost: number | null;
  overLimit: boolean | null;
  overFuse: boolean | null;
  /** Heat in it at 20 °C and 80 K warmer, W; of direct current only, where all it takes is heat. */
  wattsCold: number | null;
  wattsHot: number | null;
  /** Pulsed: the share of time on, what a DC meter shows across it and at a low-side pin, and its mean current cold. */
  pulsed: { onShare: number; coilVolts: number; pinVolts: number; amps: number | null } | null;
  /** When its fuse opens at the cold current. */
  fuseSeconds: { least: number; most: number | null } | null;
  /** How hot it ran, from its ohms. */
  coilC: number | null;
  /** Volts it pulls in at when 80 K warmer. */
  pullInHotVolts: number | null;
  duty: { share: number; mostOnSeconds: number; over: boolean } | null;
}

/** Leads that nobody has held together read up to this, ohms; a coil that nobody took the temperature of stands in this range, °C. */
const LEADS_MOST = 0.5;
const UNKNOWN_C = [5, 35] as const;
/** Twins further apart than this do not say what is usual. */
const TWINS_APART = 0.15;
/** A display wanders that moves more than this, or that. */
const WANDERS_SHARE = 0.05;
const WANDERS_OHMS = 0.3;
const SETTLED_SHARE = 0.01;
/** Below it lies no winding, above it none that moves anything, ohms. */
const RANGE = [0.05, 50_000] as const;
/** A warm coil stands this much above 20 °C, K. */
const WARM_K = 80;
/** Share by which a current must be off before it says something. */
const AMPS_SHARE = 0.2;
/** Of the inrush current, above which an alternating coil has not closed its gap. */
const NOT_SEALED = 0.6;

interface Band {
  from: HeldAgainst;
  middle: number;
  tolerance: number;
}

/**
 * Judges a coil by its ohms: leads off, at 20 °C, against the best thing known of it. Copper by its linear coefficient (reference
 * section 2), shorted turns by the ratio (section 14), alternating coils by their impedance (section 9). What the unknown leads or
 * temperature could turn round is not judged.
 */
export function judgeCoil(sheet: CoilSheet, marks: ShopMarks = shopMarks({})): CoilAnswer {
  const findings: CoilFinding[] = [];
  const read = readingOf(sheet.ohms ?? [], findings);
  const band = bandOf(sheet, marks.coilOhms, findings);
  const blank = {
    ohms20: null,
    ampsCold: null,
    ampsHot: null,
    turnsLost: null,
    overLimit: null,
    overFuse: null,
    wattsCold: null,
    wattsHot: null,
    fuseSeconds: null,
    coilC: null,
    ...serviceOf(sheet, marks, findings),
    pulsed: null,
    heldAgainst: band?.from ?? 'range',
    findings,
  } as const;
  if (read.state === 'none')
    return { ...blank, heldAgainst: null, verdict: 'unknown', next: { ask: 'ohms' } };
  if (read.state === 'open') return { ...blank, verdict: 'open', next: null };
  const { ohms, digits } = read;
  if (sheet.leadOhms === undefined) findings.push({ code: 'leadsNotKnown', most: LEADS_MOST });
  if (sheet.temperatureC === undefined)
    findings.push({ code: 'temperatureNotKnown', from: UNKNOWN_C[0], to: UNKNOWN_C[1] });
  const leads = sheet.leadOhms ?? 0;
  const ohms20 = ohmsAt20(Math.max(ohms - leads, 0), sheet.temperatureC ?? REFERENCE_C);
  if (read.state === 'wandering') return { ...blank, ohms20, verdict: 'wandering', next: { ask: 'ohms' } };
  // How far the reading may be off for what nobody has said.
  const mostLeads = sheet.leadOhms ?? LEADS_MOST;
  const [coldC, hotC] =
    sheet.temperatureC === undefined ? UNKNOWN_C : [sheet.temperatureC, sheet.temperatureC];
  const low = ohmsAt20(Math.max(ohms - mostLeads, 0), hotC);
  const high = ohmsAt20(Math.max(ohms - leads, 0), coldC);
  const meter =
    meterOhms(ohms, digits) / (1 + COPPER_PER_K * ((sheet.temperatureC ?? REFERENCE_C) - REFERENCE_C));
  const verdict = band ? againstBand(band, low, high, ohms20, meter, findings) : againstRange(low, high);
  const lost = verdict === 'low' && band ? Math.min(Math.max(1 - ohms20 / band.middle, 0), 1) : null;
  const amps = ampsOf(sheet, ohms20, findings);
  judgeAmps(sheet, amps, verdict, findings);
  const over = (limit: number | undefined) =>
    limit === undefined || amps.cold === null ? null : amps.cold > limit;
  const direct = (sheet.hz ?? 0) === 0 && sheet.supplyVolts !== undefined;
  return {
    ...blank,
    ohms20,
    verdict,
    ampsCold: amps.cold,
    ampsHot: amps.hot,
    turnsLost: lost,
    overLimit: over(sheet.driverLimitAmps),
    overFuse: over(sheet.fuseAmps),
    wattsCold: direct && amps.cold !== null ? amps.cold * sheet.supplyVolts! : null,
    wattsHot: direct && amps.hot !== null ? amps.hot * sheet.supplyVolts! : null,
    fuseSeconds:
      sheet.fuseAmps === undefined || amps.cold === null ? null : fuseSeconds(amps.cold, sheet.fuseAmps),
    coilC: heatOf(sheet, ohms, findings),
    pulsed: pulsedOf(sheet, ohms20, findings),
    next: nextOf(sheet, verdict, band, low, high),
  };
}

type Read =
  | { state: 'none' }
  | { state: 'open' }
  | { state: 'steady' | 'wandering'; ohms: number; digits: readonly number[] };

/** What the display came to: its middle; where it ran towards something and stayed there, that. */
function readingOf(shown: readonly (number | 'OL')[], findings: CoilFinding[]): Read {
  const figures = shown.filter((value): value is number => value !== 'OL');
  if (shown.length === 0) return { state: 'none' };
  if (figures.length === 0) return { state: 'open' };
  const middle = median(figures);
  // Now a way, now none: a joint that moves.
  if (figures.length < shown.length) return { state: 'wandering', ohms: middle, digits: figures };
  const spread = Math.max(...figures) - Math.min(...figures);
  const allowed = Math.max(WANDERS_SHARE * middle, WANDERS_OHMS);
  if (spread <= allowed) return { state: 'steady', ohms: middle, digits: figures };
  const last = figures.slice(-3);
  const end = median(last);
  const steadyEnd = Math.max(...last) - Math.min(...last) <= Math.max(SETTLED_SHARE * end, 0.1);
  if (figures.length >= 4 && steadyEnd && isMonotone(figures)) {
    findings.push({ code: 'settled', from: figures[0], to: end });
    return { state: 'steady', ohms: end, digits: figures };
  }
  return { state: 'wandering', ohms: middle, digits: figures };
}

function isMonotone(values: readonly number[]): boolean {
  const steps = values.slice(1).map((value, k) => value - values[k]!);
  return steps.every((step) => step >= 0) || steps.every((step) => step <= 0);
}

/** The best thing to hold it against; a maker's value before a neighbour, that before the past, that before the fleet. */
function bandOf(
  { maker, twins = [], own = [], fleet = [] }: CoilSheet,
  usual: ShopMarks['coilOhms'],
  findings: CoilFinding[],
): Band | null {
  if (maker) {
    if (maker.tolerance === undefined) findings.push({ code: 'toleranceUsual', tolerance: usual.maker });
    return { from: 'maker', middle: maker.ohms, tolerance: maker.tolerance ?? usual.maker };
  }
  if (twins.length > 0) {
    const middle = median(twins);
    const apart = (Math.max(...twins) - Math.min(...twins)) / middle;
    // Of many neighbours one may be bad itself: the middle stands where most agree.
    const agree = twins.filter((one) => Math.abs(one / middle - 1) <= TWINS_APART / 2).length;
    if (apart <= TWINS_APART || (twins.length >= 3 && agree > twins.length / 2))
      return { from: 'twin', middle, tolerance: usual.twin };
    findings.push({ code: 'twinsDisagree', apart });
  }
  if (own.length > 0) return { from: 'own', middle: median(own), tolerance: usual.own };
  if (fleet.length > 0) {
    const middle = median(fleet);
    const spread = fleet.length >= 3 ? (3 * robustSpread(fleet)) / middle : usual.fleet;
    return { from: 'fleet', middle, tolerance: Math.max(spread, usual.fleet) };
  }
  return null;
}

function againstBand(
  { middle, tolerance }: Band,
  low: number,
  high: number,
  likely: number,
  meter: number,
  findings: CoilFinding[],
): CoilVerdict {
  const [least, most] = [middle * (1 - tolerance), middle * (1 + tolerance)];
  if (Math.abs(likely / middle - 1) > 0)
    findings.push({ code: 'unusual', byTolerances: (likely / middle - 1) / Math.max(tolerance, 1e-6) });
  if (high + meter < least) return 'low';
  if (low - meter > most) return 'high';
  // A meter that is coarser than the tolerance cannot pass it either (reference section 5).
  if (low >= least && high <= most && meter <= Math.max(tolerance * middle, 1e-9)) return 'good';
  findings.push({ code: 'tooNearToCall', least, most });
  return 'unknown';
}

/** With nothing known of it only what no winding can read is judged: a fifth of its turns may be gone unseen. */
function againstRange(low: number, high: number): CoilVerdict {
  if (high < RANGE[0]) return 'low';
  if (low > RANGE[1]) return 'high';
  return 'unknown';
}

/** Current at 20 °C and 80 K warmer; on alternating volts only where something besides the ohms is known of it. */
function ampsOf(
  { supplyVolts, hz = 0, sealedAmps, va, henries }: CoilSheet,
  ohms20: number,
  findings: CoilFinding[],
): { cold: number | null; hot: number | null } {
  const none = { cold: null, hot: null };
  const ohmsHot = ohms20 * (1 + COPPER_PER_K * WARM_K);
  if (hz === 0) {
    if (supplyVolts === undefined || ohms20 <= 0) return none;
    return { cold: supplyVolts / ohms20, hot: supplyVolts / ohmsHot };
  }
  const sealed = sealedAmps ?? (va !== undefined && supplyVolts !== undefined ? va / supplyVolts : undefined);
  let reactance: number | null = null;
  if (henries !== undefined) reactance = 2 * Math.PI * hz * henries;
  else if (sealed !== undefined && supplyVolts !== undefined) {
    const impedance = supplyVolts / sealed;
    reactance = Math.sqrt(Math.max(impedance ** 2 - ohms20 ** 2, 0));
  } else if (sealed !== undefined) return { cold: sealed, hot: null };
  if (reactance === null || supplyVolts === undefined) {
    if (reactance === null) findings.push({ code: 'inductanceNotKnown' });
    return none;
  }
  return {
    cold: supplyVolts / Math.hypot(ohms20, reactance),
    hot: supplyVolts / Math.hypot(ohmsHot, reactance),
  };
}

/** What the measured current says beside the ohms. */
function judgeAmps(
  { measuredAmps, hz = 0, inrushAmps }: CoilSheet,
  { cold, hot }: { cold: number | null; hot: number | null },
  verdict: CoilVerdict,
  findings: CoilFinding[],
): void {
  if (measuredAmps === undefined) return;
  const high = cold !== null && measuredAmps > (1 + AMPS_SHARE) * cold;
  const atInrush = inrushAmps !== undefined && measuredAmps >= NOT_SEALED * inrushAmps;
  if (hz > 0 && (high || atInrush)) {
    // The ring of shorted turns lowers the ohms; a plunger that does not close leaves them as they are.
    if (verdict === 'good') findings.push({ code: 'jammedArmature', amps: measuredAmps });
    else if (verdict === 'low') findings.push({ code: 'shortedTurns', amps: measuredAmps });
    else findings.push({ code: 'drawsMore', amps: measuredAmps });
    return;
  }
  if (high) findings.push({ code: verdict === 'low' ? 'shortedTurns' : 'drawsMore', amps: measuredAmps });
  const least = hot ?? cold;
  if (least !== null && measuredAmps < (1 - AMPS_SHARE) * least)
    findings.push({ code: 'drawsLess', amps: measuredAmps });
}

/** How hot it ran, by its ohms hot and cold; null where either, the leads or the cold temperature are not known. */
function heatOf(
  { hotOhms, leadOhms, temperatureC, insulationClass }: CoilSheet,
  ohms: number,
  findings: CoilFinding[],
): number | null {
  if (hotOhms === undefined || leadOhms === undefined || temperatureC === undefined) return null;
  const [hot, cold] = [hotOhms - leadOhms, ohms - leadOhms];
  if (hot <= 0 || cold <= 0) return null;
  const celsius = windingC(hot, cold, temperatureC);
  const most = insulationClass === undefined ? undefined : CLASS_MOST_C[insulationClass];
  if (most !== undefined && celsius > most)
    findings.push({ code: 'hotterThanClass', celsius, most, insulationClass });
  return celsius;
}

/** Of a pulsed coil: its share of time on as given, else as the meter across it or at its pin says. */
function pulsedOf(
  { supplyVolts, hz = 0, pulseShare, flybackVolts, switchVolts = 0, meterVolts, pinVolts }: CoilSheet,
  ohms20: number,
  findings: CoilFinding[],
): CoilAnswer['pulsed'] {
  const asked = pulseShare !== undefined || meterVolts !== undefined || pinVolts !== undefined;
  if (!asked || hz > 0 || supplyVolts === undefined) return null;
  // Without a diode the current breaks off in every pulse, and nothing of this holds.
  if (flybackVolts === undefined) {
    findings.push({ code: 'diodeNotKnown' });
    return null;
  }
  const pulses = { supplyVolts, flybackVolts, switchVolts };
  const shown = meterVolts !== undefined ? { across: meterVolts } : { pin: pinVolts ?? 0 };
  const onShare = pulseShare ?? onShareOf(pulses, shown);
  if (onShare === null) {
    findings.push({ code: 'noSuchPulses' });
    return null;
  }
  const { coil, pin } = pulsedVolts(pulses, onShare);
  return { onShare, coilVolts: coil, pinVolts: pin, amps: ohms20 > 0 ? Math.max(coil, 0) / ohms20 : null };
}

/** At what volts it works, and how long it is on: from what was typed of them, whatever its ohms say. */
function serviceOf(
  sheet: CoilSheet,
  marks: ShopMarks,
  findings: CoilFinding[],
): Pick<CoilAnswer, 'pullInHotVolts' | 'duty'> {
  const { pullInVolts, dropOutVolts, ratedVolts, device, temperatureC, hz = 0 } = sheet;
  const direct = hz === 0;
  const hotVolts =
    direct && pullInVolts !== undefined && temperatureC !== undefined
      ? pullInHot(pullInVolts, temperatureC, temperatureC + WARM_K)
      : null;
  if (device !== undefined && ratedVolts !== undefined) {
    const { pullIn, releaseLeast, releaseMost } = marks.coilVolts[coilDevice(device, !direct)];
    const most = pullIn * ratedVolts;
    if (pullInVolts !== undefined && pullInVolts > most)
      findings.push({ code: 'pullsInLate', volts: pullInVolts, most });
    else if (hotVolts !== null && hotVolts > most)
      findings.push({ code: 'pullsInLateHot', volts: hotVolts, most });
    if (dropOutVolts !== undefined && releaseMost !== null && dropOutVolts > releaseMost * ratedVolts)
      findings.push({ code: 'dropsOutEarly', volts: dropOutVolts, most: releaseMost * ratedVolts });
    if (dropOutVolts !== undefined && releaseLeast !== null && dropOutVolts < releaseLeast * ratedVolts)
      findings.push({ code: 'staysIn', volts: dropOutVolts, least: releaseLeast * ratedVolts });
  }
  return { pullInHotVolts: hotVolts, duty: dutyFound(sheet, findings) };
}

/** What would settle it: whatever of leads and temperature could still turn it round, then something to hold it against. */
function nextOf(
  { leadOhms, temperatureC, maker, twins, fleet, hz = 0, supplyVolts, sealedAmps, va, henries }: CoilSheet,
  verdict: CoilVerdict,
  band: Band | null,
  low: number,
  high: number,
): CoilAnswer['next'] {
  if (verdict === 'unknown') {
    if (!band) return maker || twins?.length || fleet?.length ? null : { ask: 'maker' };
    const leadsMatter = leadOhms === undefined && LEADS_MOST > 0.25 * band.tolerance * band.middle;
    if (leadsMatter) return { ask: 'leadOhms' };
    if (temperatureC === undefined && high > low) return { ask: 'temperatureC' };
    return { ask: band.from === 'maker' ? 'twins' : 'maker' };
  }
  const dark = sealedAmps === undefined && va === undefined && henries === undefined;
  if (hz > 0 && supplyVolts !== undefined && dark) return { ask: 'va' };
  if (temperatureC === undefined && verdict !== 'good') return null;
  return null;
}
