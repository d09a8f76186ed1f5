import { InputError } from './inputError';
import type { Circuit, Part, PartOf } from './schema';
import { conductorOhms, gaugeArea } from './wireGauge';

/** Closed contact, plug pin or jumper when the file gives no figure, ohms. */
const CONTACT_OHMS = 0.01;
const PIN_OHMS = 0.005;
const WIRE_OHMS = 0.02;
const SOURCE_OHMS = 0.02;
const OUTPUT_OHMS = 0.05;
/** A fuse's cold resistance drops about this many volts at its rating. */
const FUSE_DROP_VOLTS = 0.08;
const DIODE_ON_OHMS = 0.05;
/** Nothing conducts better than this: keeps the matrix well scaled. */
export const LEAST_OHMS = 1e-4;
/** Spread that a load's resistance may have around its nominal value when the file gives none. */
const LOAD_TOLERANCE = 0.08;
const SOURCE_TOLERANCE = 0.02;

export type BranchRole = 'body' | 'output' | 'made' | 'resting' | 'upper' | 'lower' | 'wiper';

/** One two-terminal piece of a part. */
export interface Branch {
  index: number;
  part: number;
  role: BranchRole;
  /** Contact set of a relay, counted from 0. */
  set: number;
  a: number;
  b: number;
  /** Resistance while it conducts, ohms. */
  ohms: number;
  /** Current a to b is `(v_a − v_b + emf) / ohms`. */
  emf: number;
  /** Relative spread of the resistance. */
  tolerance: number;
  emfTolerance: number;
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
  parts: CompiledPart[];
  partIndex: ReadonlyMap<string, number>;
  branches: Branch[];
  transformers: TransformerUnit[];
  /** Branches whose resistance or volts scatter from one good part to the next. */
  scattering: Branch[];
  connectors: string[];
  /** Highest nominal supply, volts. */
  supplyVolts: number;
  alternating: boolean;
}

/**
 * Checks references and turns parts into branches. Throws {@link InputError} for a repeated reference, an unknown
 * control or position, a frame no part touches, a relay without a coil.
 */
export function compileCircuit(circuit: Circuit): CompiledCircuit {
  const nodeNames: string[] = [];
  const nodeIndex = new Map<string, number>();
  const node = (name: string): number => {
    let at = nodeIndex.get(name);
    if (at === undefined) {
      at = nodeNames.length;
      nodeNames.push(name);
      nodeIndex.set(name, at);
    }
    return at;
  };
  const partIndex = new Map<string, number>();
  const parts: CompiledPart[] = [];
  const branches: Branch[] = [];
  const transformers: TransformerUnit[] = [];
  const supplyVolts = Math.max(
    0,
    ...circuit.parts.filter((p) => p.kind === 'source').map((p) => Math.abs(p.volts)),
  );

  circuit.parts.forEach((part, at) => {
    const field = `circuit.parts[${at}]`;
    if (partIndex.has(part.ref)) {
      throw new InputError(`${field}.ref`, `"${part.ref}" is used twice; give each part its own reference`);
    }
    checkControls(circuit, part, field);
    const compiled: CompiledPart = { index: at, part, branches: [], nodes: [] };
    const add = (
      role: BranchRole,
      from: string,
      to: string,
      ohms: number,
      more: Partial<Pick<Branch, 'emf' | 'tolerance' | 'emfTolerance' | 'set'>> = {},
    ) => {
      const branch: Branch = {
        index: branches.length,
        part: at,
        role,
        set: 0,
        a: node(from),
        b: node(to),
        ohms: Math.max(ohms, LEAST_OHMS),
        emf: 0,
        tolerance: 0,
        emfTolerance: 0,
        ...more,
      };
      branches.push(branch);
      compiled.branches.push(branch);
    };
    addBranches(part, field, add);
    if (part.kind === 'transformer') {
      const n = part.nodes;
      transformers.push({
        part: at,
        primary: [node(n.p1), node(n.p2)],
        secondary: [node(n.s1), node(n.s2)],
        ratio: part.ratio,
        ohms: Math.max(part.internalOhms ?? transformerOhms(part, supplyVolts), LEAST_OHMS),
      });
    }
    compiled.nodes = Object.values(part.nodes as Record<string, string>).map(node);
    partIndex.set(part.ref, at);
    parts.push(compiled);
  });

  const frame = nodeIndex.get(circuit.frame);
  if (frame === undefined) {
    throw new InputError('circuit.frame', `no part touches node "${circuit.frame}"; name a node that exists`);
  }
  if (!circuit.parts.some((p) => p.kind === 'source')) {
    throw new InputError('circuit.parts', 'there is no source; add a part of kind "source"');
  }
  return {
    circuit,
    nodeNames,
    nodeIndex,
    frame,
    parts,
    partIndex,
    branches,
    transformers,
    scattering: branches.filter(({ tolerance, emfTolerance }) => tolerance > 0 || emfTolerance > 0),
    connectors: [...new Set(circuit.parts.flatMap((p) => (p.kind === 'pin' ? [p.connector] : [])))],
    supplyVolts,
    alternating: circuit.parts.some((p) => p.kind === 'source' && (p.hz ?? 0) > 0),
  };
}

type AddBranch = (
  role: BranchRole,
  from: string,
  to: string,
  ohms: number,
  more?: Partial<Pick<Branch, 'emf' | 'tolerance' | 'emfTolerance' | 'set'>>,
) => void;

function addBranches(part: Part, field: string, add: AddBranch): void {
  switch (part.kind) {
    case 'source':
      return add('body', part.nodes['+'], part.nodes['-'], part.internalOhms ?? SOURCE_OHMS, {
        emf: -part.volts,
        emfTolerance: SOURCE_TOLERANCE,
      });
    case 'transformer':
      return;
    case 'fuse':
    case 'breaker':
      return add('body', part.nodes['1'], part.nodes['2'], part.ohms ?? FUSE_DROP_VOLTS / part.amps);
    case 'wire':
      return add('body', part.nodes['1'], part.nodes['2'], wireOhms(part));
    case 'pin':
      return add('body', part.nodes['1'], part.nodes['2'], part.ohms ?? PIN_OHMS);
    case 'switch':
    case 'timer':
      return add('body', part.nodes['1'], part.nodes['2'], part.ohms ?? CONTACT_OHMS);
    case 'coil':
    case 'resistor':
    case 'lamp':
    case 'heater':
    case 'motor':
      return add('body', part.nodes['1'], part.nodes['2'], part.ohms, {
        tolerance: part.tolerance ?? LOAD_TOLERANCE,
      });
    case 'diode':
      return add('body', part.nodes.anode, part.nodes.cathode, DIODE_ON_OHMS, {
        emf: -(part.forwardVolts ?? 0.7),
      });
    case 'driver': {
      const [from, to] =
        part.side === 'low' ? [part.nodes.out, part.nodes.return] : [part.nodes.supply, part.nodes.out];
      return add('output', from, to, part.ohms ?? OUTPUT_OHMS);
    }
    case 'sensor3': {
      const wiper = `${part.ref}:wiper`;
      const tolerance = part.tolerance ?? LOAD_TOLERANCE;
      add('upper', part.nodes.supply, wiper, part.ohms / 2, { tolerance });
      add('lower', wiper, part.nodes.return, part.ohms / 2, { tolerance });
      return add('wiper', wiper, part.nodes.signal, Math.max(1, part.ohms / 100));
    }
    case 'relay': {
      const { a1, a2 } = part.nodes;
      if (!a1 || !a2) throw new InputError(`${field}.nodes`, 'a relay needs its coil nodes "a1" and "a2"');
      add('body', a1, a2, part.ohms, { tolerance: part.tolerance ?? LOAD_TOLERANCE });
      const contactOhms = part.contactOhms ?? CONTACT_OHMS;
      relaySets(part, field).forEach(({ com, no, nc }, set) => {
        if (no !== undefined) add('made', com, no, contactOhms, { set });
        if (nc !== undefined) add('resting', com, nc, contactOhms, { set });
      });
    }
  }
}

/** Contact sets of a relay: `com`/`no`/`nc`, and `com2`/`no2`/`nc2` … for further poles. */
function relaySets(part: PartOf<'relay'>, field: string) {
  const sets = new Map<string, { com?: string; no?: string; nc?: string }>();
  for (const [key, value] of Object.entries(part.nodes)) {
    if (key === 'a1' || key === 'a2') continue;
    const match = /^(com|no|nc)[_.-]?(\d*)$/.exec(key) ?? /^(\d+)[_.-]?(com|no|nc)$/.exec(key);
    if (!match) {
      throw new InputError(
        `${field}.nodes.${key}`,
        'use a1, a2, com, no, nc, and com2, no2, nc2 for more poles',
      );
    }
    const [first = '', second = ''] = [match[1], match[2]];
    const [role, pole] = /^\d/.test(first) ? [second, first] : [first, second];
    const set = sets.get(pole === '1' ? '' : pole) ?? {};
    sets.set(pole === '1' ? '' : pole, { ...set, [role]: value });
  }
  return [...sets].map(([pole, { com, no, nc }]) => {
    if (com === undefined || (no === undefined && nc === undefined)) {
      throw new InputError(
        `${field}.nodes`,
        `contact set ${pole || '1'} needs "com" and one of "no" and "nc"`,
      );
    }
    return { com, no, nc };
  });
}

function wireOhms(part: PartOf<'wire'>): number {
  if (part.ohms !== undefined) return part.ohms;
  const area = part.mm2 ?? (part.awg === undefined ? undefined : gaugeArea(part.awg));
  if (part.lengthMetres === undefined || area === undefined) return WIRE_OHMS;
  return conductorOhms(part.lengthMetres, area);
}

/** Copper resistance at the secondary giving about 10 % regulation at the rated load; a small control unit when unrated. */
function transformerOhms(part: PartOf<'transformer'>, supplyVolts: number): number {
  const secondary = Math.max(supplyVolts / part.ratio, 1);
  return (0.1 * secondary * secondary) / (part.va ?? 50);
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
