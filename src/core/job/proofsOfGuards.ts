import type { Edit } from '../circuit/edits';
import type { CircuitModel } from '../circuit/model';
import type { Part, Setup, Test } from '../circuit/schema';
import { kindOf } from '../kinds/part';
import { countsAsGuard } from '../safety/guards';
import type { Proof } from './proofList';
import { predictedOf } from './soundReading';

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
  /** All of them held closed: what stops even then is stopped by something else. */
  const held = guards.flatMap(({ ref }): Edit[] =>
    model.compiled.parts[model.compiled.partIndex.get(ref)!]!.branches.map(({ index }) => ({
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
      if (predictedOf(model, test) !== 'dead' || predictedOf(model, test, held) === 'dead') continue;
      const id = `withoutPressure ${part} ${supply}`;
      if (!found.has(id))
        found.set(id, {
          id,
          kind: 'withoutPressure',
          test,
          part,
          supply,
          setup: shut,
          guards: guards.map(({ ref }) => ref),
        });
    }
  }
  return [...found.values()];
}

/** Whether somebody sees that it works: a relay and a resistor are seen by what they feed. */
function isSeen({ compiled: { circuit } }: CircuitModel, ref: string): boolean {
  const { kind } = circuit.parts.find((one) => one.ref === ref)!;
  return kind !== 'relay' && kind !== 'resistor';
}
