import type { CompiledPart } from '../../circuit/compile';
import type { Edit } from '../../circuit/edits';
import type { CircuitModel } from '../../circuit/model';
import { branchAmps, type World } from '../../circuit/world';
import { COIL_CONDITIONS, type CoilCondition } from '../../trace/conditions';
import { suppressorsOf, takesOut } from '../../trace/suppressors';
import { AT_REST } from '../part/branch';
import { defineReading } from './module';
import { partOf } from './places';

/** Of what a sound coil draws: less is nothing, and less than this is too little on the way. */
const NOTHING_SHARE = 0.02;
const STARVED_SHARE = 0.85;
/** Of its ohms: a winding that has less has shorted turns. */
const SHORTED_SHARE = 0.93;
/** Chance of what is the matter, and of anything else, where a trace was named; what a bench of planted traces comes to. */
const NAMED = 0.9;
const ELSEWISE = (1 - NAMED) / (COIL_CONDITIONS.length - 1);
/** How quick a plunger is, and what its spring has left, is in no drawing: a sound circuit shows these as well. */
const WEAR: Partial<Record<CoilCondition, number>> = { slow: 0.12, weakSpring: 0.08 };

const named = (odds: Partial<Record<CoilCondition, number>>) => {
  const said = Object.values(odds).reduce((sum, one) => sum + one, 0);
  const rest = Object.fromEntries(COIL_CONDITIONS.map((one) => [one, ELSEWISE]));
  return { type: 'choice' as const, odds: normal({ ...rest, ...scaled(odds, NAMED / said) }) };
};

/** What a coil's whole current was the trace of: its shape tells what no steady reading does. */
export const trace = defineReading<'trace'>()({
  dead: false,
  mechanical: false,
  school: null,
  minutes: 4,
  mistakeRate: 0.03,
  shows: { is: 'choice', choices: COIL_CONDITIONS.length, valueOf: (key) => key as CoilCondition },
  bind: (model, solver, test, field) => {
    const mend = 'only a coil or a relay draws such a trace';
    const { branches, index } = partOf(model, solver, test.part, field, ['coil', 'relay'], mend);
    const own = branches[0]!;
    const sound = Math.abs(branchAmps(solver.solve({ mode: 'live' }), own.index));
    const spools = valvesOf(model, model.compiled.parts[index]!);
    const beside = suppressorsOf(model.compiled, own);
    const odds = (world: World, edits: readonly Edit[]): Partial<Record<CoilCondition, number>> => {
      const amps = Math.abs(branchAmps(world, own.index));
      if (!(amps > NOTHING_SHARE * sound)) return { nothing: 1 };
      // Whether it stays out or in is told by its earlier trace alone.
      if (world.jammed.has(index)) return { jammedOut: 0.85, jammedIn: 0.15 };
      for (const edit of edits) {
        if (edit.type === 'position' && spools.includes(edit.part))
          return edit.position === AT_REST
            ? { jammedOut: 0.75, jammedIn: 0.15, slow: 0.1 }
            : { jammedIn: 0.75, jammedOut: 0.15, slow: 0.1 };
        if (edit.type === 'ohms' && edit.branch === own.index && edit.ohms < SHORTED_SHARE * own.ohms)
          return { shortedTurns: 1 };
        if (beside.some(({ index: branch }) => takesOut(edit, branch))) return { bare: 1 };
      }
      if (amps < STARVED_SHARE * sound) return { starved: 1 };
      return { sound: 1, ...WEAR };
    };
    return [{ mode: 'live' }, (world, edits) => named(odds(world, edits))];
  },
});

/** Valves whose spool a coil shifts, by part. */
function valvesOf({ compiled }: CircuitModel, { part: { ref } }: CompiledPart): number[] {
  return compiled.parts.flatMap(({ part, index }) =>
    part.kind === 'valve' && (part.coil === ref || part.coil2 === ref) ? [index] : [],
  );
}

function scaled<K extends string>(odds: Partial<Record<K, number>>, by: number): Record<string, number> {
  return Object.fromEntries(Object.entries<number | undefined>(odds).map(([key, one]) => [key, by * one!]));
}

function normal(odds: Record<string, number>): Record<string, number> {
  return scaled(odds, 1 / Object.values(odds).reduce((sum, one) => sum + one, 0));
}
