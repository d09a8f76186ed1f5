import { z } from 'zod';
import {
  maybe,
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

const STATES = ['rest', 'operated'] as const;
export type ContactState = (typeof STATES)[number];

const pole = z.object({ com: maybe(thing), no: maybe(thing), nc: maybe(thing) });

export const terminalsSheet = z.object({
  ...sheetHead('terminals'),
  terminals: names(2, 16),
  readings: maybe(
    z.array(z.object({ from: thing, to: thing, state: z.enum(STATES), value: ohmsShown })).max(2000),
  ),
  claim: maybe(z.object({ coil: maybe(z.array(thing).length(2)), poles: maybe(z.array(pole).max(6)) })),
});
export type TerminalsSheet = z.infer<typeof terminalsSheet>;

export type TerminalsFinding = Finding<
  'noPinOut' | 'manyPinOuts' | 'claimDisagrees' | 'readTwoWays' | 'unused'
>;

export interface Pole {
  com: string | null;
  no: string | null;
  nc: string | null;
}

export interface ContactJudged {
  from: string;
  to: string;
  state: ContactState;
  verdict: 'good' | 'weak' | 'welded' | 'open';
}

export interface TerminalsAnswer extends SheetAnswer {
  coil: [string, string] | null;
  coilOhms: number | null;
  poles: Pole[];
  sure: boolean;
  fits: number;
  contacts: ContactJudged[];
  next: { from: string; to: string; state: ContactState } | null;
}

/** A closed contact reads less, an open one more, a coil lies between, ohms. */
const CLOSED_OHMS = 2;
const OPEN_OHMS = 1e6;
/** A film on a closed contact reads up to here and is still no open one. */
const WEAK_MOST = OPEN_OHMS;
/** A coil's own readings agree this well. */
const COIL_SHARE = 0.15;
/** More pin-outs than this are not told apart one by one. */
const MOST_FITS = 20_000;
/** Of many pin-outs so many are looked at for the next reading. */
const LOOKED_AT = 1500;

type Read = Map<string, Partial<Record<ContactState, Shown>>>;
/** What two terminals have to do with each other: closed at rest, closed when operated, the coil, or nothing. */
type Tie = 'nc' | 'no' | 'coil' | 'apart';

interface PinOut {
  coil: [number, number] | null;
  /** Terminals of each pole: common first, then what closes when operated, then what is closed at rest; −1 where it has none. */
  poles: [com: number, no: number, nc: number][];
  unused: number[];
}

/**
 * Coil, commons and contacts of a relay or switch from readings between its terminals, by exact elimination over all pin-outs. What fits
 * more than one way is not said, and the reading that would part them is asked for.
 */
export function tellTerminals(sheet: TerminalsSheet): TerminalsAnswer {
  const { terminals, readings = [], claim } = sheet;
  const findings: TerminalsFinding[] = [];
  readings.forEach(({ from, to }, at) => {
    mustKnow(terminals, from, `readings[${at}].from`);
    mustKnow(terminals, to, `readings[${at}].to`);
    mustDiffer(from, to, `readings[${at}]`);
  });
  checkClaim(terminals, claim);
  const read = gather(readings, findings);
  const { fits, count } = pinOuts(terminals, read);
  if (count === 0) findings.push({ code: 'noPinOut' });
  if (count >= MOST_FITS) findings.push({ code: 'manyPinOuts', atLeast: MOST_FITS });
  const coil = commonCoil(fits, terminals);
  const poles = commonPoles(fits, terminals);
  const sure = count === 1;
  if (sure && fits[0]!.unused.length > 0)
    findings.push({ code: 'unused', terminals: fits[0]!.unused.map((at) => terminals[at]!) });
  if (claim && count > 0 && contradicts(claim, coil, poles, sure)) findings.push({ code: 'claimDisagrees' });
  const judgedBy = claim?.poles?.map((one) => ({
    com: one.com ?? null,
    no: one.no ?? null,
    nc: one.nc ?? null,
  }));
  const contacts = judgeContactsOf(judgedBy ?? (sure ? poles : []), read);
  return {
    coil,
    coilOhms: coil ? coilOhmsOf(read, coil) : null,
    poles,
    sure,
    fits: count,
    contacts,
    findings,
    next: count > 1 ? parting(fits, terminals, read) : null,
  };
}

function checkClaim(terminals: readonly string[], claim: TerminalsSheet['claim']): void {
  claim?.coil?.forEach((name, at) => mustKnow(terminals, name, `claim.coil[${at}]`));
  claim?.poles?.forEach((one, at) => {
    for (const [key, name] of Object.entries(one))
      if (name !== undefined) mustKnow(terminals, name, `claim.poles[${at}].${key}`);
  });
}

function gather(readings: NonNullable<TerminalsSheet['readings']>, findings: TerminalsFinding[]): Read {
  const lists = new Map<string, Record<ContactState, Shown[]>>();
  for (const { from, to, state, value } of readings) {
    const key = pairKey(from, to);
    const lines = lists.get(key) ?? { rest: [], operated: [] };
    lists.set(key, lines);
    lines[state].push(value);
  }
  const read: Read = new Map();
  for (const [key, lines] of lists) {
    const of = (shown: readonly Shown[]): Shown | undefined => {
      if (shown.length === 0) return undefined;
      const figures = shown.filter((value): value is number => value !== 'OL');
      // Now closed, now open: two readings of one place that say the opposite are none.
      if (figures.length > 0 && figures.length < shown.length && figures.length * 2 === shown.length) {
        findings.push({ code: 'readTwoWays', pair: JSON.parse(key) as string[] });
        return undefined;
      }
      return figures.length * 2 > shown.length ? median(figures) : 'OL';
    };
    const [rest, operated] = [of(lines.rest), of(lines.operated)];
    read.set(key, {
      ...(rest === undefined ? {} : { rest }),
      ...(operated === undefined ? {} : { operated }),
    });
  }
  return read;
}

/** All pin-outs that the readings leave: with every terminal in use if any does, with sound contacts if any does. */
function pinOuts(terminals: readonly string[], read: Read): { fits: PinOut[]; count: number } {
  for (const [unused, weak] of [
    [false, false],
    [true, false],
    [false, true],
    [true, true],
  ] as const) {
    const found = search(terminals, read, unused, weak);
    if (found.count > 0) return found;
  }
  return { fits: [], count: 0 };
}

function search(
  terminals: readonly string[],
  read: Read,
  mayBeUnused: boolean,
  mayBeWeak: boolean,
): { fits: PinOut[]; count: number } {
  const ties: Tie[][][] = terminals.map((from, i) =>
    terminals.map((to, j) => (i === j ? [] : possible(read.get(pairKey(from, to)), mayBeWeak))),
  );
  const can = (i: number, j: number, tie: Tie) => ties[i]![j]!.includes(tie);
  const apart = (group: readonly number[], others: readonly number[]) =>
    group.every((i) => others.every((j) => can(i, j, 'apart')));
  const fits: PinOut[] = [];
  let count = 0;
  const place = (free: readonly number[], so: PinOut): void => {
    if (count >= MOST_FITS) return;
    if (free.length === 0) {
      count++;
      if (fits.length < LOOKED_AT) fits.push(so);
      return;
    }
    const [first, ...rest] = free as [number, ...number[]];
    const put = (group: readonly number[], next: (left: number[]) => void) => {
      const left = rest.filter((one) => !group.includes(one));
      if (apart(group, left)) next(left);
    };
    // The coil, once.
    if (!so.coil) {
      for (const other of rest)
        if (can(first, other, 'coil'))
          put([first, other], (left) => place(left, { ...so, coil: [first, other] }));
    }
    // One contact: its two ends are alike.
    for (const other of rest) {
      for (const tie of ['no', 'nc'] as const) {
        if (!can(first, other, tie)) continue;
        const pole: PinOut['poles'][number] = tie === 'no' ? [first, other, -1] : [first, -1, other];
        put([first, other], (left) => place(left, { ...so, poles: [...so.poles, pole] }));
      }
    }
    // A change-over contact: each of three may be its common.
    for (let a = 0; a < rest.length; a++) {
      for (let b = a + 1; b < rest.length; b++) {
        const three = [first, rest[a]!, rest[b]!] as const;
        for (const [com, no, nc] of orders(three)) {
          if (!can(com, no, 'no') || !can(com, nc, 'nc') || !can(no, nc, 'apart')) continue;
          put(three, (left) => place(left, { ...so, poles: [...so.poles, [com, no, nc]] }));
        }
      }
    }
    if (mayBeUnused) put([first], (left) => place(left, { ...so, unused: [...so.unused, first] }));
  };
  place(
    terminals.map((_one, at) => at),
    { coil: null, poles: [], unused: [] },
  );
  return { fits, count };
}

function orders([a, b, c]: readonly [number, number, number]): [number, number, number][] {
  return [
    [a, b, c],
    [a, c, b],
    [b, a, c],
    [b, c, a],
    [c, a, b],
    [c, b, a],
  ];
}

/** What two terminals may have to do with each other, by what was read between them. */
function possible(read: Partial<Record<ContactState, Shown>> | undefined, mayBeWeak: boolean): Tie[] {
  const shown = (state: ContactState) => read?.[state];
  const open = (value: Shown | undefined) => value === undefined || value === 'OL' || value > OPEN_OHMS;
  const closed = (value: Shown | undefined) =>
    value === undefined || (value !== 'OL' && value <= (mayBeWeak ? WEAK_MOST : CLOSED_OHMS));
  const winding = (value: Shown | undefined) =>
    value === undefined || (value !== 'OL' && value > CLOSED_OHMS && value < OPEN_OHMS);
  const [rest, operated] = [shown('rest'), shown('operated')];
  const ties: Tie[] = [];
  if (open(rest) && open(operated)) ties.push('apart');
  if (closed(rest) && open(operated)) ties.push('nc');
  if (open(rest) && closed(operated)) ties.push('no');
  const agree =
    typeof rest !== 'number' || typeof operated !== 'number' || Math.abs(rest / operated - 1) <= COIL_SHARE;
  if (winding(rest) && winding(operated) && agree) ties.push('coil');
  return ties;
}

function commonCoil(fits: readonly PinOut[], terminals: readonly string[]): [string, string] | null {
  const [first] = fits;
  if (!first?.coil) return null;
  const key = first.coil.join();
  return fits.every(({ coil }) => coil?.join() === key)
    ? [terminals[first.coil[0]]!, terminals[first.coil[1]]!]
    : null;
}

function coilOhmsOf(read: Read, [a, b]: [string, string]): number | null {
  const lines = read.get(pairKey(a, b));
  const figures = STATES.flatMap((state) => {
    const value = lines?.[state];
    return typeof value === 'number' ? [value] : [];
  });
  return figures.length > 0 ? median(figures) : null;
}

/** Poles whose terminals are the same in every pin-out that fits; of each what all agree on. */
function commonPoles(fits: readonly PinOut[], terminals: readonly string[]): Pole[] {
  const [first, ...others] = fits;
  if (!first) return [];
  const keyOf = (one: PinOut['poles'][number]) =>
    one
      .filter((at) => at >= 0)
      .sort((a, b) => a - b)
      .join();
  return first.poles.flatMap((own): Pole[] => {
    const key = keyOf(own);
    const same = others.map(({ poles }) => poles.find((one) => keyOf(one) === key));
    if (same.some((one) => one === undefined)) return [];
    const agreed = (place: 0 | 1 | 2) =>
      own[place] >= 0 && same.every((one) => one![place] === own[place]) ? terminals[own[place]]! : null;
    return [{ com: agreed(0), no: agreed(1), nc: agreed(2) }];
  });
}

function contradicts(
  claim: NonNullable<TerminalsSheet['claim']>,
  coil: [string, string] | null,
  poles: readonly Pole[],
  sure: boolean,
): boolean {
  if (claim.coil && coil && pairKey(claim.coil[0]!, claim.coil[1]!) !== pairKey(...coil)) return true;
  if (!sure || !claim.poles) return false;
  const contactsOf = ({
    com,
    no,
    nc,
  }: {
    com?: string | null | undefined;
    no?: string | null | undefined;
    nc?: string | null | undefined;
  }) => [...(com && no ? [`no ${pairKey(com, no)}`] : []), ...(com && nc ? [`nc ${pairKey(com, nc)}`] : [])];
  const [said, found] = [claim.poles.flatMap(contactsOf).sort(), poles.flatMap(contactsOf).sort()];
  return JSON.stringify(said) !== JSON.stringify(found);
}

/** Each contact in each state that it was read in. */
function judgeContactsOf(poles: readonly Pole[], read: Read): ContactJudged[] {
  return poles.flatMap(({ com, no, nc }) => {
    if (com === null) return [];
    return [
      { end: no, closedIn: 'operated' as const },
      { end: nc, closedIn: 'rest' as const },
    ].flatMap(({ end, closedIn }) => {
      if (end === null) return [];
      return STATES.flatMap((state): ContactJudged[] => {
        const value = read.get(pairKey(com, end))?.[state];
        if (value === undefined) return [];
        return [{ from: com, to: end, state, verdict: contactVerdict(value, state === closedIn) }];
      });
    });
  });
}

/** A contact by its ohms, in a state in which it should be closed or open. */
export function contactVerdict(value: Shown, shouldClose: boolean): ContactJudged['verdict'] {
  const open = value === 'OL' || value > OPEN_OHMS;
  if (shouldClose) return open ? 'open' : value > CLOSED_OHMS ? 'weak' : 'good';
  return open ? 'good' : value <= CLOSED_OHMS ? 'welded' : 'weak';
}

/** The reading that leaves fewest pin-outs on the whole, among those not yet taken. */
function parting(fits: readonly PinOut[], terminals: readonly string[], read: Read): TerminalsAnswer['next'] {
  let best: { from: string; to: string; state: ContactState; left: number } | null = null;
  for (let i = 0; i < terminals.length; i++) {
    for (let j = i + 1; j < terminals.length; j++) {
      const [from, to] = [terminals[i]!, terminals[j]!];
      for (const state of STATES) {
        if (read.get(pairKey(from, to))?.[state] !== undefined) continue;
        const groups = new Map<string, number>();
        for (const fit of fits) {
          const answer = answerOf(fit, i, j, state);
          groups.set(answer, (groups.get(answer) ?? 0) + 1);
        }
        if (groups.size < 2) continue;
        const left = [...groups.values()].reduce((sum, size) => sum + size * size, 0) / fits.length;
        if (!best || left < best.left - 1e-9) best = { from, to, state, left };
      }
    }
  }
  return best && { from: best.from, to: best.to, state: best.state };
}

function answerOf(
  { coil, poles }: PinOut,
  i: number,
  j: number,
  state: ContactState,
): 'coil' | 'closed' | 'open' {
  const is = (a: number, b: number) => (a === i && b === j) || (a === j && b === i);
  if (coil && is(...coil)) return 'coil';
  const closed = poles.some(([com, no, nc]) => (state === 'operated' ? is(com, no) : is(com, nc)));
  return closed ? 'closed' : 'open';
}
