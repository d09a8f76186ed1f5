import type { CircuitModel } from '../../circuit/model';
import type { Reading, Test } from '../../circuit/schema';
import { kindOf } from '../../kinds/part/index';
import { findLanes, type Lane, type Step } from '../../path/lanes';
import { compareFunctions } from '../functions/functions';
import { cellOf, firstOpen, HEAD, MOST_ROWS, type JobSheet, type SheetRow } from './jobSheet';

/** Everything that can be watched working, each in its own command, with the parts that they share. */
export function functionsSheetOf(model: CircuitModel, readings: readonly Reading[]): JobSheet | null {
  const { lanes } = findLanes(model);
  const { parts } = model.compiled;
  const watched = lanes
    .filter(({ load, setup }) => {
      const { part } = parts[load.part]!;
      return kindOf(part).traits.works && part.kind !== 'resistor' && Object.keys(setup).length > 0;
    })
    .slice(0, MOST_ROWS);
  if (watched.length < 2) return null;
  const rows = watched.map(({ id, setup }): SheetRow => {
    const test: Test = { kind: 'function', part: id, setup };
    return { name: id, cells: [cellOf(model, test, readings)], verdict: null };
  });
  const answer = compareFunctions({
    ...HEAD,
    sheet: 'functions',
    functions: watched.map((lane, at) => ({
      name: lane.id,
      parts: [...partsOf(model, lanes, lane)].map((part) => parts[part]!.part.ref),
      state: stateOf(rows[at]!),
    })),
  });
  for (const row of rows) {
    const state = stateOf(row);
    row.verdict = state === undefined ? null : state === 'works' ? 'good' : state;
  }
  const asked = rows.findIndex(({ name }) => name === answer.next);
  const tried = rows.some(({ verdict }) => verdict !== null);
  return {
    name: 'functions',
    columns: ['state'],
    rows,
    // Once something was tried only what parts the suspects is worth trying.
    next: asked >= 0 ? [asked, 0] : tried ? null : firstOpen(rows),
    answers: [answer],
  };
}

function stateOf({ cells }: SheetRow): 'works' | 'weak' | 'dead' | undefined {
  const value = cells[0]?.value;
  return value === 'works' || value === 'weak' || value === 'dead' ? value : undefined;
}

/** Parts that a load needs: its way from the supply and home, and the same of each relay and coil that switches on it. */
function partsOf(
  model: CircuitModel,
  lanes: readonly Lane[],
  lane: Lane,
  found = new Set<number>(),
): ReadonlySet<number> {
  const { parts, partIndex } = model.compiled;
  const switches = new Set(lane.coils.map((ref) => partIndex.get(ref)!));
  for (const { part } of [...lane.feed, lane.load, ...lane.back] satisfies Step[]) {
    if (found.has(part)) continue;
    found.add(part);
    if (parts[part]!.part.kind === 'relay') switches.add(part);
  }
  for (const part of switches) {
    const own = lanes.find(({ load }) => load.part === part);
    if (own && own !== lane) partsOf(model, lanes, own, found);
  }
  return found;
}
