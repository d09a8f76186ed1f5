import { insulationFactor } from '../../circuit/insulationWarmth';
import { z } from 'zod';
import { TESTER_VOLTS } from '../../diagnosis/testerVolts';
import { insulationClass, passOhms as ohmsOfPass } from '../../tables/insulationPass';
import { shopMarks, type ShopMarks } from '../../tables/marks';
import {
  maybe,
  mustDiffer,
  mustKnow,
  names,
  pairKey,
  positive,
  sheetHead,
  thing,
  type Finding,
  type SheetAnswer,
  type Shown,
} from '../sheet';

const reading = z.object({
  from: thing,
  to: thing,
  ohms: z.union([z.number().min(0), z.literal('OL')]),
  seconds: maybe(z.number().min(0).max(100_000)),
  temperatureC: maybe(z.number().min(-60).max(250)),
});

export const insulationSheet = z.object({
  ...sheetHead('insulation'),
  conductors: names(1, 500),
  frame: maybe(thing),
  circuitVolts: maybe(positive),
  testVolts: maybe(positive),
  electronic: maybe(z.array(thing).max(500)),
  policy: maybe(z.enum(['megohm', 'kvPlusOne', 'overRange'])),
  passOhms: maybe(positive),
  /** How its insulation changes with heat: halved every 10 °C, or as thermosetting windings do. */
  material: maybe(z.enum(['usual', 'thermosetting'])),
  readings: maybe(z.array(reading).max(300_000)),
  before: maybe(z.array(reading).max(300_000)),
});
export type InsulationSheet = z.infer<typeof insulationSheet>;
type Reading = z.infer<typeof reading>;

export type InsulationVerdict = 'good' | 'watch' | 'bad';
export type InsulationRefusal = 'electronicConnected' | 'overClass';
export type InsulationFinding = Finding<
  | 'electronicConnected'
  | 'overClass'
  | 'underClass'
  | 'classNotKnown'
  | 'testVoltsNotKnown'
  | 'temperatureNotKnown'
  | 'stillCharging'
  | 'falls'
  | 'belowPast'
>;

export interface InsulationCell {
  from: string;
  to: string;
  verdict: InsulationVerdict | null;
  ohms: Shown;
  /** 60 s over 30 s, and 600 s over 60 s. */
  ratio: number | null;
  index: number | null;
  /** As it would read at 40 °C; null where the temperature is not known, it was over range, or no rule holds there. */
  ohms40: number | null;
  /** Current through it at the test volts, A. */
  leakAmps: number | null;
}

export interface InsulationAnswer extends SheetAnswer {
  cells: InsulationCell[];
  bad: [string, string][];
  falling: [string, string][];
  refused: InsulationRefusal | null;
  passOhms: number | null;
}

/** Test volts above what the line's class holds for (IEC 60364-6; reference section 16). */
const HIGH_TESTER_VOLTS = 1000;
/** What an over-range tester ends at: as such it is compared and drawn, ohms. */
export const OVER_RANGE = 2e9;
/** What passes within this of the mark is watched. */
const WATCH_TIMES = 10;
/** It falls when the last of a run is this share of its highest, or less. */
const FALLS_TO = 0.9;
/** Much below its past: less than this share of it. */
const PAST_SHARE = 0.3;
/** While it charges it reads low: a reading earlier than this passes nothing, and fails only what is far below, seconds. */
const CHARGED_SECONDS = 30;
const FAR_BELOW = 0.1;
/** Temperature that windings are compared at, and the rule of thermosetting ones, K and °C (IEEE 43-2013). */
const REFERENCE_40 = 40;
const KELVIN = 273;
const THERMOSETTING_C = [10, 40, 85] as const;
const THERMOSETTING_COLD = 1245;
const THERMOSETTING_WARM = 4230;
/** Above this after a minute the index says nothing (IEEE 43), ohms. */
const INDEX_MOST = 5e9;

/**
 * Judges conductors against the frame and each other. Refuses test volts above the circuit's class and anything electronic that is
 * still connected; volts below the class pass nothing. `marks` are the shop's.
 */
export function judgeInsulation(sheet: InsulationSheet, marks: ShopMarks = shopMarks({})): InsulationAnswer {
  const { conductors, frame, readings = [], before = [], electronic = [], testVolts, circuitVolts } = sheet;
  const findings: InsulationFinding[] = [];
  const known = frame === undefined ? conductors : [...conductors, frame];
  for (const [field, list] of Object.entries({ readings, before })) {
    list.forEach(({ from, to }, at) => {
      mustKnow(known, from, `${field}[${at}].from`);
      mustKnow(known, to, `${field}[${at}].to`);
      mustDiffer(from, to, `${field}[${at}]`);
    });
  }
  const own = circuitVolts === undefined ? null : classOf(circuitVolts, marks);
  const passOhms = markOf(sheet, own, marks);
  const refused = refusalOf(electronic, testVolts, own, findings);
  if (refused) return { findings, cells: [], bad: [], falling: [], refused, passOhms, next: null };
  if (!own) findings.push({ code: 'classNotKnown' });
  if (testVolts === undefined) findings.push({ code: 'testVoltsNotKnown' });
  if (own && testVolts !== undefined && testVolts < own.testVolts)
    findings.push({ code: 'underClass', testVolts, wanted: own.testVolts });
  if (readings.length > 0 && readings.every(({ temperatureC }) => temperatureC === undefined))
    findings.push({ code: 'temperatureNotKnown' });
  // What passes has to pass at the volts of its class.
  const mayPass = own !== null && testVolts !== undefined && testVolts >= own.testVolts && passOhms !== null;
  const runs = runsOf(readings);
  const past = runsOf(before);
  const cells: InsulationCell[] = [];
  const falling: [string, string][] = [];
  let charging: Reading | null = null;
  for (const [key, run] of runs) {
    const { from, to } = run[0]!;
    const settled = settledOf(run);
    const falls = fallsOf(run);
    if (falls) {
      falling.push([from, to]);
      findings.push({ code: 'falls', from, to });
    }
    const earlier = past.get(key);
    const below = earlier !== undefined && isBelow(settled, settledOf(earlier));
    if (below) findings.push({ code: 'belowPast', from, to });
    const ohms = settled.ohms === 'OL' ? Infinity : settled.ohms;
    let verdict: InsulationVerdict | null = null;
    if (passOhms !== null && ohms < passOhms) {
      const early = (settled.seconds ?? Infinity) < CHARGED_SECONDS && ohms > FAR_BELOW * passOhms;
      verdict = early ? null : 'bad';
      if (early) {
        charging ??= settled;
        findings.push({ code: 'stillCharging', from, to, seconds: settled.seconds });
      }
    } else if (mayPass) {
      const near = passOhms !== Infinity && ohms < WATCH_TIMES * passOhms;
      verdict = near || falls || below ? 'watch' : 'good';
    }
    cells.push({
      from,
      to,
      verdict,
      ohms: settled.ohms,
      ...ratiosOf(run),
      ohms40: ohmsAt40(settled, sheet.material ?? 'usual'),
      leakAmps:
        testVolts === undefined || settled.ohms === 'OL' || settled.ohms === 0
          ? null
          : testVolts / settled.ohms,
    });
  }
  const bad = cells
    .filter(({ verdict }) => verdict === 'bad')
    .map(({ from, to }): [string, string] => [from, to]);
  return {
    findings,
    cells,
    bad,
    falling,
    refused: null,
    passOhms: passOhms === Infinity ? null : passOhms,
    next: nextOf(sheet, own !== null, passOhms !== null, runs, charging),
  };
}

/** Test volts of a circuit's class, and what it must hold. */
function classOf(volts: number, { insulation }: ShopMarks): { testVolts: number; ohms: number } {
  const own = insulationClass(volts);
  const testVolts = { extraLow: TESTER_VOLTS.low, line: TESTER_VOLTS.line, high: HIGH_TESTER_VOLTS }[own];
  return { testVolts, ohms: insulation[own].ohms };
}

/** Ohms from which it passes; null while neither class nor policy is known. */
function markOf(
  { passOhms, policy, circuitVolts }: InsulationSheet,
  own: { ohms: number } | null,
  { insulationPass }: ShopMarks,
): number | null {
  if (passOhms !== undefined) return passOhms;
  const pass = policy ?? (insulationPass === 'table' ? undefined : insulationPass);
  if (pass === undefined) return own?.ohms ?? null;
  if (pass === 'kvPlusOne' && circuitVolts === undefined) return null;
  return ohmsOfPass(pass, circuitVolts ?? 0);
}

function refusalOf(
  electronic: readonly string[],
  testVolts: number | undefined,
  own: { testVolts: number } | null,
  findings: InsulationFinding[],
): InsulationRefusal | null {
  if (electronic.length > 0) {
    findings.push({ code: 'electronicConnected', parts: [...electronic] });
    return 'electronicConnected';
  }
  if (own && testVolts !== undefined && testVolts > own.testVolts) {
    findings.push({ code: 'overClass', testVolts, most: own.testVolts });
    return 'overClass';
  }
  return null;
}

/** Readings by pair, in the order of their seconds. */
function runsOf(readings: readonly Reading[]): Map<string, Reading[]> {
  const runs = new Map<string, Reading[]>();
  for (const one of readings) {
    const key = pairKey(one.from, one.to);
    const run = runs.get(key);
    if (run) run.push(one);
    else runs.set(key, [one]);
  }
  for (const run of runs.values())
    if (run.every(({ seconds }) => seconds !== undefined)) run.sort((a, b) => a.seconds! - b.seconds!);
  return runs;
}

/** What a run is judged by: the lowest of what was read once it had charged; the last where all of it is early. */
function settledOf(run: readonly Reading[]): Reading {
  const charged = run.filter(({ seconds }) => seconds === undefined || seconds >= 2 * CHARGED_SECONDS);
  if (charged.length === 0) return run.at(-1)!;
  return charged.reduce((least, one) => (sizeOf(one.ohms) < sizeOf(least.ohms) ? one : least));
}

function sizeOf(ohms: Shown): number {
  return ohms === 'OL' ? OVER_RANGE : Math.min(ohms, OVER_RANGE);
}

function fallsOf(run: readonly Reading[]): boolean {
  if (run.length < 2) return false;
  const sizes = run.map(({ ohms }) => sizeOf(ohms));
  return sizes.at(-1)! <= FALLS_TO * Math.max(...sizes.slice(0, -1));
}

/** Factor to 40 °C after IEEE 43 (reference section 16); null outside the range of its rule. */
export function factorTo40(celsius: number, material: 'usual' | 'thermosetting'): number | null {
  if (material === 'usual') return insulationFactor(celsius, REFERENCE_40);
  const [least, bend, most] = THERMOSETTING_C;
  if (celsius < least || celsius > most) return null;
  const slope = celsius < bend ? THERMOSETTING_COLD : THERMOSETTING_WARM;
  return Math.exp(-slope * (1 / (celsius + KELVIN) - 1 / (REFERENCE_40 + KELVIN)));
}

function ohmsAt40({ ohms, temperatureC }: Reading, material: 'usual' | 'thermosetting'): number | null {
  if (ohms === 'OL' || temperatureC === undefined) return null;
  const factor = factorTo40(temperatureC, material);
  return factor === null ? null : factor * ohms;
}

/** Much less than it was; both at 40 °C where both temperatures are known (it halves with every 10 K, IEEE 43). */
function isBelow(now: Reading, past: Reading): boolean {
  const both = now.temperatureC !== undefined && past.temperatureC !== undefined;
  const at40 = ({ ohms, temperatureC }: Reading) =>
    sizeOf(ohms) * (both ? factorTo40(temperatureC!, 'usual')! : 1);
  // Over range is at least what the tester ends at: less than it is known only of a figure.
  return now.ohms !== 'OL' && at40(now) < PAST_SHARE * at40(past);
}

function ratiosOf(run: readonly Reading[]): { ratio: number | null; index: number | null } {
  const at = (seconds: number) => {
    const ohms = run.find((one) => one.seconds === seconds)?.ohms;
    return typeof ohms === 'number' && ohms > 0 ? ohms : null;
  };
  const [half, minute, ten] = [at(30), at(60), at(600)];
  return {
    ratio: half !== null && minute !== null ? minute / half : null,
    index: minute !== null && ten !== null && minute <= INDEX_MOST ? ten / minute : null,
  };
}

/** First what everything hangs on, then a reading taken too early, then each conductor to the frame, then each to each. */
function nextOf(
  { conductors, frame, testVolts }: InsulationSheet,
  classKnown: boolean,
  markKnown: boolean,
  runs: ReadonlyMap<string, unknown>,
  charging: Reading | null,
): InsulationAnswer['next'] {
  if (!classKnown || !markKnown) return { ask: 'circuitVolts' };
  if (testVolts === undefined) return { ask: 'testVolts' };
  if (charging) return { from: charging.from, to: charging.to };
  if (frame !== undefined) {
    const open = conductors.find((one) => one !== frame && !runs.has(pairKey(one, frame)));
    if (open !== undefined) return { from: open, to: frame };
  }
  for (let i = 0; i < conductors.length; i++)
    for (let j = i + 1; j < conductors.length; j++)
      if (!runs.has(pairKey(conductors[i]!, conductors[j]!)))
        return { from: conductors[i]!, to: conductors[j]! };
  return null;
}
