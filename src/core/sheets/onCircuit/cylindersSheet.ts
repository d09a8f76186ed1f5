import type { CircuitModel } from '../../circuit/model';
import type { Reading, Setup, Test } from '../../circuit/schema';
import { nodeKPa } from '../../circuit/world';
import { mayTake } from '../../diagnosis/candidateTests';
import { workingPatterns } from '../../diagnosis/patterns';
import { tellSeal, type SealFinding } from '../bubbles/seal';
import { cellOf, firstOpen, nameOf, type JobSheet, type SheetCell, type SheetRow } from './jobSheet';
import type { SheetVerdicts } from './verdicts';

/** End stops of a piston, in the order of its sheet. */
export const PISTON_ENDS = ['retracted', 'extended'] as const;
export type PistonEnd = (typeof PISTON_ENDS)[number];
/** One chamber stands over the other by this at least, kPa. */
const DRIVEN_KPA = 100;

/** A cylinder's seal as its sheet answers it. */
export interface SealAnswer {
  findings: [];
  next: null;
  cylinder: string;
  seal: SealFinding | null;
}

/** Every double-acting cylinder on air, at both of its ends: the far line off and under water, bubbles there pass the piston. */
export function cylindersSheetOf(
  model: CircuitModel,
  readings: readonly Reading[],
): JobSheet<'cylinders'> | null {
  const rows: SheetRow<'cylinders'>[] = [];
  const answers: SealAnswer[] = [];
  for (const { part, branches } of model.compiled.parts) {
    if (part.kind !== 'cylinder' || part.nodes.b === undefined) continue;
    const { a, b } = branches[0]!;
    const ends = PISTON_ENDS.map((end) => {
      // Driven in, the rod end is fed and the cap end open; driven out the other way round.
      const [fed, far] = end === 'extended' ? [a, b] : [b, a];
      const setup = drivenSetup(model, fed, far);
      const at = nameOf(model, far);
      const test: Test | null =
        setup && mayTake(model, { kind: 'flow', at, setup: { ...setup, open: [at] } });
      const cell = cellOf(model, test, readings);
      return { end, cell: cell?.expected === 'none' ? cell : null };
    });
    for (const { end, cell } of ends)
      if (cell) rows.push({ name: part.ref, check: end, cells: [cell], verdict: verdictOf(cell) });
    const [retracted, extended] = ends.map(({ cell }) => bubbles(cell));
    answers.push({
      findings: [],
      next: null,
      cylinder: part.ref,
      seal: tellSeal(retracted!, extended!),
    });
  }
  if (rows.length === 0) return null;
  return { name: 'cylinders', columns: ['bubbles'], rows, next: firstOpen(rows), answers };
}

/** A command that feeds one side of a cylinder and lets the other go; null where none does. */
function drivenSetup(model: CircuitModel, fed: number, far: number): Setup | null {
  for (const { setup } of workingPatterns(model)) {
    if (setup.afterSeconds !== undefined) continue;
    const world = model.situation(setup).solve({ mode: 'live' });
    if (nodeKPa(world, fed) - nodeKPa(world, far) > DRIVEN_KPA) return setup;
  }
  return null;
}

function bubbles(cell: SheetCell | null): boolean | null {
  return !cell || cell.value === null ? null : cell.value !== 'none';
}

function verdictOf(cell: SheetCell): SheetVerdicts['cylinders'] | null {
  const leaks = bubbles(cell);
  return leaks === null ? null : leaks ? 'bad' : 'good';
}
