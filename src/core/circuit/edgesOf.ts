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
  const bare = bareEdges(situation, mode);
  const edges = new Edges(bare.whole);
  const conducting = situation.commanded.slice();
  const stateOfPart = setDevices(devices, state, conducting, edges);
  setWays(situation, stateOfPart, conducting, edges);
  const couplings = addTransformers(situation, live, structural, edges);
  applyStructural(structural, edges);
  const { list } = edges;
  for (let at = 0; at < list.length; at++) {
    const edge = list[at]!;
    const isCut = at < compiled.branches.length && !(situation.present[at] && conducting[at]);
    if (edge !== bare.whole[at]) list[at] = shared(compiled, at, isCut ? cut(edge) : edge);
    else if (isCut) list[at] = bare.cut[at] ??= shared(compiled, at, cut(edge));
  }
  for (const { a, b, ohms } of situation.jumpers)
    list.push(shared(compiled, list.length, { a, b, siemens: 1 / ohms, emf: 0 }));
  return { edges: list, couplings };
}

/** Edges of a network that is being made up: what is not changed stays the edge that others have too. */
class Edges {
  readonly list: Edge[];

  constructor(bare: readonly Edge[]) {
    this.list = [...bare];
  }

  change(at: number, change: (edge: Edge) => Partial<Edge>): void {
    const edge = this.list[at]!;
    this.list[at] = { ...edge, ...change(edge) };
  }
}

function cut(edge: Edge): Edge {
  return { ...edge, siemens: 0, susceptance: 0 };
}

/** Of each circuit, by the place in its networks, the edges that stood there. */
const stood = new WeakMap<CompiledCircuit, Edge[][]>();
/** A place where more stood is one whose figures never come again. */
const MOST_AT_A_PLACE = 16;

/** Hundreds of networks of a circuit are kept, and each has almost all of its edges in common with others: they have the same ones. */
function shared(compiled: CompiledCircuit, at: number, edge: Edge): Edge {
  const places = stood.get(compiled) ?? [];
  if (places.length === 0) stood.set(compiled, places);
  const here = (places[at] ??= []);
  for (const one of here) if (isSame(one, edge)) return one;
  if (here.length < MOST_AT_A_PLACE) here.push(edge);
  return edge;
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

/** Every branch as if it conducted, and, as far as it was asked for, as if it did not. */
interface Bare {
  whole: readonly Edge[];
  cut: (Edge | undefined)[];
}

/** By circuit and by situation, then by what drives. */
const bares = new WeakMap<CompiledCircuit | Situation, Map<string, Bare>>();

function bareEdges(situation: Situation, mode: Drive['mode']): Bare {
  const { compiled, a, b, ohms } = situation;
  return bareOf(situation, mode, () => {
    const { whole, cut: drawnCut } = bareOf(compiled, mode, () => ({
      whole: compiled.branches.map((branch) => bareEdge(branch, branch, compiled, mode)),
      cut: [],
    }));
    let own: { whole: Edge[]; cut: (Edge | undefined)[] } | null = null;
    for (const branch of compiled.branches) {
      const at = branch.index;
      if (a[at] === branch.a && b[at] === branch.b && ohms[at] === branch.ohms) continue;
      own ??= { whole: [...whole], cut: [...drawnCut] };
      const now = { a: a[at]!, b: b[at]!, ohms: ohms[at]! };
      own.whole[at] = shared(compiled, at, bareEdge(branch, now, compiled, mode));
      own.cut[at] = undefined;
    }
    return own ?? { whole, cut: drawnCut };
  });
}

function bareOf(of: CompiledCircuit | Situation, mode: Drive['mode'], make: () => Bare): Bare {
  const key = mode === 'live' || mode === 'resting' ? mode : 'dead';
  const known = bares.get(of) ?? new Map<string, Bare>();
  bares.set(of, known);
  const bare = known.get(key) ?? make();
  known.set(key, bare);
  return bare;
}

/** With the sources off, a source is a piece of wire, and what rests has its ohms at rest. */
function bareEdge(
  branch: Branch,
  { a, b, ohms }: Pick<Branch, 'a' | 'b' | 'ohms'>,
  { parts }: CompiledCircuit,
  mode: Drive['mode'],
): Edge {
  const live = mode === 'live';
  const isSource = parts[branch.part]!.part.kind === 'source';
  return {
    a,
    b,
    ...admittance(restsAt(branch, mode) ?? ohms, live ? branch.reactance : 0),
    emf: !live && isSource ? 0 : branch.emf,
  };
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
  edges: Edges,
): Map<number, number> {
  const stateOfPart = new Map<number, number>();
  devices.forEach((device, at) => {
    const on = state[at] === 1;
    if (device.kind === 'fuse') conducting[device.branch] = on ? 0 : 1;
    else if (device.kind === 'diode') conducting[device.branch] = on ? 1 : 0;
    else if (device.kind === 'driver') {
      if (!on || !conducting[device.branch]) return;
      edges.change(device.branch, () => ({ siemens: LIMIT_SIEMENS, emf: device.limit / LIMIT_SIEMENS }));
    } else stateOfPart.set(device.part, state[at]!);
  });
  return stateOfPart;
}

/** Contacts, spools, openings and seals as the devices that move them stand. */
function setWays(
  { compiled }: Situation,
  stateOfPart: ReadonlyMap<number, number>,
  conducting: Uint8Array,
  edges: Edges,
): void {
  for (const { index, role, part, positions } of compiled.branches) {
    const now = stateOfPart.get(part) ?? 0;
    if (role === 'seal') conducting[index] = 0;
    else if (role === 'opening') {
      conducting[index] = now > 0 ? 1 : 0;
      edges.change(index, ({ siemens }) => ({ siemens: siemens * (Math.max(now, 1) / OPENING_STEPS) }));
    } else if (role === 'made') conducting[index] = now;
    else if (role === 'resting') conducting[index] = 1 - now;
    else if (positions) {
      conducting[index] = positions.includes(now) ? 1 : 0;
      if (now === MIDWAY) edges.change(index, ({ siemens }) => ({ siemens: siemens / MIDWAY_NARROWER }));
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
  edges: Edges,
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
      edges.list.push({ a: p[0], b: p[1], siemens: 1 / (ohms * ratio * ratio), emf: 0 });
      edges.list.push({ a: s[0], b: s[1], siemens: 1 / ohms, emf: 0 });
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

function applyStructural(structural: readonly Edit[], edges: Edges): void {
  for (const edit of structural) {
    if (edit.type === 'emf') edges.change(edit.branch, ({ emf }) => ({ emf: emf * edit.factor }));
    else if (edit.type === 'reverse') edges.change(edit.branch, ({ emf }) => ({ emf: -emf }));
    else if (edit.type === 'cross') {
      for (const [one, two] of edit.pairs) {
        const [p, q] = [edges.list[one.branch]![one.end], edges.list[two.branch]![two.end]];
        edges.change(one.branch, () => ({ [one.end]: q }));
        edges.change(two.branch, () => ({ [two.end]: p }));
      }
    }
  }
}
