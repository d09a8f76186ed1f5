import { isAssumed } from '../circuit/assumed';
import type { Edit } from '../circuit/edits';
import type { CircuitModel } from '../circuit/model';
import type { Part, Setup, Test } from '../circuit/schema';
import { kindOf } from '../kinds/part';
import { countsAsGuard } from '../safety/guards';
import type { Proof } from './proofList';
import { switchTest } from '../diagnosis/fluidCandidates';
import { refrigerantOpened } from '../safety/refrigerant';
import type { JobState } from './reduceJob';
import { workedOn } from './workedOn';
import { predictedOf, valueOf } from './soundReading';

/** A set-up in which something works: electric loads, and what air, oil or vacuum drives. */
export interface Working {
  setup: Setup;
  loads: string[];
  driven: string[];
}

/** That every control stops what hangs on it, and every guarding pressure switch what it guards. */
export function proofsOfGuards(model: CircuitModel, patterns: readonly Working[]): Proof[] {
  return [...interlocks(model, patterns), ...withoutPressure(model, patterns)];
}

/** Each control that a working load depends on, moved to where the load must stop. */
function interlocks(model: CircuitModel, patterns: readonly Working[]): Proof[] {
  const { circuit } = model.compiled;
  const found = new Map<string, Proof>();
  for (const { setup, loads, driven } of patterns) {
    if (setup.afterSeconds !== undefined) continue;
    const part = [...driven, ...loads].find((ref) => isSeen(model, ref));
    if (!part) continue;
    for (const [control, positions] of Object.entries(circuit.controls)) {
      const now = setup.controls?.[control] ?? positions[0]!;
      for (const position of positions) {
        if (position === now) continue;
        const stopped: Setup = { ...setup, controls: { ...setup.controls, [control]: position } };
        const test: Test = { kind: 'function', part, setup: stopped };
        if (predictedOf(model, test) !== 'dead') continue;
        const id = `interlock ${part} ${control} ${position}`;
        const guards = circuit.parts.filter((one) => countsAsGuard(one) && isWorkedBy(one, control));
        if (!found.has(id))
          found.set(id, {
            id,
            kind: 'interlock',
            test,
            part,
            control,
            position,
            setup: stopped,
            guards: guards.map(({ ref }) => ref),
          });
      }
    }
  }
  return [...found.values()];
}

function isWorkedBy(part: Part, control: string): boolean {
  return 'closedWhen' in part && control in part.closedWhen;
}

/**
 * What a guarding pressure switch lets work, with its supply shut and vented. Shown on a load that is fed by wire: what the pressure itself
 * drives stops whatever the switch does. Refrigerant is not let out for it, and no gauge on its circuit is touched.
 */
function withoutPressure(model: CircuitModel, patterns: readonly Working[]): Proof[] {
  const { parts } = model.compiled.circuit;
  const guards = parts.filter((part) => part.kind === 'pressureSwitch' && countsAsGuard(part));
  if (guards.length === 0) return [];
  const supplies = parts.filter((part) => ['air', 'oil', 'vacuum'].includes(kindOf(part).energy(part) ?? ''));
  const heldClosed = (but: string | null): Edit[] =>
    guards.flatMap(({ ref }): Edit[] =>
      ref === but
        ? []
        : model.compiled.parts[model.compiled.partIndex.get(ref)!]!.branches.map(({ index }) => ({
            type: 'force',
            branch: index,
            on: true,
          })),
    );
  const found = new Map<string, Proof>();
  for (const { setup, loads } of patterns) {
    const part = loads.find((ref) => isSeen(model, ref));
    if (!part || setup.afterSeconds !== undefined) continue;
    for (const { ref: supply } of supplies) {
      const shut: Setup = { ...setup, isolated: [...(setup.isolated ?? []), supply] };
      const test: Test = { kind: 'function', part, setup: shut };
      // What stops with all of them held closed is stopped by something else.
      if (predictedOf(model, test) !== 'dead' || predictedOf(model, test, heldClosed(null)) === 'dead')
        continue;
      const opens = guards.filter(({ ref }) => predictedOf(model, test, heldClosed(ref)) === 'dead');
      const id = `withoutPressure ${part} ${supply}`;
      if (!found.has(id))
        found.set(id, {
          id,
          kind: 'withoutPressure',
          test,
          part,
          supply,
          setup: shut,
          guards: opens.map(({ ref }) => ref),
        });
    }
  }
  return [...found.values()];
}

/** A switch point may stand this share off what is written on it (verify; the maker's figure goes before). */
const SWITCH_POINT_SHARE = 0.15;

/**
 * The guarding pressure switch that was changed, read on a hand pump, where no other line shows that it opens: nobody drives a machine
 * into its limit to see it trip. That of a refrigerant circuit stays with who is licensed.
 */
export function switchPoint(model: CircuitModel, state: JobState, shown: readonly Proof[]): Proof[] {
  const worked = new Set(workedOn(state).map(({ part }) => part));
  return model.compiled.circuit.parts
    .filter(({ ref }) => worked.has(ref))
    .flatMap((part) => (part.kind === 'pressureSwitch' ? switchPointOf(model, part, shown) : []));
}

function switchPointOf(
  model: CircuitModel,
  part: Extract<Part, { kind: 'pressureSwitch' }>,
  shown: readonly Proof[],
): Proof[] {
  if (!countsAsGuard(part)) return [];
  if (shown.some((proof) => 'guards' in proof && proof.guards.includes(part.ref))) return [];
  const test = switchTest(model, part, 'rising');
  if (test.kind !== 'changes' || refrigerantOpened(model, test).length > 0) return [];
  const unsaid = isAssumed(part, 'makeKPa') || isAssumed(part, 'breakKPa');
  const expected = unsaid ? null : valueOf(model, test);
  const within = SWITCH_POINT_SHARE * Math.abs(expected ?? 0);
  const id = `changesOver ${part.ref}`;
  return [{ id, kind: 'changesOver', test, part: part.ref, expected, within, guards: [part.ref] }];
}

/** Whether somebody sees that it works: a relay and a resistor are seen by what they feed. */
function isSeen({ compiled: { circuit } }: CircuitModel, ref: string): boolean {
  const { kind } = circuit.parts.find((one) => one.ref === ref)!;
  return kind !== 'relay' && kind !== 'resistor';
}
