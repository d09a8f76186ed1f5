import { MIDWAY, MIDWAY_NARROWER, OPENING_STEPS } from '../kinds/part/branch';
import type { Branch, CompiledCircuit } from './compile';
import type { Device } from './deviceTypes';
import type { Drive } from './deltas';
import type { Edit } from './edits';
import type { Coupling, Edge } from './network';
import type { Situation } from './situation';

/** A driver in current limit keeps this small conductance so that its node stays tied. */
const LIMIT_SIEMENS = 1e-6;

/** The network of a situation with its devices in given states: every branch as an edge, every transformer as a coupling. */
export function edgesOf(
  situation: Situation,
  devices: readonly Device[],
  state: Uint8Array,
  mode: Drive['mode'],
  structural: readonly Edit[],
): { edges: readonly Edge[]; couplings: Coupling[] } {
  const { compiled } = situation;
  const live = mode === 'live';
  const edges = bareEdges(situation, mode);
  const conducting = Uint8Array.from(situation.commanded);
  const stateOfPart = setDevices(devices, state, conducting, edges);
  setWays(situation, stateOfPart, conducting, edges);
  const couplings = addTransformers(situation, live, structural, edges);
  applyStructural(structural, edges);
  compiled.branches.forEach(({ index }) => {
    if (situation.present[index] && conducting[index]) return;
    edges[index]!.siemens = 0;
    edges[index]!.susceptance = 0;
  });
  for (const { a, b, ohms } of situation.jumpers) edges.push({ a, b, siemens: 1 / ohms, emf: 0 });
  return { edges: shared(compiled, edges), couplings };
}

/** Of each circuit, by the place in its networks, the edges that stood there. */
const stood = new WeakMap<CompiledCircuit, Edge[][]>();
/** A place where more stood is one whose figures never come again. */
const MOST_AT_A_PLACE = 16;

/** Hundreds of networks of a circuit are kept, and each has almost all of its edges in common with others: they have the same ones. */
function shared(compiled: CompiledCircuit, edges: readonly Edge[]): readonly Edge[] {
  const places = stood.get(compiled) ?? [];
  if (places.length === 0) stood.set(compiled, places);
  return edges.map((edge, at) => {
    const here = (places[at] ??= []);
    for (const one of here) if (isSame(one, edge)) return one;
    if (here.length < MOST_AT_A_PLACE) here.push(edge);
    return edge;
  });
}

function isSame(one: Edge, other: Edge): boolean {
  return (
    one.a === other.a &&
    one.b === other.b &&
    one.siemens === other.siemens &&
    one.emf === other.emf &&
    one.susceptance === other.susceptance
  );
}

/** Every branch as if it conducted. With the sources off, a source is a piece of wire, and what rests has its ohms at rest. */
function bareEdges({ compiled, a, b, ohms }: Situation, mode: Drive['mode']): Edge[] {
  const live = mode === 'live';
  return compiled.branches.map((branch): Edge => {
    const source = compiled.parts[branch.part]!.part.kind === 'source';
    return {
      a: a[branch.index]!,
      b: b[branch.index]!,
      ...admittance(restsAt(branch, mode) ?? ohms[branch.index]!, live ? branch.reactance : 0),
      emf: !live && source ? 0 : branch.emf,
    };
  });
}

/** Ohms of a branch that rests, as far as they are said; all of them where a reading asks for what is usual. Null where it has what it has at work. */
function restsAt({ rest }: Branch, mode: Drive['mode']): number | null {
  return rest && mode !== 'live' && (rest.said || mode === 'resting') ? rest.ohms : null;
}

/** What fuses, diodes and drivers let through; gives the state of every device that moves something, by its part. */
function setDevices(
  devices: readonly Device[],
  state: Uint8Array,
  conducting: Uint8Array,
  edges: Edge[],
): Map<number, number> {
  const stateOfPart = new Map<number, number>();
  devices.forEach((device, at) => {
    const on = state[at] === 1;
    if (device.kind === 'fuse') conducting[device.branch] = on ? 0 : 1;
    else if (device.kind === 'diode') conducting[device.branch] = on ? 1 : 0;
    else if (device.kind === 'driver') {
      if (!on || !conducting[device.branch]) return;
      edges[device.branch]!.siemens = LIMIT_SIEMENS;
      edges[device.branch]!.emf = device.limit / LIMIT_SIEMENS;
    } else stateOfPart.set(device.part, state[at]!);
  });
  return stateOfPart;
}

/** Contacts, spools, openings and seals as the devices that move them stand. */
function setWays(
  { compiled }: Situation,
  stateOfPart: ReadonlyMap<number, number>,
  conducting: Uint8Array,
  edges: Edge[],
): void {
  for (const { index, role, part, positions } of compiled.branches) {
    const now = stateOfPart.get(part) ?? 0;
    if (role === 'seal') conducting[index] = 0;
    else if (role === 'opening') {
      conducting[index] = now > 0 ? 1 : 0;
      edges[index]!.siemens *= Math.max(now, 1) / OPENING_STEPS;
    } else if (role === 'made') conducting[index] = now;
    else if (role === 'resting') conducting[index] = 1 - now;
    else if (positions) {
      conducting[index] = positions.includes(now) ? 1 : 0;
      if (now === MIDWAY) edges[index]!.siemens /= MIDWAY_NARROWER;
    } else {
      const item = compiled.parts[part]!.part;
      if (item.kind === 'regulator') conducting[index] = role === 'wideOpen' ? now : 1 - now;
      if (item.kind === 'pressureSwitch') conducting[index] = item.contact === 'NC' ? 1 - now : now;
    }
  }
}

/** Transformers: a coupling on an alternating supply, else two windings that know nothing of each other. */
function addTransformers(
  { compiled, setup }: Situation,
  live: boolean,
  structural: readonly Edit[],
  edges: Edge[],
): Coupling[] {
  const couplings: Coupling[] = [];
  const away = new Set([...(setup.removed ?? []), ...(setup.isolated ?? [])]);
  for (const unit of compiled.transformers) {
    const edit = structural.find((one) => one.type === 'transformer' && one.part === unit.part);
    const change: { ohms?: number; factor?: number } = edit?.type === 'transformer' ? edit : {};
    const ohms = change.ohms ?? unit.ohms;
    if (away.has(compiled.parts[unit.part]!.part.ref) || ohms === Infinity) continue;
    const ratio = unit.ratio / (change.factor ?? 1);
    if (live && unit.primary.some((node) => compiled.alternating[node] === 1)) {
      couplings.push({ primary: unit.primary, secondary: unit.secondary, ratio, siemens: 1 / ohms });
    } else {
      const [p, s] = [unit.primary, unit.secondary];
      edges.push({ a: p[0], b: p[1], siemens: 1 / (ohms * ratio * ratio), emf: 0 });
      edges.push({ a: s[0], b: s[1], siemens: 1 / ohms, emf: 0 });
    }
  }
  return couplings;
}

/** Admittance of a resistance and a reactance in series; none for an infinite resistance. */
export function admittance(ohms: number, reactance: number): { siemens: number; susceptance: number } {
  if (ohms === Infinity) return { siemens: 0, susceptance: 0 };
  if (reactance === 0) return { siemens: 1 / ohms, susceptance: 0 };
  const square = ohms * ohms + reactance * reactance;
  return { siemens: ohms / square, susceptance: -reactance / square };
}

function applyStructural(edits: readonly Edit[], edges: Edge[]): void {
  for (const edit of edits) {
    if (edit.type === 'emf') edges[edit.branch]!.emf *= edit.factor;
    else if (edit.type === 'reverse') edges[edit.branch]!.emf *= -1;
    else if (edit.type === 'cross') {
      for (const [one, two] of edit.pairs) {
        const [p, q] = [edges[one.branch]!, edges[two.branch]!];
        [p[one.end], q[two.end]] = [q[two.end], p[one.end]];
      }
    }
  }
}
