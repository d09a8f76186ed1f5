import { z } from 'zod';
import {
  maybe,
  meterOhms,
  mustDiffer,
  mustKnow,
  names,
  ohmsShown,
  pairKey,
  sheetHead,
  thing,
  type Finding,
  type SheetAnswer,
  type Shown,
} from '../sheet';
import { median } from '../../statistics';

export const windingsSheet = z.object({
  ...sheetHead('windings'),
  wires: names(3, 3),
  ohms: maybe(z.array(z.object({ from: thing, to: thing, value: ohmsShown })).max(60)),
  leadOhms: maybe(z.number().min(0).max(5)),
});
export type WindingsSheet = z.infer<typeof windingsSheet>;

export type WindingsFinding = Finding<
  'leadsNotKnown' | 'doNotAdd' | 'nothingAt' | 'alike' | 'allOpen' | 'wayAround'
>;

export interface WindingsAnswer extends SheetAnswer {
  common: string | null;
  pullIn: string | null;
  holdIn: string | null;
  pullInOhms: number | null;
  holdInOhms: number | null;
  verdict: 'good' | 'open' | 'short' | 'unknown';
}

/** Leads that nobody has held together, ohms. */
const LEADS_MOST = 0.5;
/** A winding of less is none, ohms. */
const SHORT_OHMS = 0.06;
/** Two windings nearer to each other than this are not told apart by their ohms. */
const ALIKE = 1.4;

/**
 * Works out which of three wires is the common one of a pull-in and a hold-in winding: the highest reading runs over both of them, and
 * is the sum of the others (reference section 12). Readings that do not add up within the meter's error say nothing.
 */
export function tellWindings(sheet: WindingsSheet): WindingsAnswer {
  const { wires, ohms = [], leadOhms } = sheet;
  const findings: WindingsFinding[] = [];
  const blank = {
    common: null,
    pullIn: null,
    holdIn: null,
    pullInOhms: null,
    holdInOhms: null,
    verdict: 'unknown',
    findings,
  } as const;
  const pairs = [
    [wires[0]!, wires[1]!],
    [wires[0]!, wires[2]!],
    [wires[1]!, wires[2]!],
  ] as const;
  const read = new Map<string, Shown[]>();
  ohms.forEach(({ from, to, value }, at) => {
    mustKnow(wires, from, `ohms[${at}].from`);
    mustKnow(wires, to, `ohms[${at}].to`);
    mustDiffer(from, to, `ohms[${at}]`);
    const key = pairKey(from, to);
    read.set(key, [...(read.get(key) ?? []), value]);
  });
  const known = pairs.flatMap(([from, to]) => {
    const shown = read.get(pairKey(from, to));
    return shown ? [{ from, to, value: middleOf(shown) }] : [];
  });
  const missing = pairs.find(([from, to]) => !read.has(pairKey(from, to)));
  if (missing) {
    const open = known.filter(({ value }) => value === 'OL');
    // Two pairs open leave one wire that leads nowhere, whatever the third reads.
    if (open.length === 2) findings.push({ code: 'nothingAt', wire: sharedWire(open[0]!, open[1]!) });
    return {
      ...blank,
      ...(open.length === 2 ? { verdict: 'open' as const } : {}),
      next: { from: missing[0], to: missing[1] },
    };
  }
  const open = known.filter(({ value }) => value === 'OL');
  if (open.length === 3) {
    findings.push({ code: 'allOpen' });
    return { ...blank, verdict: 'open', next: null };
  }
  if (open.length === 2) {
    findings.push({ code: 'nothingAt', wire: sharedWire(open[0]!, open[1]!) });
    return { ...blank, verdict: 'open', next: null };
  }
  if (open.length === 1) {
    // There is a way round over the third wire: it cannot be open.
    findings.push({ code: 'wayAround', from: open[0]!.from, to: open[0]!.to });
    return { ...blank, next: { from: open[0]!.from, to: open[0]!.to } };
  }
  if (leadOhms === undefined) findings.push({ code: 'leadsNotKnown', most: LEADS_MOST });
  const figures = known
    .map(({ from, to, value }) => ({
      from,
      to,
      raw: value as number,
      ohms: (value as number) - (leadOhms ?? 0),
    }))
    .sort((a, b) => a.ohms - b.ohms);
  const [small, middle, large] = figures as [Figure, Figure, Figure];
  const all = figures.map(({ raw }) => raw);
  const error = all.reduce((sum, raw) => sum + meterOhms(raw, all), 0);
  // Leads are in each of the two, and once in the sum: unknown ones make the parts too large together.
  const over = small.ohms + middle.ohms - large.ohms;
  const mostOver = leadOhms === undefined ? LEADS_MOST : 0;
  if (over < -error || over > error + mostOver) {
    findings.push({ code: 'doNotAdd', sum: small.ohms + middle.ohms, reads: large.ohms });
    return { ...blank, next: { from: large.from, to: large.to } };
  }
  const leads = leadOhms === undefined ? Math.min(Math.max(over, 0), LEADS_MOST) : 0;
  const [least, second] = [Math.max(small.ohms - leads, 0), Math.max(middle.ohms - leads, 0)];
  if (least <= SHORT_OHMS) {
    // A pull-in winding of a few hundredths and a short look alike while the leads are in the reading.
    if (leadOhms === undefined && small.ohms > SHORT_OHMS) return { ...blank, next: { ask: 'leadOhms' } };
    return { ...blank, verdict: 'short', next: null };
  }
  const common = [small.from, small.to].find((wire) => wire === middle.from || wire === middle.to)!;
  if (areAlike(least, second)) {
    findings.push({ code: 'alike', ratio: second / least });
    return { ...blank, common, next: null };
  }
  const far = ({ from, to }: Figure) => (from === common ? to : from);
  return {
    common,
    pullIn: far(small),
    holdIn: far(middle),
    pullInOhms: least,
    holdInOhms: second,
    verdict: 'good',
    findings,
    next: null,
  };
}

/** Whether two windings are too near to each other to be told apart by their ohms. */
export function areAlike(one: number, two: number): boolean {
  return Math.max(one, two) < ALIKE * Math.min(one, two);
}

interface Figure {
  from: string;
  to: string;
  raw: number;
  ohms: number;
}

function middleOf(shown: readonly Shown[]): Shown {
  const figures = shown.filter((value): value is number => value !== 'OL');
  return figures.length * 2 > shown.length ? median(figures) : 'OL';
}

function sharedWire(one: { from: string; to: string }, two: { from: string; to: string }): string {
  return one.from === two.from || one.from === two.to ? one.from : one.to;
}
