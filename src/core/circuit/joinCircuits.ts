import type { Circuit, Part } from './schema';

const MOST_PARTS = 400;
/** Keys that describe a part to people and change nothing it does. */
const DESCRIBING: readonly string[] = [
  'label',
  'place',
  'sheet',
  'square',
  'accessMinutes',
  'wear',
  'colour',
  'mark',
  'how',
];

/** Parts of two circuits of one machine that are the same part: same reference, same nodes, same figures. */
export function sharedParts(one: Circuit, other: Circuit): string[] {
  const known = new Map(one.parts.map((part) => [part.ref, part]));
  return other.parts.flatMap((part) => {
    const same = known.get(part.ref);
    return same && essence(same) === essence(part) ? [part.ref] : [];
  });
}

/**
 * Two functions of one machine as one circuit, their shared parts once. `null` when they cannot stand together: another
 * frame, a part or a control of the same name that is not the same, nothing shared, or too many parts.
 */
export function joinCircuits(main: Circuit, other: Circuit): Circuit | null {
  if (main.frame !== other.frame) return null;
  const shared = new Set(sharedParts(main, other));
  const own = new Set(main.parts.map(({ ref }) => ref));
  if (shared.size === 0 || other.parts.some(({ ref }) => own.has(ref) && !shared.has(ref))) return null;
  for (const [control, positions] of Object.entries(other.controls)) {
    const known = main.controls[control];
    if (known && JSON.stringify(known) !== JSON.stringify(positions)) return null;
  }
  const added = other.parts.filter(({ ref }) => !own.has(ref));
  if (main.parts.length + added.length > MOST_PARTS) return null;
  const energies = [...(main.energies ?? []), ...(other.energies ?? [])].filter(
    (one, at, all) => all.findIndex(({ name }) => name === one.name) === at,
  );
  return {
    ...main,
    controls: { ...main.controls, ...other.controls },
    parts: [...main.parts, ...added],
    ...(energies.length > 0 ? { energies } : {}),
  };
}

/** What a part does, as text that is equal for equal parts. */
function essence(part: Part): string {
  return partText(part, DESCRIBING);
}

/** A part as text that is equal for equal parts, whatever order its keys stand in; some keys left out. */
export function partText(part: Part, without: readonly string[] = []): string {
  return JSON.stringify(part, (key, value: unknown) => {
    if (without.includes(key)) return undefined;
    return value && typeof value === 'object' && !Array.isArray(value)
      ? Object.fromEntries(Object.entries(value).sort(([a], [b]) => (a < b ? -1 : 1)))
      : value;
  });
}
