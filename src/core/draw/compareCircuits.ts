import type { Circuit, Part } from '../circuit/schema';

/** One difference between two versions of a circuit. */
export type Difference =
  | { is: 'added' | 'removed'; part: string; kind: Part['kind'] }
  | { is: 'changed'; part: string; key: string; before: string; after: string }
  | { is: 'control'; control: string; before: string; after: string }
  | { is: 'frame' | 'name'; before: string; after: string };

/** What changed from one version to the next, in the order of the parts. Equal circuits give an empty list. */
export function compareCircuits(before: Circuit, after: Circuit): Difference[] {
  const found: Difference[] = [];
  if (before.name !== after.name) found.push({ is: 'name', before: before.name, after: after.name });
  if (before.frame !== after.frame) found.push({ is: 'frame', before: before.frame, after: after.frame });
  const old = new Map(before.parts.map((part) => [part.ref, part]));
  const now = new Map(after.parts.map((part) => [part.ref, part]));
  for (const [ref, part] of old) if (!now.has(ref)) found.push({ is: 'removed', part: ref, kind: part.kind });
  for (const [ref, part] of now) {
    const was = old.get(ref);
    if (!was) {
      found.push({ is: 'added', part: ref, kind: part.kind });
      continue;
    }
    const keys = new Set([...Object.keys(was), ...Object.keys(part)]);
    for (const key of keys) {
      const [one, other] = [was, part].map((side) => words((side as Record<string, unknown>)[key]));
      if (one !== other) found.push({ is: 'changed', part: ref, key, before: one!, after: other! });
    }
  }
  for (const control of new Set([...Object.keys(before.controls), ...Object.keys(after.controls)])) {
    const [one, other] = [before, after].map(({ controls }) => (controls[control] ?? []).join(', '));
    if (one !== other) found.push({ is: 'control', control, before: one!, after: other! });
  }
  return found;
}

/** A field's value in a line: "1: B+, 2: F7:2". Keys in one order, so that equal values read alike. */
function words(value: unknown): string {
  if (value === undefined || value === null) return '';
  if (Array.isArray(value)) return value.map(words).join(' or ');
  if (typeof value !== 'object') return String(value);
  return Object.entries(value)
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .map(([key, one]) => `${key}: ${words(one)}`)
    .join(', ');
}
