import { z } from 'zod';
import { dutyFound, type DutyFinding } from '../coil/service';
import { shopMarks, type DropMark, type ShopMarks } from '../../tables/marks';
import {
  maybe,
  mustDiffer,
  mustKnow,
  ohmsShown,
  positive,
  sheetHead,
  thing,
  type Finding,
  type SheetAnswer,
  type Shown,
} from '../sheet';
import { median } from '../../statistics';

import {
  poleRow,
  spareFits,
  spareNeeds,
  spareRow,
  tellPole,
  type PoleAnswer,
  type SpareAnswer,
} from './bank';

const contactor = z.object({
  name: thing,
  clicks: maybe(z.boolean()),
  coilOhms: maybe(ohmsShown),
  closedOhms: maybe(ohmsShown),
  openOhms: maybe(ohmsShown),
  dropVolts: maybe(z.number()),
  /** The same drop, make after make. */
  drops: maybe(z.array(z.number()).max(100)),
  atAmps: maybe(z.number().min(0)),
  ratedAmps: maybe(positive),
});

export const contactsSheet = z.object({
  ...sheetHead('contacts'),
  contactors: z.array(contactor).min(1).max(60),
  leadOhms: maybe(z.number().min(0).max(5)),
  school: maybe(z.enum(['volts', 'percent', 'millivolts'])),
  lineVolts: maybe(positive),
  directions: maybe(
    z
      .array(z.object({ name: thing, works: maybe(z.boolean()), pair: maybe(z.array(thing).length(2)) }))
      .max(10),
  ),
  poles: maybe(z.array(poleRow).max(60)),
  /** What the place asks of a contactor; spares are held against it. */
  needs: maybe(spareNeeds),
  spares: maybe(z.array(spareRow).max(60)),
  /** How long it is on, of what cycle; `needs.dutyShare` is what the place asks. */
  onSeconds: maybe(positive),
  cycleSeconds: maybe(positive),
  dutyShare: maybe(z.number().gt(0).max(1)),
});
export type ContactsSheet = z.infer<typeof contactsSheet>;
type Contactor = z.infer<typeof contactor>;

export type ContactVerdict =
  'good' | 'worn' | 'bad' | 'open' | 'welded' | 'coil' | 'needsLoad' | 'mechanical';
export type ContactsFinding = Finding<
  | 'schoolUsual'
  | 'leadsNotKnown'
  | 'clickAgainstCoil'
  | 'parallelWay'
  | 'dropWithoutAmps'
  | 'ratedNotKnown'
  | 'lineVoltsNotKnown'
  | 'littleCurrent'
  | 'directionsDisagree'
  | 'unsteady'
  | 'straightOrWelded'
  | DutyFinding['code']
>;

export interface ContactsAnswer extends SheetAnswer {
  verdicts: Record<string, ContactVerdict | null>;
  watts: Record<string, number | null>;
  serves: Record<string, string[] | null>;
  /** Of drops that were read make after make: their middle, the worst, and how many. */
  makes: Record<string, { middle: number; worst: number; count: number }>;
  poles: PoleAnswer[];
  spares: SpareAnswer[];
  duty: { share: number; mostOnSeconds: number; over: boolean } | null;
}

/** An ohmmeter tells a closed contact from a broken one up to here, and no finer; open above that, ohms. */
const CLOSED_OHMS = 2;
const OPEN_OHMS = 1e5;
/** A coil of less is none, ohms. */
const COIL_LEAST = 0.05;
const LEADS_MOST = 0.5;
/** Of the line's volts, across a contact that should be closed: it is open and the rest is whole (reference section 6). */
const OPEN_SHARE = 0.8;
/** Below this share of its rating a current says little of the rating. */
const LITTLE_CURRENT = 0.1;
/** Percent of line that a contact may lose (shop rule). */
const PERCENT = { good: 0.01, repair: 0.03 } as const;

/** Makes differ when they spread by more than this share of their middle, and by more than this, volts; so many say something. */
const SPREAD_SHARE = 0.5;
const SPREAD_VOLTS = 0.02;
const MAKES_LEAST = 3;

type School = NonNullable<ContactsSheet['school']>;

/**
 * Judges contactors beside each other by clicks, coil, contact ohms and the drop under load, scaled to what they are rated for; and
 * which two serve which direction. An ohmmeter's pass is none: it wants a load. `marks` are the shop's.
 */
export function judgeContacts(sheet: ContactsSheet, marks: ShopMarks = shopMarks({})): ContactsAnswer {
  const { directions = [], leadOhms, lineVolts } = sheet;
  const findings: ContactsFinding[] = [];
  const makes: ContactsAnswer['makes'] = {};
  const contactors = sheet.contactors.map((one) => {
    const made = makesOf(one, findings);
    if (!made) return one;
    makes[one.name] = made;
    // A contact that is bad once in five is bad.
    return { ...one, dropVolts: made.worst };
  });
  const known = contactors.map(({ name }) => name);
  directions.forEach(({ pair }, at) =>
    pair?.forEach((name, k) => mustKnow(known, name, `directions[${at}].pair[${k}]`)),
  );
  if (sheet.school === undefined && contactors.some(({ dropVolts }) => dropVolts !== undefined))
    findings.push({ code: 'schoolUsual', school: 'millivolts' });
  const school = sheet.school ?? 'millivolts';
  if (leadOhms === undefined && contactors.some(({ closedOhms }) => typeof closedOhms === 'number'))
    findings.push({ code: 'leadsNotKnown', most: LEADS_MOST });
  const verdicts: ContactsAnswer['verdicts'] = {};
  const watts: ContactsAnswer['watts'] = {};
  const asks: { ask: string }[] = [];
  const cannot = new Set<string>();
  for (const one of contactors) {
    const judged = judge(one, { leadOhms, lineVolts, allowed: allowedDrop(school, lineVolts, marks) });
    verdicts[one.name] = judged.verdict;
    findings.push(...judged.findings);
    if (cannotCarry(one, judged.verdict, leadOhms ?? 0)) cannot.add(one.name);
    if (judged.ask) asks.push({ ask: `${one.name}.${judged.ask}` });
    watts[one.name] =
      one.dropVolts !== undefined && one.atAmps !== undefined ? Math.abs(one.dropVolts) * one.atAmps : null;
  }
  const serves = servedBy(known, directions, verdicts, cannot, findings);
  const poles = (sheet.poles ?? []).map((pole, at) => {
    mustKnow(known, pole.contactor, `poles[${at}].contactor`);
    mustDiffer(pole.from, pole.to, `poles[${at}]`);
    return tellPole(pole, leadOhms ?? 0, lineVolts);
  });
  for (const { contactor: name, from, to, does } of poles)
    if (does === 'straight') findings.push({ code: 'straightOrWelded', name, from, to });
  const open = poles.findIndex(({ does }) => does === null);
  if (open >= 0) asks.push({ ask: `poles[${open}]` });
  return {
    verdicts,
    watts,
    serves,
    makes,
    poles,
    spares: (sheet.spares ?? []).map((spare) => spareFits(sheet.needs, spare)),
    duty: dutyFound(sheet, findings),
    findings,
    next: asks[0] ?? null,
  };
}

function makesOf(
  { name, dropVolts, drops = [] }: Contactor,
  findings: ContactsFinding[],
): ContactsAnswer['makes'][string] | null {
  if (drops.length === 0) return null;
  const sizes = [...(dropVolts === undefined ? [] : [dropVolts]), ...drops].map(Math.abs);
  const [least, worst, middle] = [Math.min(...sizes), Math.max(...sizes), median(sizes)];
  if (sizes.length >= MAKES_LEAST && worst - least > Math.max(SPREAD_SHARE * middle, SPREAD_VOLTS))
    findings.push({ code: 'unsteady', name, least, most: worst, count: sizes.length });
  return { middle, worst, count: sizes.length };
}

interface Judged {
  verdict: ContactVerdict | null;
  findings: ContactsFinding[];
  ask?: keyof Contactor | 'lineVolts';
}

interface Limits {
  leadOhms?: number | undefined;
  lineVolts?: number | undefined;
  /** Volts that a closed contact may lose; null while the school needs a figure that is missing. */
  allowed: DropMark | null;
}

function judge(
  { name, clicks, coilOhms, closedOhms, openOhms, dropVolts, atAmps, ratedAmps }: Contactor,
  { leadOhms, lineVolts, allowed }: Limits,
): Judged {
  const findings: ContactsFinding[] = [];
  const own = (ohms: Shown) => (ohms === 'OL' ? Infinity : Math.max(ohms - (leadOhms ?? 0), 0));
  if (openOhms !== undefined) {
    const rest = own(openOhms);
    if (rest <= CLOSED_OHMS) return { verdict: 'welded', findings };
    if (rest < OPEN_OHMS) {
      findings.push({ code: 'parallelWay', name, ohms: rest });
      return { verdict: null, findings, ask: 'openOhms' };
    }
  }
  const coilBad = coilOhms !== undefined && (coilOhms === 'OL' || coilOhms - (leadOhms ?? 0) < COIL_LEAST);
  if (coilBad) {
    if (clicks !== true) return { verdict: 'coil', findings };
    // It cannot pull with an open coil: one of the two was read wrong, or the coil comes and goes.
    findings.push({ code: 'clickAgainstCoil', name });
    return { verdict: null, findings, ask: 'coilOhms' };
  }
  if (clicks === false) {
    if (coilOhms === undefined) return { verdict: null, findings, ask: 'coilOhms' };
    return { verdict: 'mechanical', findings };
  }
  if (closedOhms !== undefined) {
    const closed = own(closedOhms);
    if (closed === Infinity) return { verdict: 'open', findings };
    if (closed > CLOSED_OHMS) return { verdict: 'bad', findings };
  }
  if (dropVolts === undefined) {
    if (closedOhms !== undefined) return { verdict: 'needsLoad', findings, ask: 'dropVolts' };
    return {
      verdict: null,
      findings,
      ask: clicks === undefined && coilOhms === undefined ? 'clicks' : 'dropVolts',
    };
  }
  return {
    ...byDrop(
      { name, dropVolts: Math.abs(dropVolts), atAmps, ratedAmps, closedOhms },
      { lineVolts, allowed },
      findings,
    ),
    findings,
  };
}

function byDrop(
  {
    name,
    dropVolts,
    atAmps,
    ratedAmps,
    closedOhms,
  }: Pick<Contactor, 'name' | 'atAmps' | 'ratedAmps' | 'closedOhms'> & { dropVolts: number },
  { lineVolts, allowed }: Limits,
  findings: ContactsFinding[],
): Omit<Judged, 'findings'> {
  if (lineVolts !== undefined && dropVolts >= OPEN_SHARE * lineVolts) return { verdict: 'open' };
  if (atAmps === undefined || atAmps === 0) {
    // No volts without current is no closed contact, and some volts say nothing of how many it carries.
    findings.push({ code: 'dropWithoutAmps', name });
    return { verdict: closedOhms === undefined ? null : 'needsLoad', ask: 'atAmps' };
  }
  if (!allowed) {
    findings.push({ code: 'lineVoltsNotKnown' });
    return { verdict: null, ask: 'lineVolts' };
  }
  const grade = (volts: number): ContactVerdict =>
    volts <= allowed.good ? 'good' : volts <= allowed.repair ? 'worn' : 'bad';
  if (ratedAmps === undefined) {
    findings.push({ code: 'ratedNotKnown', name });
    // More current only makes it worse: bad is bad, and good is not known.
    return grade(dropVolts) === 'bad' ? { verdict: 'bad' } : { verdict: null, ask: 'ratedAmps' };
  }
  const scaled = grade((dropVolts * ratedAmps) / atAmps);
  if (atAmps < LITTLE_CURRENT * ratedAmps && grade(dropVolts) !== 'bad') {
    findings.push({ code: 'littleCurrent', name, amps: atAmps });
    return { verdict: 'needsLoad', ask: 'atAmps' };
  }
  return { verdict: scaled };
}

/** Volts that a closed contact may lose at its rated current, by school (reference section 6; shop rules). */
function allowedDrop(school: School, lineVolts: number | undefined, { drops }: ShopMarks): DropMark | null {
  switch (school) {
    case 'millivolts':
      return drops.heavyContact;
    case 'volts':
      return drops.linePole;
    case 'percent':
      return lineVolts === undefined
        ? null
        : { good: PERCENT.good * lineVolts, repair: PERCENT.repair * lineVolts };
  }
}

const FAILED: readonly (ContactVerdict | null)[] = ['open', 'coil', 'mechanical'];
/** Those that surely carry their direction. */
const SURE: readonly (ContactVerdict | null)[] = ['good', 'worn'];

/** Nothing goes through it that moves anything: open, not pulled in, or thousands of ohms where it is closed. */
function cannotCarry({ closedOhms }: Contactor, verdict: ContactVerdict | null, leads: number): boolean {
  if (FAILED.includes(verdict)) return true;
  return verdict === 'bad' && typeof closedOhms === 'number' && closedOhms - leads > CLOSED_OHMS;
}

/** Two for each direction, none shared: the pairings that what works and what does not leave over. */
function servedBy(
  known: readonly string[],
  directions: NonNullable<ContactsSheet['directions']>,
  verdicts: ContactsAnswer['verdicts'],
  cannot: ReadonlySet<string>,
  findings: ContactsFinding[],
): ContactsAnswer['serves'] {
  const fits = ([a, b]: readonly [string, string], works: boolean | undefined) => {
    if (works === true) return ![a, b].some((name) => cannot.has(name));
    if (works === false) return [a, b].some((name) => !SURE.includes(verdicts[name]!));
    return true;
  };
  const found: string[][][] = [];
  const place = (at: number, free: readonly string[], so: string[][]): void => {
    if (at === directions.length) {
      found.push(so);
      return;
    }
    const { works, pair } = directions[at]!;
    for (let i = 0; i < free.length; i++) {
      for (let j = i + 1; j < free.length; j++) {
        const two = [free[i]!, free[j]!] as const;
        if (pair ? !(pair.includes(two[0]) && pair.includes(two[1])) : !fits(two, works)) continue;
        place(
          at + 1,
          free.filter((name) => !two.includes(name)),
          [...so, [...two]],
        );
      }
    }
  };
  place(0, known, []);
  if (directions.length > 0 && found.length === 0) findings.push({ code: 'directionsDisagree' });
  return Object.fromEntries(
    directions.map(({ name }, at) => {
      const options = new Map(found.map((so) => [JSON.stringify(so[at]), so[at]!]));
      return [name, options.size === 1 ? [...options.values()][0]! : null];
    }),
  );
}
