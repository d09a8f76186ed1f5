import { controlsOf } from './controlsOf';
import { partText, sharedParts } from './joinCircuits';
import type { Circuit } from './schema';

/**
 * Another function of the same machine after parts that it shares with a changed one were changed there: the same part
 * is the same part everywhere. `null` when the change touches nothing it shares.
 */
export function shareChanges(before: Circuit, after: Circuit, other: Circuit): Circuit | null {
  const shared = new Set(sharedParts(before, other));
  const old = new Map(before.parts.map((part) => [part.ref, partText(part)]));
  const changed = new Map(
    after.parts
      .filter((part) => shared.has(part.ref) && old.get(part.ref) !== partText(part))
      .map((part) => [part.ref, part]),
  );
  if (changed.size === 0) return null;
  const controls = { ...other.controls };
  for (const part of changed.values()) {
    for (const control of controlsOf(part)) {
      const positions = after.controls[control] ?? [];
      const known = controls[control] ?? [];
      controls[control] = [...known, ...positions.filter((one) => !known.includes(one))];
    }
  }
  return { ...other, controls, parts: other.parts.map((part) => changed.get(part.ref) ?? part) };
}
