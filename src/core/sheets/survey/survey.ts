import { z } from 'zod';
import {
  figure,
  maybe,
  mustDiffer,
  mustKnow,
  names,
  ohmsShown,
  pairKey,
  positive,
  sheetHead,
  thing,
  type Finding,
  type SheetAnswer,
  type Shown,
} from '../sheet';
import { median } from '../../statistics';

const ROLES = [
  'supply',
  'return',
  'signal',
  'reference',
  'driverLow',
  'driverHigh',
  'nothing',
  'floating',
] as const;
export type PinRole = (typeof ROLES)[number];

const byPin = z.record(thing, figure);

export const surveySheet = z.object({
  ...sheetHead('survey'),
  pins: names(1, 200),
  supplyVolts: maybe(positive),
  referenceVolts: maybe(positive),
  unplugged: maybe(byPin),
  plugged: maybe(byPin),
  commanded: maybe(byPin),
  ohmsToFrame: maybe(z.record(thing, ohmsShown)),
  ohmsBetween: maybe(z.array(z.object({ from: thing, to: thing, value: ohmsShown })).max(20_000)),
  expected: maybe(z.record(thing, z.enum(ROLES))),
  sweep: maybe(z.array(z.object({ position: figure, volts: figure })).max(100_000)),
});
export type SurveySheet = z.infer<typeof surveySheet>;

export type WrongCode =
  | 'noSupply'
  | 'lowSupply'
  | 'openReturn'
  | 'returnLifted'
  | 'noReference'
  | 'referenceOff'
  | 'shortToFrame'
  | 'shortToSupply'
  | 'notSwitched'
  | 'otherRole';
export type SensorCode = 'good' | 'deadSpot' | 'noise' | 'stuck' | 'outOfRange';
export type SurveyFinding = Finding<'supplyNotKnown' | 'referenceNotKnown' | 'fewPoints' | 'at'>;

export interface SurveyAnswer extends SheetAnswer {
  roles: Record<string, { role: PinRole | null; share: number }>;
  wrong: { pin: string; code: WrongCode }[];
  sensor: SensorCode | null;
}

/** A role is settled from this share on. */
const SETTLED = 0.8;
/** A return loses no more than this under load; a reference may be so much off (verify), volts. */
const RETURN_VOLTS = 0.2;
const REFERENCE_OFF = 0.25;
const RETURN_OHMS = 2;
const OPEN_OHMS = 1e6;
const USUAL_REFERENCE = 5;

type Quantity = 'unplugged' | 'plugged' | 'commanded';
/** What a pin may stand at: at a value, or anywhere within limits. */
type Level = { at: number } | { from: number; to: number };

/**
 * What each pin of a plug is, from volts unplugged, plugged and commanded and from ohms to the frame on the harness side. Roles that the
 * readings leave open stay open. A three-wire sensor's sweep is judged beside it (reference section 17).
 */
export function surveyPins(sheet: SurveySheet): SurveyAnswer {
  const { pins, expected = {}, ohmsBetween = [], sweep } = sheet;
  const findings: SurveyFinding[] = [];
  for (const field of ['unplugged', 'plugged', 'commanded', 'ohmsToFrame', 'expected'] as const)
    for (const pin of Object.keys(sheet[field] ?? {})) mustKnow(pins, pin, `${field}.${pin}`);
  ohmsBetween.forEach(({ from, to }, at) => {
    mustKnow(pins, from, `ohmsBetween[${at}].from`);
    mustKnow(pins, to, `ohmsBetween[${at}].to`);
    mustDiffer(from, to, `ohmsBetween[${at}]`);
  });
  const known = pins.some(
    (pin) => sheet.unplugged?.[pin] !== undefined || sheet.plugged?.[pin] !== undefined,
  );
  if (sheet.supplyVolts === undefined) findings.push({ code: 'supplyNotKnown' });
  const roles = Object.fromEntries(pins.map((pin) => [pin, roleOf(sheet, pin)]));
  const wrong = pins.flatMap((pin) => {
    const role = expected[pin];
    const code = role && wrongOf(sheet, pin, role, roles[pin]!.role);
    return code ? [{ pin, code }] : [];
  });
  const sensor = sweep ? judgeSweep(sweep, sheet.referenceVolts, findings) : null;
  return { roles, wrong, sensor, findings, next: nextOf(sheet, roles, known, sensor) };
}

/** Likeliest role of a pin; null, with the share of the likeliest, where it is not settled. */
function roleOf(sheet: SurveySheet, pin: string): { role: PinRole | null; share: number } {
  const supply = sheet.supplyVolts;
  const reading = (kind: Quantity) => sheet[kind]?.[pin];
  const ohms = sheet.ohmsToFrame?.[pin];
  const read = (['unplugged', 'plugged', 'commanded'] as const).filter((kind) => reading(kind) !== undefined);
  if ((read.length === 0 && ohms === undefined) || supply === undefined)
    return { role: null, share: 1 / ROLES.length };
  const logs = ROLES.map((role) => {
    let log = Math.log(PRIORS[role]);
    for (const kind of read)
      log += Math.log(
        densityOf(
          reading(kind)!,
          levelOf(role, kind, supply, sheet.referenceVolts ?? USUAL_REFERENCE),
          supply,
        ),
      );
    if (ohms !== undefined) log += Math.log(ohmsDensity(ohms, role));
    log += Math.log(partDensity(sheet, pin, role));
    return log;
  });
  const most = Math.max(...logs);
  const shares = logs.map((log) => Math.exp(log - most));
  const total = shares.reduce((sum, share) => sum + share, 0);
  const at = logs.indexOf(most);
  const share = shares[at]! / total;
  return { role: share >= SETTLED ? ROLES[at]! : null, share };
}

const PRIORS: Readonly<Record<PinRole, number>> = {
  supply: 0.18,
  return: 0.18,
  signal: 0.14,
  reference: 0.1,
  driverLow: 0.13,
  driverHigh: 0.13,
  nothing: 0.09,
  floating: 0.05,
};

/** What a role stands at. A signal is pulled somewhere while the sensor is off; an open wire follows whatever is coupled into it. */
function levelOf(role: PinRole, kind: Quantity, supply: number, reference: number): Level[] {
  const anywhere: Level = { from: 0, to: supply };
  switch (role) {
    case 'supply':
      return [{ at: supply }];
    case 'return':
      return [{ at: 0 }];
    case 'reference':
      return [{ at: reference }];
    case 'signal':
      return kind === 'unplugged'
        ? [{ at: 0 }, { at: reference }]
        : [{ from: 0.05 * reference, to: 0.95 * reference }];
    case 'driverLow':
      // Its load pulls it up while nobody commands it.
      return kind === 'unplugged'
        ? [{ at: 0 }, { from: 0, to: 0.5 * supply }]
        : kind === 'plugged'
          ? [{ at: supply }]
          : [{ at: 0.02 * supply }];
    case 'driverHigh':
      return kind === 'commanded'
        ? [{ at: supply }]
        : kind === 'plugged'
          ? [{ at: 0 }]
          : [{ at: 0 }, { from: 0, to: 0.5 * supply }];
    case 'nothing':
      return [{ at: 0 }];
    case 'floating':
      return kind === 'unplugged' ? [{ from: 0.01 * supply, to: 0.5 * supply }, { at: 0 }] : [anywhere];
  }
}

function densityOf(volts: number, levels: readonly Level[], supply: number): number {
  const sigma = 0.02 * supply + 0.05;
  const one = (level: Level) => {
    if ('at' in level) {
      const z = (volts - level.at) / Math.max(sigma, 0.03 * level.at);
      return Math.exp(-0.5 * z * z) / (sigma * Math.sqrt(2 * Math.PI));
    }
    return volts >= level.from - sigma && volts <= level.to + sigma
      ? 1 / (level.to - level.from + 2 * sigma)
      : 0;
  };
  const mean = levels.reduce((sum, level) => sum + one(level), 0) / levels.length;
  return 0.98 * mean + 0.02 / (1.2 * supply);
}

/** Ohms to the frame on the harness side, nothing powered: a return is tied to it, what leads nowhere is open. */
function ohmsDensity(ohms: Shown, role: PinRole): number {
  const value = ohms === 'OL' ? Infinity : Math.max(ohms, 0);
  const near = value <= RETURN_OHMS;
  const open = value > OPEN_OHMS;
  switch (role) {
    case 'return':
      return near ? 0.95 : open ? 0.01 : 0.04;
    case 'nothing':
    case 'floating':
      return open ? 0.95 : near ? 0.01 : 0.04;
    case 'supply':
      return near ? 0.05 : open ? 0.25 : 0.7;
    case 'signal':
    case 'reference':
      return near ? 0.02 : open ? 0.28 : 0.7;
    case 'driverLow':
    case 'driverHigh':
      return near ? 0.03 : open ? 0.47 : 0.5;
  }
}

/** On the part a pin that leads to no other is not connected. */
function partDensity({ ohmsBetween = [], pins }: SurveySheet, pin: string, role: PinRole): number {
  const own = ohmsBetween.filter(({ from, to }) => from === pin || to === pin);
  const met = new Set(own.map(({ from, to }) => pairKey(from, to)));
  if (own.length === 0) return 1;
  const tied = own.some(({ value }) => value !== 'OL' && value < OPEN_OHMS);
  if (tied) return role === 'nothing' ? 0.02 : 1;
  const whole = met.size >= pins.length - 1;
  return role === 'nothing' ? 1 : whole ? 0.15 : 0.7;
}

/** What is wrong with a pin that should be something; null where it is that, or nothing was read that says otherwise. */
function wrongOf(sheet: SurveySheet, pin: string, role: PinRole, found: PinRole | null): WrongCode | null {
  const { supplyVolts, referenceVolts = USUAL_REFERENCE } = sheet;
  const free = sheet.unplugged?.[pin];
  const plugged = sheet.plugged?.[pin];
  const commanded = sheet.commanded?.[pin];
  const ohms = sheet.ohmsToFrame?.[pin];
  const near = (volts: number | undefined, wanted: number) =>
    volts !== undefined && Math.abs(volts - wanted) <= 0.1 * wanted;
  switch (role) {
    case 'supply': {
      if (supplyVolts === undefined) break;
      const volts = plugged ?? free;
      if (volts === undefined) return null;
      if (volts < 0.15 * supplyVolts)
        return ohms !== undefined && ohms !== 'OL' && ohms <= RETURN_OHMS ? 'shortToFrame' : 'noSupply';
      return volts < 0.9 * supplyVolts ? 'lowSupply' : null;
    }
    case 'return': {
      if (ohms !== undefined && (ohms === 'OL' || ohms > 50)) return 'openReturn';
      const volts = commanded ?? plugged;
      if (volts !== undefined && supplyVolts !== undefined && volts > 0.85 * supplyVolts) return 'openReturn';
      return volts !== undefined && volts > RETURN_VOLTS ? 'returnLifted' : null;
    }
    case 'reference': {
      const volts = plugged ?? free;
      if (volts === undefined) return null;
      if (volts < 0.3) return 'noReference';
      if (supplyVolts !== undefined && near(volts, supplyVolts)) return 'shortToSupply';
      return Math.abs(volts - referenceVolts) > REFERENCE_OFF ? 'referenceOff' : null;
    }
    case 'signal': {
      if (plugged === undefined) return null;
      if (supplyVolts !== undefined && near(plugged, supplyVolts)) return 'shortToSupply';
      if (ohms !== undefined && ohms !== 'OL' && ohms <= RETURN_OHMS) return 'shortToFrame';
      return null;
    }
    case 'driverLow':
    case 'driverHigh': {
      if (ohms !== undefined && ohms !== 'OL' && ohms <= RETURN_OHMS) return 'shortToFrame';
      if (plugged === undefined || commanded === undefined || supplyVolts === undefined) return null;
      return Math.abs(plugged - commanded) < 0.3 * supplyVolts ? 'notSwitched' : null;
    }
    case 'nothing':
    case 'floating':
      break;
  }
  return found !== null && found !== role ? 'otherRole' : null;
}

const LEAST_POINTS = 5;
const STUCK_SHARE = 0.03;
const JUMP_SHARE = 0.12;
const NOISE_SHARE = 0.03;

/** A sensor turned through its travel: dead spot, noise, no change, out of its range, or good; null for too few points. */
function judgeSweep(
  sweep: readonly { position: number; volts: number }[],
  referenceVolts: number | undefined,
  findings: SurveyFinding[],
): SensorCode | null {
  if (sweep.length < LEAST_POINTS) {
    findings.push({ code: 'fewPoints', wanted: LEAST_POINTS });
    return null;
  }
  if (referenceVolts === undefined) findings.push({ code: 'referenceNotKnown', takenAs: USUAL_REFERENCE });
  const reference = referenceVolts ?? USUAL_REFERENCE;
  const points = [...sweep].sort((a, b) => a.position - b.position);
  const volts = points.map((one) => one.volts);
  const span = Math.max(...volts) - Math.min(...volts);
  const rail = (value: number) => value < 0.05 * reference || value > 0.95 * reference;
  if (span < STUCK_SHARE * reference) return rail(median(volts)) ? 'outOfRange' : 'stuck';
  // A point that leaves both its neighbours, and comes back, is a place where the wiper lifts.
  const lifted = volts.flatMap((value, k) => {
    if (k === 0 || k === volts.length - 1) return [];
    const [a, b] = [neighbour(volts, k, -1, rail), neighbour(volts, k, 1, rail)];
    const [low, high] = [Math.min(a, b), Math.max(a, b)];
    const off = Math.max(low - value, value - high);
    return off > JUMP_SHARE * reference ? [k] : [];
  });
  const toRail = lifted.filter((k) => rail(volts[k]!));
  if (toRail.length > 0) {
    findings.push({ code: 'at', position: points[toRail[0]!]!.position });
    return 'deadSpot';
  }
  if (rail(volts[0]!) || rail(volts.at(-1)!)) return 'outOfRange';
  if (lifted.length === 1) {
    findings.push({ code: 'at', position: points[lifted[0]!]!.position });
    return 'deadSpot';
  }
  const rough = roughness(volts);
  if (lifted.length > 1 || rough > NOISE_SHARE * reference) return 'noise';
  return 'good';
}

/** The next point on one side that is not at a rail itself. */
function neighbour(
  volts: readonly number[],
  from: number,
  step: 1 | -1,
  rail: (value: number) => boolean,
): number {
  for (let at = from + step; at >= 0 && at < volts.length; at += step)
    if (!rail(volts[at]!)) return volts[at]!;
  return volts[from + step]!;
}

/** How far the points go back on the way that they take on the whole, root mean square. */
function roughness(volts: readonly number[]): number {
  const up = volts.at(-1)! >= volts[0]!;
  let [sum, count] = [0, 0];
  for (let k = 1; k < volts.length; k++) {
    const back = (up ? -1 : 1) * (volts[k]! - volts[k - 1]!);
    sum += Math.max(back, 0) ** 2;
    count++;
  }
  return Math.sqrt(sum / count);
}

function nextOf(
  sheet: SurveySheet,
  roles: SurveyAnswer['roles'],
  known: boolean,
  sensor: SensorCode | null,
): SurveyAnswer['next'] {
  if (sheet.supplyVolts === undefined) return { ask: 'supplyVolts' };
  if (!known) return { ask: `unplugged.${sheet.pins[0]!}` };
  // The pin that is least settled, and of it what was not read, the harmless first.
  const open = sheet.pins
    .filter((pin) => roles[pin]!.role === null)
    .sort((a, b) => roles[a]!.share - roles[b]!.share);
  for (const pin of open)
    for (const field of ['unplugged', 'ohmsToFrame', 'plugged', 'commanded'] as const)
      if (sheet[field]?.[pin] === undefined) return { ask: `${field}.${pin}` };
  return sheet.sweep && sensor === null ? { ask: 'sweep' } : null;
}
