import type { Branch } from '../../circuit/compile';
import type { Edit } from '../../circuit/edits';
import { oncePerModel, type CircuitModel } from '../../circuit/model';
import type { Part, Reading, Test } from '../../circuit/schema';
import { listFaults } from '../../diagnosis/faults';
import { bindTest, predict, predictedValue, type BoundTest } from '../../diagnosis/predict';
import type { SeverityRange } from '../../diagnosis/faultTypes';
import type { PartKind } from '../../kinds/part/module';
import { seenWork } from '../../job/seenWork';
import { compareFunctions, type FunctionsAnswer } from '../functions/functions';
import { cellOf, firstOpen, hangsOn, HEAD, MOST_ROWS, type JobSheet, type SheetRow } from './jobSheet';

/** Everything that can be watched working, each in its own command; once something fails, with what could stop it. */
export function functionsSheetOf(model: CircuitModel, readings: readonly Reading[]): JobSheet | null {
  const watched = watchedOf(model);
  if (watched.length < 2) return null;
  const rows = watched.map(({ name, test }): SheetRow => ({
    name,
    cells: [cellOf(model, test, readings)],
    verdict: null,
  }));
  const states = rows.map(stateOf);
  const first = states.findIndex((state) => state === 'weak' || state === 'dead');
  const stopped = first < 0 ? null : stoppedBy(model, first);
  const parts = stopped?.keys ?? watched.map((one) => one.parts);
  const compared = compareFunctions({
    ...HEAD,
    sheet: 'functions',
    functions: watched.map(({ name }, at) => ({ name, parts: parts[at]!, state: states[at] })),
  });
  const answer = stopped
    ? { ...compared, suspect: likeliest(compared, stopped), cleared: clearedBy(watched, states, compared) }
    : compared;
  for (const row of rows) {
    const state = stateOf(row);
    row.verdict = state === undefined ? null : state === 'works' ? 'good' : state;
  }
  const asked = rows.findIndex(({ name }) => name === answer.next);
  const fails = rows.some(({ verdict }) => verdict === 'weak' || verdict === 'dead');
  return {
    name: 'functions',
    columns: ['state'],
    rows,
    // Once something fails only what parts the suspects is worth trying.
    next: asked >= 0 ? [asked, 0] : fails ? null : firstOpen(rows),
    answers: [answer],
  };
}

interface Watched {
  name: string;
  test: Test;
  parts: string[];
}

/** What an operator can be asked about, with the parts that each needs: those that it fails without. */
const watchedOf = oncePerModel((model): readonly Watched[] => {
  const { parts } = model.compiled;
  const turns = new Map<string, number>();
  return seenWork(model)
    .filter(({ setup }) => setup.afterSeconds === undefined)
    .slice(0, MOST_ROWS)
    .map(({ ref, setup, pattern }) => {
      const turn = (turns.get(ref) ?? 0) + 1;
      turns.set(ref, turn);
      const test = { kind: 'function', part: ref, setup } as const;
      const needs = parts.flatMap(({ part, branches }) => {
        const on = branches.filter(({ index }) => hangsOn(model, test, index));
        return part.ref === ref || on.length > 0 ? keysOf(part, pattern, on) : [];
      });
      return { name: turn === 1 ? ref : `${ref} ${turn}`, test, parts: needs };
    });
});

/** Parts that all that works needs, and that stop nothing of what fails whatever is wrong with them. */
function clearedBy(
  watched: readonly Watched[],
  states: readonly State[],
  { suspect }: FunctionsAnswer,
): string[] {
  const left = new Set(suspect.map(({ part }) => refOfKey(part)));
  const needed = watched.flatMap(({ parts }, at) => (states[at] === 'works' ? parts.map(refOfKey) : []));
  return [...new Set(needed)].filter((ref) => !left.has(ref));
}

/**
 * What stops one of the functions, by function: one key for each part and each pattern of functions that some fault of it stops together. A part
 * stops what does not need it, too: a welded contactor the one that runs the other way, a short the fuse of all.
 */
function stoppedBy(model: CircuitModel, first: number): Stopped {
  const known = stoppedOf(model);
  const found = known.get(first) ?? patternsOf(model, first);
  known.set(first, found);
  return found;
}
const stoppedOf = oncePerModel(() => new Map<number, Stopped>());

interface Stopped {
  /** By function. */
  keys: readonly string[][];
  /** How often what a key stands for happens, before anything is tried. */
  odds: ReadonlyMap<string, number>;
}

function patternsOf(model: CircuitModel, first: number): Stopped {
  const bounds = watchedOf(model).map(({ test }) => bindTest(model, test));
  const stops = (bound: BoundTest, edits: readonly Edit[]) =>
    predictedValue('function', predict(bound, edits)) !== 'works';
  const keys = bounds.map(() => new Set<string>());
  const odds = new Map<string, number>();
  for (const { ref, severity, prior, variants } of listFaults(model)) {
    const sizes = severity ? sizesOf(severity) : [1];
    for (const { weight, edits: editsOf } of variants)
      for (const size of sizes) {
        const edits = editsOf(size);
        if (!stops(bounds[first]!, edits)) continue;
        const pattern = bounds.map((bound, at) => at === first || stops(bound, edits));
        const key = `${ref}${IN_COMMAND}${pattern.map(Number).join('')}`;
        odds.set(key, (odds.get(key) ?? 0) + (prior * weight) / sizes.length);
        pattern.forEach((stopped, at) => {
          if (stopped) keys[at]!.add(key);
        });
      }
  }
  return { keys: keys.map((one) => [...one]), odds };
}

/** What is left, by how often it happens, the likeliest first. */
function likeliest({ suspect }: FunctionsAnswer, { odds }: Stopped): FunctionsAnswer['suspect'] {
  const total = suspect.reduce((sum, { part }) => sum + odds.get(part)!, 0);
  return suspect
    .map(({ part }) => ({ part, share: odds.get(part)! / total }))
    .sort((one, two) => two.share - one.share);
}

/** A fault at its least, as it mostly is, and at its most. */
function sizesOf({ least, most, mainLeast, mainMost }: SeverityRange): number[] {
  return [least, Math.sqrt(mainLeast * mainMost), most];
}

/** Kinds that do one thing in one command and another in the next: that they do the one clears nothing of the other. */
const MANY_WAYS: readonly PartKind[] = [
  'valve',
  'proportionalValve',
  'cylinder',
  'vacuumActuator',
  'hose',
  'throttle',
  'silencer',
];

/** What a part is in a command; see `refOfKey`. */
function keysOf({ ref, kind }: Part, pattern: number, on: readonly Branch[]): string[] {
  // What a relay carries at rest says nothing of its coil, nor of the contact that this one closes.
  if (kind === 'relay' && !on.some(({ role }) => role === 'body')) return [`${ref}${IN_COMMAND}${AT_REST}`];
  // One that is seized does nothing in any command; one that does something in another may still not do this.
  return MANY_WAYS.includes(kind) ? [ref, `${ref}${IN_COMMAND}${pattern}`] : [ref];
}

const IN_COMMAND = '#';
const AT_REST = 'rest';

/** The part that a key of the sheet's answer is about. */
export function refOfKey(key: string): string {
  return key.split(IN_COMMAND)[0]!;
}

type State = 'works' | 'weak' | 'dead' | undefined;

function stateOf({ cells }: SheetRow): State {
  const value = cells[0]?.value;
  return value === 'works' || value === 'weak' || value === 'dead' ? value : undefined;
}
