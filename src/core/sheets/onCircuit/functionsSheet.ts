import type { Branch } from '../../circuit/compile';
import { oncePerModel, type CircuitModel } from '../../circuit/model';
import type { Part, Reading, Test } from '../../circuit/schema';
import type { PartKind } from '../../kinds/part/module';
import { seenWork } from '../../job/seenWork';
import { compareFunctions } from '../functions/functions';
import { cellOf, firstOpen, hangsOn, HEAD, MOST_ROWS, type JobSheet, type SheetRow } from './jobSheet';

/** Everything that can be watched working, each in its own command, with the parts that they share. */
export function functionsSheetOf(model: CircuitModel, readings: readonly Reading[]): JobSheet | null {
  const watched = watchedOf(model);
  if (watched.length < 2) return null;
  const rows = watched.map(({ name, test }): SheetRow => ({
    name,
    cells: [cellOf(model, test, readings)],
    verdict: null,
  }));
  const answer = compareFunctions({
    ...HEAD,
    sheet: 'functions',
    functions: watched.map(({ name, parts }, at) => ({ name, parts, state: stateOf(rows[at]!) })),
  });
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

function stateOf({ cells }: SheetRow): 'works' | 'weak' | 'dead' | undefined {
  const value = cells[0]?.value;
  return value === 'works' || value === 'weak' || value === 'dead' ? value : undefined;
}
