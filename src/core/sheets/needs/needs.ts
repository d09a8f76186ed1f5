import { z } from 'zod';
import { shopMarks, type ShopMarks } from '../../tables/marks';
import { figure, maybe, positive, sheetHead, type Finding, type SheetAnswer } from '../sheet';

const motion = maybe(z.enum(['moves', 'still']));

export const needsSheet = z.object({
  ...sheetHead('needs'),
  /** What it works with; air where nobody says. Oil is read by gauges alone. */
  medium: maybe(z.enum(['air', 'oil', 'vacuum'])),
  /** Gauge at the valve's supply port: while it is commanded, and at rest. */
  supplyKpa: maybe(figure),
  restKpa: maybe(figure),
  /** Least pressure that it shifts with, by its maker. */
  neededKpa: maybe(positive),
  /** What comes out of the line to it, taken off and opened slowly, and whether water comes with it. */
  inlet: maybe(z.enum(['full', 'weak', 'none'])),
  wet: maybe(z.boolean()),
  clicks: maybe(z.boolean()),
  /** The command on its way: the controller's bit, its output card, the end of the cable, the coil, all with the coil plugged on. */
  bit: maybe(z.boolean()),
  cardVolts: maybe(figure),
  cableVolts: maybe(figure),
  coilVolts: maybe(figure),
  /** Of a valve with two coils what stands at the other one; both on at once move nothing. */
  otherCoilVolts: maybe(figure),
  twoCoils: maybe(z.boolean()),
  ratedVolts: maybe(positive),
  /** What it moves does when it is commanded, and when it is pushed by hand. */
  commanded: motion,
  override: motion,
  /** A finger on the exhaust for ten seconds, then let go: air pushes, or nothing does. */
  exhaust: maybe(z.enum(['none', 'pushes'])),
  /** The same with both lines to what it moves off and its outlets plugged: what still pushes passes the valve itself. */
  exhaustAlone: maybe(z.enum(['none', 'pushes'])),
  /** What comes out of its outlet, line off, while it is pushed by hand. */
  outlet: maybe(z.enum(['full', 'weak', 'none'])),
  /** The same on command, and at rest; at oil a gauge there instead. */
  outletCommanded: maybe(z.enum(['full', 'weak', 'none'])),
  outletAtRest: maybe(z.enum(['full', 'weak', 'none'])),
  outletKpa: maybe(figure),
  /** Volts across its coil while nothing commands it. */
  coilAtRestVolts: maybe(figure),
  /** This valve on the neighbour's plug, and this plug on the neighbour's valve. */
  onNeighboursPlug: motion,
  plugOnNeighbour: motion,
});
export type NeedsSheet = z.infer<typeof needsSheet>;

export type Medium = NonNullable<NeedsSheet['medium']>;

/** What a valve needs to do its work, and what its work needs behind it. */
export type Need = 'electricity' | 'coil' | 'air' | 'valve' | 'beyond';
/** Links of the command, in its order. */
export const LINKS = ['bit', 'card', 'cable', 'coil'] as const;
export type Link = (typeof LINKS)[number];

export type NeedsFinding = Finding<
  | 'fallsInFlow'
  | 'wetAir'
  | 'neededNotKnown'
  | 'coilRatingNotKnown'
  | 'midwayForAir'
  | 'standsMidway'
  | 'blowsAtRest'
  | 'overrideAlone'
  | 'bothCoils'
  | 'passesBeyond'
  | 'clickWithoutVolts'
>;

export interface NeedsAnswer extends SheetAnswer {
  /** What it lacks, and what it surely has. What stands in neither is not known. */
  missing: Need[];
  has: Need[];
  /** Where the command is lost; null while that is not known, or nothing is. */
  firstLoss: Link | null;
  medium: Medium;
}

/** Volts under this share of the rating are none. */
const DEAD_SHARE = 0.2;
/** Less than this is no air whatever the valve needs, kPa. */
const NO_AIR = 50;

/**
 * The three needs of a valve, electricity, air and cleanliness, from a few looks, a gauge and a finger (reference `fluid-power.md`
 * sections 1 to 3). Back pressure at the exhaust of a valve without air is the want of air, not the valve's fault.
 */
export function judgeNeeds(sheet: NeedsSheet, marks: ShopMarks = shopMarks({})): NeedsAnswer {
  const findings: NeedsFinding[] = [];
  const chain = commandOf(sheet, marks, findings);
  const air = airOf(sheet, marks, findings);
  const electricity = electricityOf(sheet, chain.firstLoss, chain.states, findings);
  const missing: Need[] = [];
  const has: Need[] = [];
  const put = (need: Need, state: boolean | null) => {
    if (state !== null) (state ? has : missing).push(need);
  };
  put('electricity', electricity);
  put('coil', coilOf(sheet, electricity, findings));
  put('air', air);
  put('valve', valveOf(sheet, air, electricity, findings));
  put('beyond', beyondOf(sheet, air, electricity));
  const settled = missing.length > 0 || sheet.commanded === 'moves';
  return {
    missing,
    has,
    firstLoss: chain.firstLoss,
    medium: sheet.medium ?? 'air',
    findings,
    next: settled && chain.ask === null ? null : nextOf(sheet, { air, electricity, ask: chain.ask, settled }),
  };
}

type LinkState = 'live' | 'bad' | null;

/** The command link by link; the next one to look at is the one in the middle of what is not known. */
function commandOf(
  { bit, cardVolts, cableVolts, coilVolts, ratedVolts }: NeedsSheet,
  { coilVolts: limits }: ShopMarks,
  findings: NeedsFinding[],
): { firstLoss: Link | null; ask: Link | null; states: readonly LinkState[] } {
  const read = [cardVolts, cableVolts, coilVolts];
  if (ratedVolts === undefined && read.some((volts) => volts !== undefined))
    findings.push({ code: 'coilRatingNotKnown' });
  const stateOf = (volts: number | undefined): LinkState => {
    if (volts === undefined || ratedVolts === undefined) return null;
    const share = Math.abs(volts) / ratedVolts;
    return share >= limits.valve.pullIn ? 'live' : 'bad';
  };
  const states: LinkState[] = [bit === undefined ? null : bit ? 'live' : 'bad', ...read.map(stateOf)];
  const lastLive = states.lastIndexOf('live');
  const firstBad = states.findIndex((state, at) => at > lastLive && state === 'bad');
  if (firstBad < 0) return { firstLoss: null, ask: null, states };
  if (firstBad === lastLive + 1) return { firstLoss: LINKS[firstBad]!, ask: null, states };
  return { firstLoss: null, ask: LINKS[(lastLive + firstBad) >> 1]!, states };
}

function electricityOf(
  { clicks, coilVolts, otherCoilVolts, ratedVolts, onNeighboursPlug, plugOnNeighbour, commanded }: NeedsSheet,
  firstLoss: Link | null,
  states: readonly LinkState[],
  findings: NeedsFinding[],
): boolean | null {
  const atCoil = states.at(-1);
  if (otherCoilVolts !== undefined && ratedVolts !== undefined && atCoil === 'live') {
    if (Math.abs(otherCoilVolts) >= DEAD_SHARE * ratedVolts) {
      findings.push({ code: 'bothCoils' });
      return false;
    }
  }
  const none =
    coilVolts !== undefined && ratedVolts !== undefined && Math.abs(coilVolts) < DEAD_SHARE * ratedVolts;
  if (clicks === true && none) {
    findings.push({ code: 'clickWithoutVolts' });
    return null;
  }
  if (atCoil === 'live' || plugOnNeighbour === 'moves') return true;
  if (atCoil === 'bad' || firstLoss !== null || plugOnNeighbour === 'still') return false;
  // On the neighbour's plug it works, and on its own it does not.
  if (onNeighboursPlug === 'moves' && commanded === 'still') return false;
  return clicks === true || commanded === 'moves' ? true : null;
}

function coilOf(
  { clicks, commanded, onNeighboursPlug }: NeedsSheet,
  electricity: boolean | null,
  findings: NeedsFinding[],
): boolean | null {
  if (findings.some(({ code }) => code === 'clickWithoutVolts')) return null;
  if (clicks === true || commanded === 'moves' || onNeighboursPlug === 'moves') return true;
  return clicks === false && electricity === true ? false : null;
}

function airOf(
  { supplyKpa, restKpa, neededKpa, inlet, wet, override, commanded, onNeighboursPlug }: NeedsSheet,
  { holds }: ShopMarks,
  findings: NeedsFinding[],
): boolean | null {
  if (wet) findings.push({ code: 'wetAir' });
  if (supplyKpa !== undefined && restKpa !== undefined && restKpa > 0) {
    const share = 1 - supplyKpa / restKpa;
    if (share > holds.supplyFalls) findings.push({ code: 'fallsInFlow', share });
  }
  if ([override, commanded, onNeighboursPlug].includes('moves')) return true;
  // A gauge shows full pressure behind a choke as long as nothing flows; an open line does not.
  if (inlet === 'weak' || inlet === 'none') return false;
  if (supplyKpa !== undefined) {
    if (Math.abs(supplyKpa) < NO_AIR) return false;
    if (neededKpa !== undefined) return Math.abs(supplyKpa) >= neededKpa;
    findings.push({ code: 'neededNotKnown' });
  }
  return inlet === 'full' ? true : null;
}

function valveOf(
  sheet: NeedsSheet,
  air: boolean | null,
  electricity: boolean | null,
  findings: NeedsFinding[],
): boolean | null {
  const { exhaust, exhaustAlone, override, inlet, outlet, commanded, clicks, twoCoils, otherCoilVolts } =
    sheet;
  if (commanded === 'moves') return true;
  const passes = passesOnCommand(sheet, air, electricity);
  if (passes !== null) return passes;
  if (passesAtRest(sheet)) {
    findings.push({ code: 'blowsAtRest' });
    return false;
  }
  if (exhaust === 'pushes') {
    if (air === false) findings.push({ code: 'midwayForAir' });
    // What pushes may come through the valve, or through the piston behind it.
    if (air !== true || exhaustAlone === undefined) return null;
    findings.push({ code: exhaustAlone === 'pushes' ? 'standsMidway' : 'passesBeyond' });
    return exhaustAlone === 'none';
  }
  if (override === 'still' && air === true && outlet !== undefined) {
    // A spool that stands mid-way blows full into the open, too.
    if (outlet === 'full') return exhaust === 'none' ? true : null;
    // Little comes out where little goes in: the line to it first.
    return inlet === 'full' ? false : null;
  }
  if (override === 'moves' && commanded === 'still' && electricity === true && clicks === true) {
    if (twoCoils && otherCoilVolts === undefined) return null;
    // The spool is free and has its air, the coil pulls: what carries the pilot air between them does not.
    findings.push({ code: 'overrideAlone' });
    return false;
  }
  return null;
}

/** A gauge at an outlet that stands under this share of the supply's reads nothing there, and over the other all of it. */
const NOTHING_SHARE = 0.2;
const ALL_SHARE = 0.8;

/** Whether a valve that has its air, its volts and a coil that pulls lets anything through on command; null where that was not looked at. */
function passesOnCommand(
  sheet: NeedsSheet,
  air: boolean | null,
  electricity: boolean | null,
): boolean | null {
  const { outletCommanded, outletAtRest, outletKpa, exhaust, supplyKpa, inlet } = sheet;
  const { clicks, twoCoils, otherCoilVolts } = sheet;
  if (air !== true || electricity !== true || clicks !== true) return null;
  // With its other coil fed, too, a sound one stays where it is.
  if (twoCoils && otherCoilVolts === undefined) return null;
  if (outletCommanded === 'none' && inlet !== 'weak' && inlet !== 'none') return false;
  // A spool that stands mid-way blows full into the open, too: at rest, and out of its exhaust.
  if (outletCommanded === 'full' && (exhaust === 'none' || outletAtRest === 'none')) return true;
  if (outletKpa === undefined || supplyKpa === undefined) return null;
  const share = Math.abs(outletKpa) / Math.abs(supplyKpa);
  return share <= NOTHING_SHARE ? false : share >= ALL_SHARE ? true : null;
}

/** Whether it lets as much through at rest as on command, though nothing feeds its coil then: its spool does not go. */
function passesAtRest({
  outletCommanded,
  outletAtRest,
  coilAtRestVolts,
  ratedVolts,
  inlet,
}: NeedsSheet): boolean {
  if (outletAtRest !== 'full' || outletCommanded !== 'full' || inlet === 'none') return false;
  if (coilAtRestVolts === undefined || ratedVolts === undefined) return false;
  return Math.abs(coilAtRestVolts) < DEAD_SHARE * ratedVolts;
}

function beyondOf(sheet: NeedsSheet, air: boolean | null, electricity: boolean | null): boolean | null {
  const { override, outlet, commanded, exhaust, exhaustAlone } = sheet;
  // All that the supply gives comes out of it on command, and what it should move does not.
  if (commanded === 'still' && passesOnCommand(sheet, air, electricity) === true) return false;
  if (exhaust === 'pushes' && exhaustAlone === 'none' && air === true) return false;
  if (override === 'moves' || commanded === 'moves') return true;
  return override === 'still' && air === true && outlet === 'full' && exhaust === 'none' ? false : null;
}

/** What is free first: gauge, override, click, finger; then the command by halves, then a line that comes off. */
function nextOf(
  sheet: NeedsSheet,
  known: { air: boolean | null; electricity: boolean | null; ask: Link | null; settled: boolean },
): { ask: string } | null {
  const { supplyKpa, neededKpa, override, clicks, exhaust, outlet, inlet, ratedVolts } = sheet;
  if (known.ask) return { ask: fieldOf(known.ask) };
  if (known.settled) return null;
  if (supplyKpa === undefined) return { ask: 'supplyKpa' };
  if (known.air === null && neededKpa === undefined && override === undefined) return { ask: 'override' };
  if (override === undefined) return { ask: 'override' };
  if (clicks === undefined) return { ask: 'clicks' };
  if (known.electricity === null) {
    if (ratedVolts === undefined) return { ask: 'ratedVolts' };
    if (sheet.coilVolts === undefined) return { ask: 'coilVolts' };
  }
  // No hand and no open line at oil: what the gauge and the override leave open stays open.
  if (sheet.medium === 'oil') {
    if (sheet.commanded === undefined) return { ask: 'commanded' };
    return sheet.outletKpa === undefined ? { ask: 'outletKpa' } : null;
  }
  if (exhaust === undefined) return { ask: 'exhaust' };
  if (exhaust === 'pushes' && known.air === true && sheet.exhaustAlone === undefined)
    return { ask: 'exhaustAlone' };
  if (sheet.twoCoils && override === 'moves' && clicks && sheet.otherCoilVolts === undefined)
    return { ask: 'otherCoilVolts' };
  if (known.air === null) return { ask: inlet === undefined ? 'inlet' : 'neededKpa' };
  if (override === 'still' && outlet === undefined) return { ask: 'outlet' };
  if (override === 'still' && outlet !== 'full' && inlet === undefined) return { ask: 'inlet' };
  return sheet.commanded === undefined ? { ask: 'commanded' } : null;
}

const FIELDS: Readonly<Record<Link, keyof NeedsSheet>> = {
  bit: 'bit',
  card: 'cardVolts',
  cable: 'cableVolts',
  coil: 'coilVolts',
};
const fieldOf = (link: Link): string => FIELDS[link];
