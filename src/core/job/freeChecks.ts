import { mediumOf } from '../circuit/medium';
import type { CircuitModel } from '../circuit/model';
import type { Part, Setup, Test } from '../circuit/schema';
import { kindOf } from '../kinds/part';
import { freedLoads } from '../safety/heldLoads';
import { workingPatterns } from '../diagnosis/patterns';

/** A look, a listen or a touch that costs next to nothing. With a test, its answer is a reading the engine weighs. */
export interface FreeCheck {
  id: string;
  kind:
    | 'gauge'
    | 'click'
    | 'override'
    | 'leak'
    | 'rod'
    | 'rotor'
    | 'throttle'
    | 'relief'
    | 'plug'
    | 'loom'
    | 'water';
  /** What is looked at: a part, a plug, a gauge's place. */
  subject: string;
  test: Test | null;
}

/** A set-up with the loads blocked that it would let go. */
function safely(model: CircuitModel, setup: Setup): Setup {
  const secured = freedLoads(model, setup).map(({ ref }) => ref);
  return secured.length > 0 ? { ...setup, secured } : setup;
}

function leaksOutwards(part: Part): boolean {
  const { odds } = kindOf(part);
  return 'leaking' in odds || 'sealLeak' in odds;
}

/** Outside checks for a circuit, the cheapest and surest first: gauges, clicks, overrides, then plugs and looms. */
export function freeChecks(model: CircuitModel): FreeCheck[] {
  const { compiled } = model;
  const { parts } = compiled.circuit;
  const checks: FreeCheck[] = [];
  const patterns = workingPatterns(model);
  for (const part of parts) {
    if (part.kind !== 'airSupply' && part.kind !== 'pump' && part.kind !== 'regulator') continue;
    const at = part.kind === 'regulator' ? String(Object.values(part.nodes).at(-1)) : part.nodes.out;
    checks.push({ id: `gauge ${at}`, kind: 'gauge', subject: at, test: { kind: 'pressure', at, setup: {} } });
  }
  for (const part of parts) {
    if (part.kind !== 'coil' && part.kind !== 'relay') continue;
    const pattern = patterns.find(({ loads }) => loads.includes(part.ref));
    if (!pattern) continue;
    const test = { kind: 'click', part: part.ref, setup: safely(model, pattern.setup) } as const;
    checks.push({ id: `click ${part.ref}`, kind: 'click', subject: part.ref, test });
  }
  for (const part of parts) {
    if (part.kind !== 'valve') continue;
    const moved = parts.find(({ kind }) => kind === 'cylinder' || kind === 'vacuumActuator');
    const setup = safely(model, { override: [part.ref] });
    const test = moved ? ({ kind: 'moves', part: moved.ref, setup } as const) : null;
    checks.push({ id: `override ${part.ref}`, kind: 'override', subject: part.ref, test });
  }
  const leaks = new Set(parts.flatMap((part) => (part.place && leaksOutwards(part) ? [part.place] : [])));
  for (const place of leaks) checks.push({ id: `leak ${place}`, kind: 'leak', subject: place, test: null });
  // Oil holds a rod whatever hand is laid to it.
  if (mediumOf(model) !== 'oil')
    for (const part of parts) {
      if (part.kind !== 'cylinder' && part.kind !== 'vacuumActuator') continue;
      checks.push({ id: `rod ${part.ref}`, kind: 'rod', subject: part.ref, test: null });
    }
  for (const part of parts)
    if (part.kind === 'motor')
      checks.push({ id: `rotor ${part.ref}`, kind: 'rotor', subject: part.ref, test: null });
  // What meters refrigerant is inside its circuit: nobody sees how far it is open.
  for (const part of parts)
    if (part.kind === 'throttle' && !part.refrigerant)
      checks.push({ id: `throttle ${part.ref}`, kind: 'throttle', subject: part.ref, test: null });
  for (const part of parts)
    if (part.kind === 'relief')
      checks.push({ id: `relief ${part.ref}`, kind: 'relief', subject: part.ref, test: null });
  const plugs = [...new Set(parts.flatMap((part) => (part.kind === 'pin' ? [part.connector] : [])))];
  checks.push(
    ...plugs.map((plug): FreeCheck => ({ id: `plug ${plug}`, kind: 'plug', subject: plug, test: null })),
  );
  const looms = [
    ...new Set(parts.flatMap((part) => (part.kind === 'wire' && part.place ? [part.place] : []))),
  ];
  checks.push(
    ...looms.map((loom): FreeCheck => ({ id: `loom ${loom}`, kind: 'loom', subject: loom, test: null })),
  );
  checks.push({ id: 'water', kind: 'water', subject: 'Water, ice or corrosion', test: null });
  return checks;
}
