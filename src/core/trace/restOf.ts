import type { CircuitModel } from '../circuit/model';
import type { Setup } from '../circuit/schema';
import { findPart } from '../circuit/situation';
import { branchAmps } from '../circuit/world';
import { kindOf } from '../kinds/part';

/** Of what a coil draws switched on: less is nothing. */
const NOTHING = 0.02;

/**
 * The set-up in which a coil rests, with as few controls turned as can be: the position that a person comes from when the coil is switched on.
 * Null where it draws current in every one, or in none.
 */
export function restOf(model: CircuitModel, ref: string, setup: Setup): Setup | null {
  const { compiled, combinations } = model;
  const own = compiled.parts[findPart(compiled, ref, 'part')]!.branches[0]!;
  const ampsIn = (controls: Setup['controls']) => {
    const world = model.situation({ ...setup, controls }).solve({ mode: 'live' });
    return Math.abs(branchAmps(world, own.index));
  };
  const on = setup.controls ?? {};
  const drawn = ampsIn(on);
  if (!(drawn > 0)) return null;
  const turned = (controls: Record<string, string>) =>
    Object.entries(controls).filter(([name, position]) => position !== on[name]);
  const resting = combinations
    .filter((controls) => ampsIn(controls) < NOTHING * drawn)
    // Of as many turned, that of the last control: the one that the function is worked with stands behind its key.
    .map((controls, at) => ({ controls, count: turned(controls).length, at }))
    .sort(
      (a, b) =>
        a.count - b.count ||
        positionOf(model, turned(b.controls)) - positionOf(model, turned(a.controls)) ||
        a.at - b.at,
    );
  const [first] = resting;
  return first ? { ...setup, controls: first.controls } : null;
}

function positionOf({ compiled }: CircuitModel, turned: readonly [string, string][]): number {
  const names = Object.keys(compiled.circuit.controls);
  return Math.max(-1, ...turned.map(([name]) => names.indexOf(name)));
}

/** The position of the controls in which a part draws most, and what it draws there, amperes; null where it draws nothing in any. */
export function workedIn(model: CircuitModel, ref: string): { setup: Setup; amps: number } | null {
  const own = model.compiled.parts[findPart(model.compiled, ref, 'part')]!.branches[0];
  if (own?.domain !== 'electrical') return null;
  const all = model.combinations.map((controls) => ({
    setup: { controls },
    amps: Math.abs(branchAmps(model.situation({ controls }).solve({ mode: 'live' }), own.index)),
  }));
  const most = all.reduce((best, one) => (one.amps > best.amps ? one : best));
  return most.amps > 0 ? most : null;
}

/** Frequency that a part works at; 0 on direct volts. */
export function hertzOf({ compiled }: CircuitModel, ref: string): number {
  const own = compiled.parts[findPart(compiled, ref, 'part')]!.branches[0];
  return own ? compiled.hertz[own.a]! : 0;
}

/** Coils and relays on direct volts that a position of the controls switches on: what draws a trace with a plunger in it. */
export function tracedParts(model: CircuitModel): string[] {
  const { compiled } = model;
  return compiled.parts.flatMap(({ part, branches }) => {
    const own = branches[0];
    const isCoil = part.kind === 'coil' || part.kind === 'relay';
    if (!isCoil || !own || own.reactance > 0 || compiled.alternating[own.a] === 1) return [];
    return workedIn(model, part.ref) ? [part.ref] : [];
  });
}

/** A part whose current is worth watching, and what for. */
export interface WatchedPart {
  ref: string;
  kind: 'dip' | 'inrush';
}

/** Coils on direct volts for their plunger; motors, lamps, heaters and coils on alternating volts for how they start. */
export function watchedParts(model: CircuitModel): WatchedPart[] {
  const dips = tracedParts(model);
  const starts = model.compiled.parts.flatMap(({ part }) =>
    (kindOf(part).traits.works || part.kind === 'relay') &&
    !dips.includes(part.ref) &&
    workedIn(model, part.ref)
      ? [part.ref]
      : [],
  );
  return [
    ...dips.map((ref): WatchedPart => ({ ref, kind: 'dip' })),
    ...starts.map((ref): WatchedPart => ({ ref, kind: 'inrush' })),
  ];
}
