import { z } from 'zod';
import { shopMarks, type ShopMarks } from '../../tables/marks';
import { median } from '../../statistics';
import { mendings, type Mending } from './worth';
import { maybe, mustKnow, names, thing, sheetHead, type Finding, type SheetAnswer } from '../sheet';

const grid = z.record(thing, z.record(thing, z.number()));

export const outputsSheet = z.object({
  ...sheetHead('outputs'),
  outputs: names(1, 64),
  master: maybe(thing),
  modules: maybe(z.array(z.array(thing).min(1)).max(64)),
  supplyVolts: maybe(z.number().min(0)),
  loads: maybe(z.enum(['on', 'off'])),
  /** What the volts stand against, the loads on: each its own load, where nobody says; the frame; or the supply, of outputs that switch the return. */
  against: maybe(z.enum(['load', 'frame', 'supply'])),
  matrix: maybe(grid),
  lowImpedance: maybe(grid),
  /** Volts at each output while nothing is commanded. */
  atRest: maybe(z.record(thing, z.number())),
  sensorLoop: maybe(z.enum(['closed', 'open', 'bridged'])),
});
export type OutputsSheet = z.infer<typeof outputsSheet>;

export type OutputsCause =
  | 'healthy'
  | 'deadSource'
  | 'openSensorLoop'
  | 'deadMaster'
  | 'deadModule'
  | 'deadOutput'
  | 'crossed'
  | 'leaking'
  | 'ghost'
  | 'selector'
  | 'openCommon';
export type OutputsFinding = Finding<
  | 'supplyNotKnown'
  | 'lowSupply'
  | 'fitsNothing'
  | 'loopBridged'
  | 'loadMayHold'
  | 'heldDown'
  | 'heldUp'
  | 'fieldDead'
  | 'fieldLive'
>;

export interface OutputsAnswer extends SheetAnswer {
  cause: OutputsCause | null;
  of: string[];
  share: number | null;
  next: { commanded: string; measured: string; how: 'volts' | 'lowImpedance' } | { ask: string } | null;
  /** Ways to mend it, the smallest first, with what each takes in this shop. */
  mend: Mending[];
}

/** Source volts under this are none, volts. */
const DEAD_SUPPLY = 2;
/** A cause stands at this share of the doubt, or it is not said. */
const SAID = 0.9;
/** Spread of a reading as a share of the supply, and the chance that it is simply wrong. */
const SPREAD = 0.07;
const WRONG = 0.02;
/** What a leak or a ghost may stand at, shares of the supply. */
const PARTIAL = [0.2, 0.35, 0.5, 0.65, 0.8] as const;
/** Read to one side of the loads, nothing is known better, as shares; a leak of this much shows in all its cells. */
const NOTHING_SPREAD = 0.03;
const LITTLE = 0.08;
/** Part volts, as shares. */
const PARTIAL_FROM = 0.12;
const PARTIAL_TO = 0.88;
/** An output that gives less than this of its supply on its own command is not called sound, nor one that gives less than the other share of what its like give. */
const GIVES_FROM = 0.85;
const GIVES_LIKE = 0.93;
const LIKES_LEAST = 3;
/** In the place of a command: none. */
const AT_REST = '';

type Mode = 'volts' | 'lowImpedance';
interface Cell {
  commanded: string;
  measured: string;
  mode: Mode;
  share: number;
}
interface Story {
  cause: OutputsCause | 'unknown';
  of: readonly string[];
  weight: number;
  /** Share of the supply at a terminal while one output is commanded; null where it may be anything. */
  predict: (commanded: string, measured: string, mode: Mode) => number | null;
}

/**
 * The likeliest cause of a grid of commanded outputs by measured terminals, under a model of the controller: source, sensor loop, master,
 * modules, selector, common, outputs that leak or are crossed (reference `logic.md` section 5). What the cells read so far leave open is
 * not said; the cell that parts the causes is asked for.
 */
export function judgeOutputs(sheet: OutputsSheet, marks: ShopMarks = shopMarks({})): OutputsAnswer {
  const answer = causeOf(sheet);
  // While a short behind it may be what holds it down, nothing of the controller is to be bought.
  const open = answer.findings.some(({ code }) => code === 'loadMayHold');
  return { ...answer, mend: open ? [] : mendings(answer.cause, marks) };
}

function causeOf(sheet: OutputsSheet): Omit<OutputsAnswer, 'mend'> {
  const { outputs, master, modules = [], matrix = {}, lowImpedance = {}, atRest = {}, supplyVolts } = sheet;
  const findings: OutputsFinding[] = [];
  const places = master === undefined || outputs.includes(master) ? outputs : [...outputs, master];
  modules.forEach((block, at) => block.forEach((name, k) => mustKnow(outputs, name, `modules[${at}][${k}]`)));
  for (const [field, table] of Object.entries({ matrix, lowImpedance }))
    for (const [commanded, row] of Object.entries(table)) {
      mustKnow(places, commanded, `${field}.${commanded}`);
      for (const measured of Object.keys(row))
        mustKnow(places, measured, `${field}.${commanded}.${measured}`);
    }
  for (const measured of Object.keys(atRest)) mustKnow(places, measured, `atRest.${measured}`);
  if (supplyVolts !== undefined && supplyVolts < DEAD_SUPPLY)
    return { cause: 'deadSource', of: [], share: 0.98, findings, next: null };
  const volts = [...Object.values(matrix), atRest].flatMap((row) => Object.values(row).map(Math.abs));
  const most = Math.max(0, ...volts);
  if (supplyVolts === undefined) {
    findings.push({ code: 'supplyNotKnown' });
    // With nothing live anywhere the source is the first thing to look at.
    if (most < DEAD_SUPPLY)
      return { cause: null, of: [], share: null, findings, next: { ask: 'supplyVolts' } };
  }
  const scale = supplyVolts ?? most;
  const cells: Cell[] = [
    ...cellsOf(matrix, 'volts', scale),
    ...cellsOf({ [AT_REST]: atRest }, 'volts', scale),
    ...cellsOf(lowImpedance, 'lowImpedance', scale),
  ];
  const zones = outputs.filter((one) => one !== master);
  const stories = storiesOf(sheet, zones, cells);
  const weighed = weigh(stories, cells, isAgainstOneSide(sheet.against) ? NOTHING_SPREAD : SPREAD);
  return answerOf(sheet, zones, weighed, cells, findings);
}

function cellsOf(
  table: Readonly<Record<string, Readonly<Record<string, number>>>>,
  mode: Mode,
  scale: number,
): Cell[] {
  return Object.entries(table).flatMap(([commanded, row]) =>
    Object.entries(row).map(([measured, volts]) => ({
      commanded,
      measured,
      mode,
      share: Math.abs(volts) / scale,
    })),
  );
}

function storiesOf(
  { master, modules = [], loads, against, sensorLoop }: OutputsSheet,
  zones: readonly string[],
  cells: readonly Cell[],
): Story[] {
  const sound = (commanded: string, measured: string): number => {
    if (commanded === AT_REST) return 0;
    return measured === commanded || (measured === master && commanded !== master) ? 1 : 0;
  };
  const n = zones.length;
  const each = (weight: number, count: number) => weight / Math.max(count, 1);
  const stories: Story[] = [
    { cause: 'healthy', of: [], weight: 0.1, predict: sound },
    // Anything at all: what fits no story better than this has no name.
    { cause: 'unknown', of: [], weight: 0.02, predict: () => null },
  ];
  const add = (cause: OutputsCause, of: readonly string[], weight: number, predict: Story['predict']) =>
    stories.push({ cause, of, weight, predict });
  const loopOpen = sensorLoop === 'open';
  if (sensorLoop === undefined || loopOpen) add('openSensorLoop', [], loopOpen ? 0.6 : 0.12, () => 0);
  // Nothing live anywhere has other reasons too: no command arrives, a stop chain, the controller itself.
  stories.push({ cause: 'unknown', of: [], weight: loopOpen ? 0.03 : 0.1, predict: () => 0 });
  if (master !== undefined)
    add('deadMaster', [master], 0.12, (commanded, measured) =>
      measured === master ? 0 : sound(commanded, measured),
    );
  const named = modules.filter((block) => block.length > 0);
  for (const block of named) {
    const dead = (commanded: string, measured: string) =>
      block.includes(measured) ? 0 : sound(commanded, measured);
    add('deadModule', block, each(0.14, named.length), dead);
  }
  for (const zone of zones)
    add('deadOutput', [zone], each(0.16, n), (commanded, measured) =>
      measured === zone ? 0 : sound(commanded, measured),
    );
  addCrossed(add, zones, sound, each);
  addSelector(add, zones, sound, master, each);
  const levels = isAgainstOneSide(against) ? [LITTLE, ...PARTIAL] : PARTIAL;
  addLeaks(add, zones, sound, { loads, levels }, cells, each);
  if (n > 1)
    add('openCommon', [], 0.08, (commanded, measured) => {
      // Its current goes home backwards through the other loads: all of them get a share.
      const others = n - 1;
      if (measured === master || loads === 'off') return null;
      // Not read across its load nothing pulls any of them away: all stand where the one that is on stands, and outputs of the return always do.
      if (against === 'supply') return 1;
      if (against === 'frame') return commanded === AT_REST ? 0 : 1;
      if (commanded === AT_REST) return null;
      return measured === commanded ? others / (others + 1) : 1 / (others + 1);
    });
  return stories;
}

type Add = (cause: OutputsCause, of: readonly string[], weight: number, predict: Story['predict']) => void;
type Sound = (commanded: string, measured: string) => number;
type Each = (weight: number, count: number) => number;

/** Two outputs that change places, or are live together for both commands or for one. */
function addCrossed(add: Add, zones: readonly string[], sound: Sound, each: Each): void {
  const pairs = zones.flatMap((a, i) => zones.slice(i + 1).map((b) => [a, b] as const));
  for (const [a, b] of pairs) {
    const weight = each(0.12, pairs.length * 4);
    const swapped = (name: string) => (name === a ? b : name === b ? a : name);
    add('crossed', [a, b], weight, (commanded, measured) =>
      measured === a || measured === b ? sound(swapped(commanded), measured) : sound(commanded, measured),
    );
    const together = (from: readonly string[]) => (commanded: string, measured: string) =>
      from.includes(commanded) && (measured === a || measured === b) ? 1 : sound(commanded, measured);
    add('crossed', [a, b], weight, together([a, b]));
    add('crossed', [a, b], weight, together([a]));
    add('crossed', [a, b], weight, together([b]));
  }
}

/** A worn selector: one position, or all of them, give another output than the one that is meant. */
function addSelector(
  add: Add,
  zones: readonly string[],
  sound: Sound,
  master: string | undefined,
  each: Each,
): void {
  const n = zones.length;
  if (n < 2) return;
  const shifted = (by: number) => (commanded: string, measured: string) => {
    const at = zones.indexOf(commanded);
    if (at < 0 || measured === master) return sound(commanded, measured);
    return measured === zones[(at + by + n) % n] ? 1 : 0;
  };
  if (n > 2) {
    add('selector', zones, 0.02, shifted(1));
    add('selector', zones, 0.02, shifted(-1));
  }
  const pairs = zones.flatMap((own) =>
    zones.filter((other) => other !== own).map((other) => [own, other] as const),
  );
  for (const [own, other] of pairs)
    add('selector', [own], each(0.05, pairs.length), (commanded, measured) =>
      commanded === own && measured !== master ? (measured === other ? 1 : 0) : sound(commanded, measured),
    );
}

/** Volts at outputs that nobody commands: through a leak, which a load pulls down little; or coupled in, which any load takes away. */
function addLeaks(
  add: Add,
  zones: readonly string[],
  sound: Sound,
  { loads, levels }: { loads: OutputsSheet['loads']; levels: readonly number[] },
  cells: readonly Cell[],
  each: Each,
): void {
  const stray = zones.filter((zone) =>
    cells.some(
      ({ commanded, measured, mode, share }) =>
        mode === 'volts' && measured === zone && commanded !== zone && share >= PARTIAL_FROM,
    ),
  );
  const groups = stray.length > 1 ? [...zones.map((zone) => [zone]), stray] : zones.map((zone) => [zone]);
  for (const group of groups) {
    for (const level of [...levels, 1]) {
      const weight = each(0.14, groups.length * (levels.length + 1));
      const strays = (commanded: string, measured: string) =>
        group.includes(measured) && measured !== commanded;
      add('leaking', group, weight, (commanded, measured) =>
        strays(commanded, measured) ? level : sound(commanded, measured),
      );
      // What is coupled in is gone under a load, the meter's own or the valve's.
      if (level === 1 || loads === 'on') continue;
      add('ghost', group, weight, (commanded, measured, mode) =>
        strays(commanded, measured) ? (mode === 'lowImpedance' ? 0 : level) : sound(commanded, measured),
      );
    }
  }
}

function weigh(
  stories: readonly Story[],
  cells: readonly Cell[],
  nothing: number,
): { story: Story; share: number }[] {
  const logs = stories.map((story) => {
    let log = Math.log(story.weight);
    for (const { commanded, measured, mode, share } of cells) {
      const wanted = story.predict(commanded, measured, mode);
      const near = wanted === null ? 1 / 1.1 : density(share, wanted, story.cause, nothing);
      log += Math.log((1 - WRONG) * near + WRONG / 1.1);
    }
    return log;
  });
  const most = Math.max(...logs);
  const total = logs.reduce((sum, log) => sum + Math.exp(log - most), 0);
  return stories
    .map((story, at) => ({ story, share: Math.exp(logs[at]! - most) / total }))
    .sort((a, b) => b.share - a.share);
}

/** A part level is known only roughly; all is known well, and nothing as well as `nothing` says. */
function density(share: number, wanted: number, cause: Story['cause'], nothing: number): number {
  const partial = wanted > PARTIAL_FROM && wanted < PARTIAL_TO && (cause === 'leaking' || cause === 'ghost');
  const sigma = partial ? SPREAD * 1.5 : wanted <= LITTLE ? nothing : SPREAD;
  const z = (Math.min(share, 1.1) - wanted) / sigma;
  return Math.exp(-0.5 * z * z) / (sigma * Math.sqrt(2 * Math.PI));
}

/** Read to one side of the loads and not across each of them. */
function isAgainstOneSide(against: OutputsSheet['against']): boolean {
  return against === 'frame' || against === 'supply';
}

function answerOf(
  sheet: OutputsSheet,
  zones: readonly string[],
  weighed: readonly { story: Story; share: number }[],
  cells: readonly Cell[],
  findings: OutputsFinding[],
): Omit<OutputsAnswer, 'mend'> {
  const causes = new Map<Story['cause'], number>();
  const named = new Map<string, { of: readonly string[]; cause: Story['cause']; share: number }>();
  for (const { story, share } of weighed) {
    causes.set(story.cause, (causes.get(story.cause) ?? 0) + share);
    const key = `${story.cause} ${story.of.join('\n')}`;
    const known = named.get(key);
    if (known) known.share += share;
    else named.set(key, { of: story.of, cause: story.cause, share });
  }
  const best = [...named.values()].sort((a, b) => b.share - a.share)[0]!;
  const share = causes.get(best.cause)!;
  const next = nextOf(sheet, zones, weighed, cells);
  if (best.cause === 'unknown' && share >= 0.5) findings.push({ code: 'fitsNothing' });
  if (sheet.sensorLoop === 'bridged') findings.push({ code: 'loopBridged' });
  // With the loop bridged a sound grid does not say whether the loop was sound.
  const masked = sheet.sensorLoop === 'bridged' && best.cause === 'healthy';
  if (best.cause === 'unknown' || share < SAID || masked || saysTooMuch(best.cause, sheet, zones, cells))
    return { cause: null, of: [], share: null, findings, next: masked ? { ask: 'sensorLoop' } : next };
  const sure = best.share >= SAID * share;
  // A short behind an output holds it down, or makes it switch itself off: with the load on both read alike.
  if (best.cause === 'deadOutput' && sheet.loads !== 'off')
    findings.push({ code: 'loadMayHold', outputs: sure ? [...best.of] : [] });
  return {
    cause: best.cause,
    of: sure ? [...best.of] : [],
    share,
    findings,
    next: sure ? null : next,
  };
}

/** What an output gives at least where it is sound, from what all of them give. */
export function givesLeast(own: readonly number[]): number {
  return own.length < LIKES_LEAST ? GIVES_FROM : Math.max(GIVES_FROM, GIVES_LIKE * median(own));
}

/** Whether a cause stands at its share and what was read does not show it: an output too weak to be sound, a common by one place alone. */
function saysTooMuch(
  cause: OutputsCause,
  { against }: OutputsSheet,
  zones: readonly string[],
  cells: readonly Cell[],
): boolean {
  if (cause === 'healthy') {
    const own = cells.flatMap(({ commanded, measured, share }) => (commanded === measured ? [share] : []));
    return Math.min(...own, 1) < givesLeast(own);
  }
  if (cause !== 'openCommon' || !isAgainstOneSide(against) || zones.length <= 2) return false;
  const lifted = cells.filter(
    ({ commanded, measured, share }) => measured !== commanded && share >= PARTIAL_FROM,
  );
  return new Set(lifted.map(({ measured }) => measured)).size < 2;
}

/** The cell that is expected to leave least doubt about the cause and what it is of; nothing where no cell would. */
function nextOf(
  { matrix = {}, lowImpedance = {}, atRest, master, loads, sensorLoop }: OutputsSheet,
  zones: readonly string[],
  weighed: readonly { story: Story; share: number }[],
  cells: readonly Cell[],
): OutputsAnswer['next'] {
  const live = weighed.filter(({ share }) => share > 1e-4);
  const keyOf = ({ cause, of }: Story) => `${cause} ${of.join('\n')}`;
  const entropyOf = (list: readonly { story: Story; share: number }[]) => {
    const total = list.reduce((sum, { share }) => sum + share, 0);
    const parts = new Map<string, number>();
    for (const { story, share } of list)
      parts.set(keyOf(story), (parts.get(keyOf(story)) ?? 0) + share / total);
    return [...parts.values()].reduce((sum, p) => sum - p * Math.log2(p), 0);
  };
  const before = entropyOf(live);
  let best: { gain: number; next: NonNullable<OutputsAnswer['next']> } | null = null;
  const offer = (commanded: string, measured: string, how: Mode) => {
    const groups = new Map<string, { story: Story; share: number }[]>();
    for (const one of live) {
      const wanted = one.story.predict(commanded, measured, how);
      const bin = wanted === null ? 'any' : String(Math.round(wanted * 4));
      const group = groups.get(bin);
      if (group) group.push(one);
      else groups.set(bin, [one]);
    }
    const total = live.reduce((sum, { share }) => sum + share, 0);
    const after = [...groups.values()].reduce(
      (sum, group) => sum + (group.reduce((own, { share }) => own + share, 0) / total) * entropyOf(group),
      0,
    );
    const gain = before - after;
    if (gain > 0.02 && (!best || gain > best.gain + 1e-9))
      best = {
        gain,
        next: commanded === AT_REST ? { ask: `atRest.${measured}` } : { commanded, measured, how },
      };
  };
  const targets = master === undefined || zones.includes(master) ? zones : [...zones, master];
  for (const commanded of zones)
    for (const measured of targets)
      if (matrix[commanded]?.[measured] === undefined) offer(commanded, measured, 'volts');
  if (atRest)
    for (const measured of targets) if (atRest[measured] === undefined) offer(AT_REST, measured, 'volts');
  if (loads !== 'on')
    for (const { commanded, measured, mode, share } of cells)
      if (
        mode === 'volts' &&
        commanded !== measured &&
        share >= PARTIAL_FROM &&
        lowImpedance[commanded]?.[measured] === undefined
      )
        offer(commanded, measured, 'lowImpedance');
  const found = best as { gain: number; next: NonNullable<OutputsAnswer['next']> } | null;
  if (found) return found.next;
  const loop = live.some(({ story, share }) => story.cause === 'openSensorLoop' && share > 0.05);
  return loop && sensorLoop === undefined ? { ask: 'sensorLoop' } : null;
}
