import type { CompiledCircuit } from '../circuit/compile';
import type { CircuitModel } from '../circuit/model';
import type { Part, Setup } from '../circuit/schema';
import { kindOf } from '../kinds/part/index';
import type { Guard } from '../circuit/partSchema';

/** What a contact protects; `unanswered` where nobody has said, and `null` for a part that has no contact. */
export type GuardStanding = Guard | 'unanswered' | null;

/**
 * What a part's contact protects, as its circuit file says. Never worked out from what a part is called. An older file
 * says only whether something is guarded (`safety`): its "no" is an answer, its "yes" leaves open who.
 */
export function guardOf(part: Part): GuardStanding {
  if (!kindOf(part).traits.contact) return null;
  if ('guards' in part && part.guards) return part.guards;
  return 'safety' in part && part.safety === false ? 'none' : 'unanswered';
}

/** Whether a part counts as a guard: what nobody has answered does. */
export function countsAsGuard(part: Part): boolean {
  const guard = guardOf(part);
  return guard !== null && guard !== 'none';
}

/**
 * Guards that lie within a bridge from one node to another: wires, pins, fuses and other contacts lead from one end of
 * the bridge to the guard and from the guard to its other end, in whatever position they stand. References, by order of
 * the circuit; empty where an end is no node of it.
 */
export function guardsWithin({ compiled }: CircuitModel, [from, to]: readonly [string, string]): string[] {
  const [a, b] = [compiled.nodeIndex.get(from), compiled.nodeIndex.get(to)];
  if (a === undefined || b === undefined || a === b) return [];
  return compiled.parts.flatMap(({ part, index }) => {
    if (!countsAsGuard(part)) return [];
    const near = tiedTo(compiled, a, index);
    const far = tiedTo(compiled, b, index);
    const spans = contactsOf(compiled, index).some(
      ([one, other]) => (near.has(one) && far.has(other)) || (near.has(other) && far.has(one)),
    );
    return spans ? [part.ref] : [];
  });
}

/** Guards that a set-up takes out of action: bridged, or a guarding relay held in by hand while a supply is on. */
export function guardsDefeated(model: CircuitModel, setup: Setup): string[] {
  const { compiled } = model;
  const supplies = compiled.circuit.parts.filter(({ kind }) => kind === 'source');
  const powered = supplies.some(({ ref }) => !setup.isolated?.includes(ref));
  const held = powered
    ? (setup.energised ?? []).filter((ref) => {
        const at = compiled.partIndex.get(ref);
        const part = at === undefined ? null : compiled.parts[at]!.part;
        return part?.kind === 'relay' && countsAsGuard(part);
      })
    : [];
  const bridged = (setup.jumpers ?? []).flatMap((jumper) => guardsWithin(model, jumper));
  return [...new Set([...bridged, ...held])];
}

/** Pairs of nodes between which a part's contacts are; a relay's coil is none. */
function contactsOf(compiled: CompiledCircuit, index: number): [number, number][] {
  const { part, branches } = compiled.parts[index]!;
  const own = part.kind === 'relay' ? branches.slice(1) : branches;
  return own.map(({ a, b }) => [a, b]);
}

/** Nodes tied to one by what carries, without a given part. The frame ends a way: everything hangs on it. */
function tiedTo(compiled: CompiledCircuit, start: number, without: number): ReadonlySet<number> {
  const seen = new Set([start]);
  const queue = [start];
  for (const node of queue) {
    if (node === compiled.frame && node !== start) continue;
    for (const { index, part } of compiled.parts) {
      // A bridge around what carries is a bridge around all that lies between.
      if (index === without || !kindOf(part).traits.carries) continue;
      for (const [a, b] of contactsOf(compiled, index)) {
        const next = a === node ? b : b === node ? a : -1;
        if (next < 0 || seen.has(next)) continue;
        seen.add(next);
        queue.push(next);
      }
    }
  }
  return seen;
}
