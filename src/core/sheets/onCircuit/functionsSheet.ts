import type { Edit } from '../../circuit/edits';
import { oncePerModel, type CircuitModel } from '../../circuit/model';
import type { Reading, Test } from '../../circuit/schema';
import { listFaults } from '../../diagnosis/faults';
import { bindTest, predict, predictedValue, type BoundTest } from '../../diagnosis/predict';
import { fewSeverities } from '../../diagnosis/severity';
import type { PartKind } from '../../kinds/part/module';
import { seenWork } from '../../job/seenWork';
import { compareFunctions, type FunctionsAnswer } from '../functions/functions';
import { cellOf, firstOpen, hangsOn, HEAD, MOST_ROWS, type JobSheet, type SheetRow } from './jobSheet';

/** Everything that can be watched working, each in its own command; once something fails, with what could stop it. */
export function functionsSheetOf(
  model: CircuitModel,
  readings: readonly Reading[],
): JobSheet<'functions'> | null {
  const watched = watchedOf(model);
  if (watched.length < 2) return null;
  const rows = watched.map(({ name, test }): SheetRow<'functions'> => ({
    name,
    cells: [cellOf(model, test, readings)],
    verdict: null,
  }));
  const states = rows.map(stateOf);
  const first = states.findIndex((state) => state === 'weak' || state === 'dead');
  const stopped = first < 0 ? null : stoppedBy(model, first);
  const compared = compareFunctions({
    ...HEAD,
    sheet: 'functions',
    functions: watched.map(({ name, needs }, at) => ({
      name,
      parts: stopped?.keys[at] ?? [...needs],
      state: states[at],
    })),
  });
  const suspect = stopped ? likeliest(compared, stopped) : [];
  const answer = { ...compared, suspect, cleared: clearedBy(model, watched, states, suspect) };
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
  /** Parts that it fails without. */
  needs: readonly string[];
}

/** What an operator can be asked about, with the parts that each needs. */
const watchedOf = oncePerModel((model): readonly Watched[] => {
  const { parts } = model.compiled;
  const turns = new Map<string, number>();
  return seenWork(model)
    .filter(({ setup }) => setup.afterSeconds === undefined)
    .slice(0, MOST_ROWS)
    .map(({ ref, setup }) => {
      const turn = (turns.get(ref) ?? 0) + 1;
      turns.set(ref, turn);
      const test = { kind: 'function', part: ref, setup } as const;
      const needs = parts.filter(({ part, branches }) => {
        if (part.ref === ref) return true;
        const on = branches.filter(({ index }) => hangsOn(model, test, index));
        // What a relay carries at rest says nothing of its coil, nor of the contact that this one closes.
        return part.kind === 'relay' ? on.some(({ role }) => role === 'body') : on.length > 0;
      });
      return { name: turn === 1 ? ref : `${ref} ${turn}`, test, needs: needs.map(({ part }) => part.ref) };
    });
});

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

/** Parts that something that works needs, and that stop nothing of what fails whatever is wrong with them; what has several ways once all of them work. */
function clearedBy(
  { compiled }: CircuitModel,
  watched: readonly Watched[],
  states: readonly State[],
  suspect: FunctionsAnswer['suspect'],
): string[] {
  const left = new Set(suspect.map(({ part }) => part));
  return compiled.parts.flatMap(({ part: { ref, kind } }) => {
    const tried = watched.flatMap(({ needs }, at) => (needs.includes(ref) ? [states[at] === 'works'] : []));
    const works = MANY_WAYS.includes(kind) ? tried.length > 0 && tried.every(Boolean) : tried.some(Boolean);
    return works && !left.has(ref) ? [ref] : [];
  });
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
    const sizes = fewSeverities(severity);
    for (const { weight, edits: editsOf } of variants)
      for (const size of sizes) {
        const edits = editsOf(size);
        if (!stops(bounds[first]!, edits)) continue;
        const pattern = bounds.map((bound, at) => at === first || stops(bound, edits));
        const key = `${ref}${AS_PATTERN}${pattern.map(Number).join('')}`;
        odds.set(key, (odds.get(key) ?? 0) + (prior * weight) / sizes.length);
        pattern.forEach((stopped, at) => {
          if (stopped) keys[at]!.add(key);
        });
      }
  }
  return { keys: keys.map((one) => [...one]), odds };
}

/** Parts that are left, by how often what is left of each happens, the likeliest first. */
function likeliest({ suspect }: FunctionsAnswer, { odds }: Stopped): FunctionsAnswer['suspect'] {
  const shares = new Map<string, number>();
  const total = suspect.reduce((sum, { part: key }) => sum + odds.get(key)!, 0);
  for (const { part: key } of suspect) {
    const ref = key.split(AS_PATTERN)[0]!;
    shares.set(ref, (shares.get(ref) ?? 0) + odds.get(key)! / total);
  }
  return [...shares].map(([part, share]) => ({ part, share })).sort((one, two) => two.share - one.share);
}

/** Stands between a part and the functions that it stops together, in what the comparison tells apart. */
const AS_PATTERN = '#';

type State = 'works' | 'weak' | 'dead' | undefined;

function stateOf({ cells }: SheetRow<'functions'>): State {
  const value = cells[0]?.value;
  return value === 'works' || value === 'weak' || value === 'dead' ? value : undefined;
}
