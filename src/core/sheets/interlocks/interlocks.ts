import { z } from 'zod';
import { InputError } from '../../circuit/inputError';
import { maybe, mustKnow, positive, sheetHead, thing, type Finding, type SheetAnswer } from '../sheet';

/** Where a chain begins. */
export const SUPPLY = 'supply';

export const interlocksSheet = z.object({
  ...sheetHead('interlocks'),
  switches: z
    .array(z.object({ name: thing, type: maybe(z.enum(['NO', 'NC'])), pressed: maybe(z.boolean()) }))
    .min(1)
    .max(200)
    .refine((list) => new Set(list.map(({ name }) => name)).size === list.length, 'names one of them twice'),
  volts: maybe(z.array(z.object({ after: thing, value: z.number() })).max(1000)),
  supplyVolts: maybe(positive),
});
export type InterlocksSheet = z.infer<typeof interlocksSheet>;

export type InterlocksFinding = Finding<
  'noSupply' | 'lowSupply' | 'resistive' | 'bridged' | 'rightlyOpen' | 'notKnownPressed'
>;

export interface InterlocksAnswer extends SheetAnswer {
  closed: Record<string, boolean | null>;
  firstLoss: { name: string; volts: number } | null;
  suspect: string[];
}

/** Of the supply: from here a point is fed, and below that share it is not (reference `logic.md` section 3). */
export const FED_SHARE = 0.85;
const DEAD_SHARE = 0.15;
/** A contact in a chain that loses more than this is no sound one. */
const RESISTIVE_SHARE = 0.1;

/**
 * Finds the first contact of a chain that does not pass its volts on. Before it every point stands at the supply, behind it none does;
 * what lies behind an open contact is not seen in volts, and one that is rightly open is not at fault.
 */
export function judgeInterlocks({ switches, volts = [], supplyVolts }: InterlocksSheet): InterlocksAnswer {
  const names = switches.map(({ name }) => name);
  if (names.includes(SUPPLY))
    throw new InputError('switches', `"${SUPPLY}" is where the chain begins; give the switch another name`);
  volts.forEach(({ after }, at) => mustKnow([SUPPLY, ...names], after, `volts[${at}].after`));
  const findings: InterlocksFinding[] = [];
  const wanted = switches.map(({ type, pressed }) =>
    type === undefined || pressed === undefined ? null : (type === 'NO') === pressed,
  );
  const read = new Map(volts.map(({ after, value }) => [after, Math.abs(value)]));
  const supply = read.get(SUPPLY) ?? supplyVolts ?? null;
  const closedBy = () => Object.fromEntries(names.map((name, at) => [name, wanted[at] ?? null]));
  const nothing = { firstLoss: null, suspect: [], findings };
  if (supply === null) return { closed: closedBy(), ...nothing, next: { after: SUPPLY } };
  if (supplyVolts !== undefined && read.has(SUPPLY) && supply < DEAD_SHARE * supplyVolts) {
    findings.push({ code: 'noSupply', volts: supply });
    return { closed: closedBy(), ...nothing, next: null };
  }
  if (supply === 0) {
    findings.push({ code: 'noSupply', volts: 0 });
    return { closed: closedBy(), ...nothing, next: null };
  }
  if (supplyVolts !== undefined && supply < FED_SHARE * supplyVolts)
    findings.push({ code: 'lowSupply', volts: supply, wanted: supplyVolts });
  // Volts before and behind each contact, as far as they were read.
  const behind = names.map((name) => read.get(name) ?? null);
  const before = (at: number) => (at === 0 ? supply : behind[at - 1]!);
  const closed: (boolean | null)[] = [...wanted];
  const suspects: string[] = [];
  const lost = lossOf(supply, behind);
  // Everything up to a fed point passes its volts on.
  const fedUpTo = behind.findLastIndex((value) => value !== null && value >= FED_SHARE * supply);
  for (let at = 0; at <= fedUpTo; at++) closed[at] = true;
  for (const { from, to } of lost) {
    if (to - from !== 1) continue;
    const at = to;
    closed[at] = behind[at]! > DEAD_SHARE * supply;
  }
  // A way that should be open and passes volts is a bridge, or a weld: a safety defect.
  for (let at = 0; at <= fedUpTo; at++) {
    if (wanted[at] !== false) continue;
    suspects.push(names[at]!);
    findings.push({ code: 'bridged', name: names[at] });
  }
  const first = lost[0] ?? null;
  let firstLoss: InterlocksAnswer['firstLoss'] = null;
  if (first && first.to - first.from === 1) {
    const at = first.to;
    const [name, here] = [names[at]!, behind[at]!];
    firstLoss = { name, volts: (before(at) ?? supply) - here };
    if (here > DEAD_SHARE * supply) {
      findings.push({ code: 'resistive', name, volts: firstLoss.volts });
      suspects.push(name);
    } else if (wanted[at] === false) findings.push({ code: 'rightlyOpen', name });
    else {
      suspects.push(name);
      if (wanted[at] === null) findings.push({ code: 'notKnownPressed', name });
    }
  } else if (first) {
    // Lost somewhere between two points that were read.
    for (let at = first.from + 1; at <= first.to; at++) if (wanted[at] !== false) suspects.push(names[at]!);
  }
  return {
    closed: Object.fromEntries(names.map((name, at) => [name, closed[at] ?? null])),
    firstLoss,
    suspect: suspects,
    findings,
    next: nextOf(names, behind, fedUpTo, first, wanted),
  };
}

/** Stretches over which volts are lost, by the points that were read at either end (−1 is the supply); the first of them first. */
function lossOf(supply: number, behind: readonly (number | null)[]): { from: number; to: number }[] {
  const found: { from: number; to: number }[] = [];
  let [from, volts] = [-1, supply];
  for (let at = 0; at < behind.length; at++) {
    const here = behind[at];
    if (here === null || here === undefined) continue;
    // Behind an open contact a point floats: what it reads is no loss of its own.
    if (volts < FED_SHARE * supply) break;
    if (volts - here > RESISTIVE_SHARE * supply) found.push({ from, to: at });
    [from, volts] = [at, here];
  }
  return found;
}

/** The middle of the stretch that the first loss can still lie in; nothing once it is found or the whole chain is fed. */
function nextOf(
  names: readonly string[],
  behind: readonly (number | null)[],
  fedUpTo: number,
  first: { from: number; to: number } | null,
  wanted: readonly (boolean | null)[],
): InterlocksAnswer['next'] {
  if (first && first.to - first.from === 1) {
    return wanted[first.to] === null ? { ask: `${names[first.to]}.pressed` } : null;
  }
  const [low, high] = first ? [first.from, first.to] : [fedUpTo, names.length];
  if (!first && fedUpTo === names.length - 1) return null;
  const middle = first
    ? Math.floor((low + high) / 2)
    : Math.min(Math.floor((low + high) / 2), names.length - 1);
  const at = Math.max(middle, low + 1);
  return behind[at] === null ? { after: names[at]! } : null;
}
