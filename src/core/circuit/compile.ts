import { ATMOSPHERE, type BranchRole, type BranchSpec, type RestFigures } from '../kinds/part/branch';
import { isFluidEnd, kindOf } from '../kinds/part/index';
import { transformerOhms } from '../kinds/part/transformer';
import type { WindingFigures } from '../kinds/part/branch';
import { InputError } from './inputError';
import { nodeGroups } from './nodeGroups';
import type { Circuit, Part } from './schema';
import { isAssumed } from './assumed';
import { isNotKnown, notSaid, settleWinding } from './windings';

/** Ohms by reference, of windings whose own nobody has said. */
export type LearntOhms = ReadonlyMap<string, LearntOhm>;

/** Ohms of a winding that were read of it, or of its like, and how far they may be off, a share. */
export interface LearntOhm {
  ohms: number;
  tolerance: number;
}

/** Nothing conducts better than this: keeps the matrix well scaled. */
export const LEAST_OHMS = 1e-4;

export type Domain = 'electrical' | 'fluid';

/** One two-terminal piece of a part. */
export interface Branch {
  index: number;
  part: number;
  role: BranchRole;
  domain: Domain;
  /** Contact set of a relay, counted from 0. */
  set: number;
  a: number;
  b: number;
  /** Resistance while it conducts, ohms; or kPa per L/min. */
  ohms: number;
  /** Reactance at the frequency of its own supply, ohms; 0 on direct current. */
  reactance: number;
  /** Current a to b is `(v_a − v_b + emf) / ohms`. */
  emf: number;
  /** Relative spread of the resistance, and of what limits its current on its own supply. */
  tolerance: number;
  liveTolerance: number;
  /** Nominal volts of the circuit it belongs to; 0 where nothing feeds it. */
  volts: number;
  /** Somebody has said what it reads; and what limits its current on alternating volts. */
  ohmsKnown: boolean;
  impedanceKnown: boolean;
  emfTolerance: number;
  /** What a meter reads of it cold or standing; null where that is what it has at work. */
  rest: RestFigures | null;
  /** Valve positions in which it is open; null for everything else. */
  positions: readonly number[] | null;
}

export interface TransformerUnit {
  part: number;
  primary: [number, number];
  secondary: [number, number];
  ratio: number;
  ohms: number;
}

export interface CompiledPart {
  index: number;
  part: Part;
  branches: Branch[];
  /** Nodes of the part in the order its kind names them. */
  nodes: number[];
}

/** A circuit checked and numbered, ready to be put into any set-up. */
export interface CompiledCircuit {
  circuit: Circuit;
  nodeNames: string[];
  nodeIndex: ReadonlyMap<string, number>;
  frame: number;
  /** Node of the atmosphere, −1 where nothing is fluid. */
  atmosphere: number;
  /** By node. */
  domains: readonly Domain[];
  parts: CompiledPart[];
  partIndex: ReadonlyMap<string, number>;
  branches: Branch[];
  transformers: TransformerUnit[];
  /** Branches whose resistance or volts scatter from one good part to the next. */
  scattering: Branch[];
  /** Those of them of which nobody has said what they are. */
  notKnown: Branch[];
  connectors: string[];
  /** Highest nominal supply, volts. */
  supplyVolts: number;
  /** Highest pressure, or deepest vacuum, of a fluid supply, kPa. */
  supplyKPa: number;
  /** By node: stands on an alternating supply, so that its volts are an rms value without a sign. */
  alternating: Uint8Array;
  /** By node: frequency that it stands on; 0 on direct current. */
  hertz: Float64Array;
  /** By node: nominal volts of the circuit it belongs to; 0 at the frame and where nothing feeds it. */
  volts: Float64Array;
  /** Some branch has reactance: the network is solved with complex numbers. */
  reactive: boolean;
  /** Of some load it is said what a meter reads of it at rest; and of some that reads less there nobody has said it. */
  restSaid: boolean;
  restUnsaid: boolean;
}

/** Spread of a supply that nobody has said, relative. */
const EMF_NOT_KNOWN = 0.5;

/**
 * Checks references and turns parts into branches. Throws {@link InputError} for a repeated reference, an unknown
 * control or position, a frame no part touches, a relay without a coil, a node that is both electrical and fluid.
 *
 * @param learnt ohms of windings by part: what a twin was read to have, and what the shed's own past says of them
 */
export function compileCircuit(circuit: Circuit, learnt: LearntOhms = new Map()): CompiledCircuit {
  const nodeNames: string[] = [];
  const domains: Domain[] = [];
  const nodeIndex = new Map<string, number>();
  const partIndex = new Map<string, number>();
  const parts: CompiledPart[] = [];
  const branches: Branch[] = [];
  const transformers: TransformerUnit[] = [];
  const windings: (WindingFigures | undefined)[] = [];
  const supplyVolts = Math.max(
    0,
    ...circuit.parts.filter((p) => p.kind === 'source').map((p) => Math.abs(p.volts)),
  );

  circuit.parts.forEach((part, at) => {
    const field = `circuit.parts[${at}]`;
    const node = (name: string, domain: Domain): number => {
      const known = nodeIndex.get(name);
      if (known !== undefined) {
        if (domains[known] === domain) return known;
        throw new InputError(
          `${field}.nodes`,
          `node "${name}" carries ${domain === 'fluid' ? 'current' : 'fluid'} elsewhere; give this end another name`,
        );
      }
      nodeNames.push(name);
      domains.push(domain);
      nodeIndex.set(name, nodeNames.length - 1);
      return nodeNames.length - 1;
    };
    if (partIndex.has(part.ref)) {
      throw new InputError(`${field}.ref`, `"${part.ref}" is used twice; give each part its own reference`);
    }
    checkControls(circuit, part, field);
    const compiled: CompiledPart = { index: at, part, branches: [], nodes: [] };
    const add = (spec: BranchSpec) => {
      const domain: Domain = spec.fluid ? 'fluid' : 'electrical';
      const branch: Branch = {
        index: branches.length,
        part: at,
        role: spec.role,
        domain,
        set: spec.set ?? 0,
        a: node(spec.from, domain),
        b: node(spec.to, domain),
        ohms: Math.max(spec.ohms, LEAST_OHMS),
        reactance: 0,
        emf: spec.emf ?? 0,
        tolerance: spec.tolerance ?? 0,
        liveTolerance: spec.tolerance ?? 0,
        volts: 0,
        ohmsKnown: true,
        impedanceKnown: true,
        emfTolerance: spec.emfTolerance
          ? isAssumed(part, 'volts') || isAssumed(part, 'kPa')
            ? EMF_NOT_KNOWN
            : spec.emfTolerance
          : 0,
        rest: spec.rest ?? null,
        positions: spec.positions ?? null,
      };
      windings.push(spec.winding);
      branches.push(branch);
      compiled.branches.push(branch);
    };
    kindOf(part).branches(part, field).forEach(add);
    if (part.kind === 'transformer') {
      const n = part.nodes;
      transformers.push({
        part: at,
        primary: [node(n.p1, 'electrical'), node(n.p2, 'electrical')],
        secondary: [node(n.s1, 'electrical'), node(n.s2, 'electrical')],
        ratio: part.ratio,
        ohms: Math.max(part.internalOhms ?? transformerOhms(part, supplyVolts), LEAST_OHMS),
      });
    }
    compiled.nodes = Object.entries(part.nodes as Record<string, string | undefined>).flatMap(
      ([key, name]) =>
        name === undefined ? [] : [node(name, isFluidEnd(part, key) ? 'fluid' : 'electrical')],
    );
    partIndex.set(part.ref, at);
    parts.push(compiled);
  });

  const frame = nodeIndex.get(circuit.frame);
  if (frame === undefined) {
    throw new InputError('circuit.frame', `no part touches node "${circuit.frame}"; name a node that exists`);
  }
  if (!circuit.parts.some(({ kind }) => kind === 'source' || kind === 'airSupply' || kind === 'pump')) {
    throw new InputError('circuit.parts', 'there is no source; add a part of kind "source"');
  }
  checkCoils(circuit);
  const hertz = hertzOfNodes(circuit, nodeNames.length, frame, parts, branches, transformers);
  const volts = voltsOfNodes(circuit, nodeNames.length, frame, parts, branches, transformers);
  for (const branch of branches) {
    branch.volts = Math.max(volts[branch.a]!, volts[branch.b]!);
    const figures = windings[branch.index];
    if (figures)
      settleWinding(
        branch,
        figures,
        branch.volts,
        Math.max(hertz[branch.a]!, hertz[branch.b]!),
        learnt.get(parts[branch.part]!.part.ref),
      );
    const { part, branches: own } = parts[branch.part]!;
    if (own[0] === branch && isAssumed(part, 'ohms') && !learnt.has(part.ref)) notSaid(branch);
  }
  return {
    circuit,
    nodeNames,
    nodeIndex,
    frame,
    atmosphere: nodeIndex.get(ATMOSPHERE) ?? -1,
    domains,
    parts,
    partIndex,
    branches,
    transformers,
    scattering: branches.filter(({ tolerance, emfTolerance }) => tolerance > 0 || emfTolerance > 0),
    notKnown: branches.filter(
      ({ tolerance, liveTolerance }) => isNotKnown(tolerance) || isNotKnown(liveTolerance),
    ),
    connectors: [...new Set(circuit.parts.flatMap((p) => (p.kind === 'pin' ? [p.connector] : [])))],
    supplyVolts,
    supplyKPa: Math.max(
      0,
      ...circuit.parts.map((p) => (p.kind === 'airSupply' || p.kind === 'pump' ? Math.abs(p.kPa) : 0)),
    ),
    alternating: Uint8Array.from(hertz, (hz) => (hz > 0 ? 1 : 0)),
    hertz,
    volts,
    reactive: branches.some(({ reactance }) => reactance > 0),
    restSaid: branches.some(({ rest }) => rest?.said === true),
    restUnsaid: branches.some(({ rest }) => rest?.said === false),
  };
}

/** Reference node of a branch's domain: the frame, or the atmosphere. */
export function groundOf({ frame, atmosphere }: CompiledCircuit, { domain }: Pick<Branch, 'domain'>): number {
  return domain === 'fluid' ? atmosphere : frame;
}

/**
 * Frequency that each node stands on. Networks that touch only at the frame keep their own: a battery's circuit beside
 * a line supply stays direct current. Where two frequencies meet elsewhere the higher one is taken for both.
 */
function hertzOfNodes(
  circuit: Circuit,
  nodeCount: number,
  frame: number,
  parts: readonly CompiledPart[],
  branches: readonly Branch[],
  transformers: readonly TransformerUnit[],
): Float64Array {
  const group = nodeGroups(nodeCount, (node) => node === frame, [
    ...branches.map(({ a, b }) => [a, b]),
    ...transformers.map(({ primary, secondary }) => [...primary, ...secondary]),
  ]);
  const hertz = new Float64Array(nodeCount);
  circuit.parts.forEach((part, at) => {
    if (part.kind !== 'source' || !part.hz) return;
    for (const node of parts[at]!.nodes) {
      if (node === frame) continue;
      const root = group[node]!;
      hertz[root] = Math.max(hertz[root]!, part.hz);
    }
  });
  return hertz.map((_one, node) => (node === frame ? 0 : hertz[group[node]!]!));
}

/** Nominal volts of the circuit that each node belongs to; circuits meet at the frame and across transformers only. */
function voltsOfNodes(
  circuit: Circuit,
  nodeCount: number,
  frame: number,
  parts: readonly CompiledPart[],
  branches: readonly Branch[],
  transformers: readonly TransformerUnit[],
): Float64Array {
  const group = nodeGroups(
    nodeCount,
    (node) => node === frame,
    branches.filter(({ domain }) => domain === 'electrical').map(({ a, b }) => [a, b]),
  );
  const volts = new Float64Array(nodeCount);
  const raise = (nodes: readonly number[], to: number) => {
    for (const node of nodes) if (node !== frame) volts[group[node]!] = Math.max(volts[group[node]!]!, to);
  };
  circuit.parts.forEach((part, at) => {
    if (part.kind === 'source') raise(parts[at]!.nodes, Math.abs(part.volts));
  });
  // A transformer behind another one needs a second look.
  for (let round = 0; round < 2; round++) {
    for (const { primary, secondary, ratio } of transformers) {
      const fed = Math.max(...primary.map((node) => (node === frame ? 0 : volts[group[node]!]!)));
      raise(secondary, fed / ratio);
    }
  }
  return volts.map((_one, node) => (node === frame ? 0 : volts[group[node]!]!));
}

function checkControls(circuit: Circuit, part: Part, field: string): void {
  const conditions =
    part.kind === 'driver' ? part.onWhen : 'closedWhen' in part ? part.closedWhen : undefined;
  const key = part.kind === 'driver' ? 'onWhen' : 'closedWhen';
  for (const [control, positions] of Object.entries(conditions ?? {})) {
    const known = circuit.controls[control];
    if (!known) {
      const list = Object.keys(circuit.controls).join(', ') || 'none';
      throw new InputError(`${field}.${key}.${control}`, `unknown control "${control}"; known: ${list}`);
    }
    for (const position of positions) {
      if (!known.includes(position)) {
        throw new InputError(
          `${field}.${key}.${control}`,
          `unknown position "${position}"; "${control}" has ${known.join(', ')}`,
        );
      }
    }
  }
}

function checkCoils(circuit: Circuit): void {
  const coils = new Set(circuit.parts.flatMap(({ kind, ref }) => (kind === 'coil' ? [ref] : [])));
  circuit.parts.forEach((part, at) => {
    if (part.kind !== 'valve') return;
    for (const key of ['coil', 'coil2'] as const) {
      const ref = part[key];
      if (ref === undefined || coils.has(ref)) continue;
      const known = [...coils].join(', ') || 'none';
      throw new InputError(`circuit.parts[${at}].${key}`, `no coil "${ref}"; known: ${known}`);
    }
  });
}
