import { z } from 'zod';
import { COPPER_PER_K, REFERENCE_C } from '../../circuit/copper';
import { conductorOhms, gaugeArea } from '../../circuit/wireGauge';
import { CLASS_5 } from '../../tables/tables';
import {
  gauge,
  maybe,
  meterOhms,
  ohmsShown,
  positive,
  sheetHead,
  type Finding,
  type SheetAnswer,
} from '../sheet';

export const wireSheet = z.object({
  ...sheetHead('wire'),
  /** Of one conductor, once. */
  lengthMetres: maybe(positive),
  mm2: maybe(positive),
  awg: maybe(gauge),
  temperatureC: maybe(z.number().min(-60).max(250)),
  supplyVolts: maybe(positive),
  amps: maybe(positive),
  /** Share of the supply that the wire may lose, 0 to 1. */
  mostShare: maybe(z.number().gt(0).max(1)),
  /** How the current comes home: in a wire of its own, or over the frame. */
  returns: maybe(z.enum(['wire', 'frame'])),
  /** Ohms to the frame from either end, both ends off. */
  nearOhms: maybe(ohmsShown),
  farOhms: maybe(ohmsShown),
  leadOhms: maybe(z.number().min(0).max(5)),
});
export type WireSheet = z.infer<typeof wireSheet>;

export type WireFinding = Finding<
  | 'returnTakenAsWire'
  | 'noSizeSuffices'
  | 'temperatureNotKnown'
  | 'leadsNotKnown'
  | 'notShorted'
  | 'endsDoNotFit'
  | 'shortOutweighs'
>;

export interface WireAnswer extends SheetAnswer {
  /** Smallest usual section that keeps to the share, with what is then lost. */
  size: { mm2: number; ohmsPerKm: number; dropVolts: number; dropShare: number } | null;
  /** Most ohms of one kilometre that keep to the share. */
  mostOhmsPerKm: number | null;
  /** What the wire that is there loses. */
  own: { dropVolts: number; dropShare: number } | null;
  /** Where it touches the frame, metres from the near end, within which limits, and how hard it touches. */
  fault: { metres: number; least: number; most: number; ohms: number } | null;
}

/** Copper whose temperature nobody took stands in this range, °C. */
const UNKNOWN_C = [-10, 60] as const;
/** Leads that nobody has held together read up to this, ohms. */
const LEADS_MOST = 0.5;
/** Where the limits leave more of the wire than this open, the place says nothing. */
const SAYS_SHARE = 0.5;

/**
 * Which wire carries a current at a drop that may be (reference sections 3 and 4), and where a wire touches the frame, from the ohms
 * of both ends: they differ by twice the way to the middle. Ends that do not fit the wire are no place.
 */
export function judgeWire(sheet: WireSheet): WireAnswer {
  const findings: WireFinding[] = [];
  const sized = sizeOf(sheet, findings);
  const fault = faultOf(sheet, findings);
  return { ...sized, fault, findings, next: nextOf(sheet) };
}

function sizeOf(
  { lengthMetres, mm2, awg, supplyVolts, amps, mostShare, returns, temperatureC }: WireSheet,
  findings: WireFinding[],
): Pick<WireAnswer, 'size' | 'mostOhmsPerKm' | 'own'> {
  const none = { size: null, mostOhmsPerKm: null, own: null };
  if (lengthMetres === undefined || supplyVolts === undefined || amps === undefined) return none;
  if (returns === undefined) findings.push({ code: 'returnTakenAsWire' });
  const kilometres = ((returns === 'frame' ? 1 : 2) * lengthMetres) / 1000;
  const warm = 1 + COPPER_PER_K * ((temperatureC ?? REFERENCE_C) - REFERENCE_C);
  const lost = (ohmsPerKm: number) => {
    const dropVolts = amps * ohmsPerKm * warm * kilometres;
    return { dropVolts, dropShare: dropVolts / supplyVolts };
  };
  const area = mm2 ?? (awg === undefined ? undefined : gaugeArea(awg));
  const own = area === undefined ? null : lost(ohmsPerKmOf(area));
  if (mostShare === undefined) return { ...none, own };
  const mostOhmsPerKm = (mostShare * supplyVolts) / amps / kilometres / warm;
  const found = CLASS_5.find(([, ohmsPerKm]) => ohmsPerKm <= mostOhmsPerKm);
  if (!found) findings.push({ code: 'noSizeSuffices', mm2: CLASS_5.at(-1)![0] });
  return {
    size: found ? { mm2: found[0], ohmsPerKm: found[1], ...lost(found[1]) } : null,
    mostOhmsPerKm,
    own,
  };
}

/** A usual section by its standard, any other by its copper. */
function ohmsPerKmOf(mm2: number): number {
  return CLASS_5.find(([area]) => area === mm2)?.[1] ?? conductorOhms(1000, mm2);
}

function faultOf(
  { lengthMetres, mm2, awg, temperatureC, nearOhms, farOhms, leadOhms }: WireSheet,
  findings: WireFinding[],
): WireAnswer['fault'] {
  if (nearOhms === undefined || farOhms === undefined) return null;
  if (nearOhms === 'OL' || farOhms === 'OL') {
    findings.push({ code: nearOhms === farOhms ? 'notShorted' : 'endsDoNotFit' });
    return null;
  }
  const area = mm2 ?? (awg === undefined ? undefined : gaugeArea(awg));
  if (lengthMetres === undefined || area === undefined) return null;
  if (temperatureC === undefined)
    findings.push({ code: 'temperatureNotKnown', from: UNKNOWN_C[0], to: UNKNOWN_C[1] });
  if (leadOhms === undefined) findings.push({ code: 'leadsNotKnown', most: LEADS_MOST });
  const perMetre = (celsius: number) => conductorOhms(1, area) * (1 + COPPER_PER_K * (celsius - REFERENCE_C));
  const metres = (near: number, far: number, ohms: number) => (lengthMetres + (near - far) / ohms) / 2;
  const meter = Math.hypot(meterOhms(nearOhms), meterOhms(farOhms));
  const coldC = temperatureC ?? UNKNOWN_C[0];
  const hotC = temperatureC ?? UNKNOWN_C[1];
  const usual = perMetre(temperatureC ?? REFERENCE_C);
  const place = metres(nearOhms, farOhms, usual);
  // The same leads are in both: they take nothing from the difference, and all of themselves from the touch.
  const reach = [coldC, hotC].flatMap((celsius) =>
    [-meter, meter].map((off) => metres(nearOhms + off, farOhms, perMetre(celsius))),
  );
  const [least, most] = [Math.max(Math.min(...reach), 0), Math.min(Math.max(...reach), lengthMetres)];
  const ohms = (nearOhms + farOhms) / 2 - (leadOhms ?? 0) - (usual * lengthMetres) / 2;
  const slack = meter + (leadOhms ?? LEADS_MOST) + 0.2 * usual * lengthMetres;
  if (ohms < -slack || Math.min(...reach) > lengthMetres || Math.max(...reach) < 0) {
    findings.push({ code: 'endsDoNotFit' });
    return null;
  }
  if (most - least > SAYS_SHARE * lengthMetres) {
    findings.push({ code: 'shortOutweighs', least, most });
    return null;
  }
  return { metres: Math.min(Math.max(place, 0), lengthMetres), least, most, ohms: Math.max(ohms, 0) };
}

function nextOf(sheet: WireSheet): WireAnswer['next'] {
  const { lengthMetres, mm2, awg, nearOhms, farOhms, supplyVolts, amps, mostShare } = sheet;
  if (lengthMetres === undefined) return { ask: 'lengthMetres' };
  if (nearOhms !== undefined || farOhms !== undefined) {
    if (nearOhms === undefined) return { ask: 'nearOhms' };
    if (farOhms === undefined) return { ask: 'farOhms' };
    return mm2 === undefined && awg === undefined ? { ask: 'mm2' } : null;
  }
  if (amps === undefined) return { ask: 'amps' };
  if (supplyVolts === undefined) return { ask: 'supplyVolts' };
  return mostShare === undefined ? { ask: 'mostShare' } : null;
}
