import { ENERGIES, type Energy } from '../circuit/energies';
import type { CircuitModel } from '../circuit/model';
import type { Part } from '../circuit/schema';
import { kindOf } from '../kinds/part/index';
import { isLoaded } from './heldLoads';
import { nodeKPa } from '../circuit/world';

/** Volts to the frame below which a place counts as dead. */
const DEAD_VOLTS = 0.05;
/** Gauge pressure that can still move something, kPa. */
const DEAD_KPA = 5;

/** A place where a meter, or a gauge, shows that a point is dead. */
export interface ProofPlace {
  from: string;
  to: string;
  /** What stands there while the point is closed in, volts. */
  volts: number;
}

/** One energy at the work: where it is cut off, what it reaches, where it is proved dead. */
export interface IsolationPoint {
  /** Name in the log: a part's reference, or the machine's own name for it. */
  point: string;
  energy: Energy;
  label: string;
  place: string | null;
  /** How it is isolated on this machine, where somebody wrote it down. */
  how: string | null;
  /** Parts that this source alone makes live in some position, the source itself left out. */
  reaches: string[];
  /** Where it is proved dead with a meter; none for what a meter does not show. */
  prove: ProofPlace[];
}

/**
 * Every energy that reaches the work: each source with what it feeds in any position of the controls, the air, oil and
 * vacuum, what the circuit moves, holds or heats, and what the machine's own list adds.
 */
export function isolationPlan(model: CircuitModel): IsolationPoint[] {
  const { compiled } = model;
  const { circuit } = compiled;
  const sources = circuit.parts.filter(({ kind }) => kind === 'source');
  const points: IsolationPoint[] = [];
  for (const part of circuit.parts) {
    const energy = kindOf(part).energy(part);
    if (!energy) continue;
    points.push({
      point: part.ref,
      energy,
      label: labelOf(circuit.parts, part),
      place: part.place ?? null,
      how: ('how' in part && part.how) || null,
      reaches: part.kind === 'source' ? reachedBy(model, part.ref, sources) : [],
      prove: part.kind === 'source' ? proofPlaces(model, part) : [],
    });
  }
  const add = (energy: Energy, parts: readonly Part[]) => {
    if (parts.length === 0) return;
    const names = parts.map(({ ref }) => ref);
    points.push({
      point: `${energy}: ${names.join(', ')}`,
      energy,
      label: names.join(', '),
      place: null,
      how: null,
      reaches: names,
      prove: [],
    });
  };
  add(
    'moving',
    circuit.parts.filter((part) => part.kind === 'motor' || kindOf(part).traits.actuator),
  );
  add('heldLoad', circuit.parts.filter(isLoaded));
  add(
    'heat',
    circuit.parts.filter(({ kind }) => kind === 'heater'),
  );
  for (const { energy, name, how } of circuit.energies ?? []) {
    points.push({ point: name, energy, label: name, place: null, how: how ?? null, reaches: [], prove: [] });
  }
  // What stores is let down once what fills it has stopped.
  const stores = ({ point }: IsolationPoint) =>
    circuit.parts.some((part) => part.ref === point && kindOf(part).traits.stores);
  return points.sort(
    (one, two) =>
      ENERGIES.indexOf(one.energy) - ENERGIES.indexOf(two.energy) ||
      Number(stores(one)) - Number(stores(two)),
  );
}

/** What a supply is called; two of one name are told apart by their volts, and by their references where those agree too. */
function labelOf(parts: readonly Part[], part: Part): string {
  const plain = (one: Part) => one.label ?? one.ref;
  const withVolts = (one: Part) =>
    one.kind === 'source' ? `${plain(one)}, ${one.volts} V ${one.hz ? 'AC' : 'DC'}` : plain(one);
  const supplies = parts.filter((one) => kindOf(one).traits.supply && one.ref !== part.ref);
  if (!kindOf(part).traits.supply || supplies.every((one) => plain(one) !== plain(part))) return plain(part);
  return supplies.some((one) => withVolts(one) === withVolts(part))
    ? `${withVolts(part)}, ${part.ref}`
    : withVolts(part);
}

/** Parts with a live end while only this source is on, in any position. */
function reachedBy(model: CircuitModel, ref: string, sources: readonly Part[]): string[] {
  const { compiled } = model;
  const isolated = sources.map((one) => one.ref).filter((other) => other !== ref);
  const live = new Set<string>();
  for (const controls of model.combinations) {
    const { changed } = model.situation({ controls, isolated }).solve({ mode: 'live' });
    for (const { part, nodes } of compiled.parts) {
      if (part.ref === ref || live.has(part.ref)) continue;
      if (nodes.some((node) => Math.abs(changed.pairVolts(node, compiled.frame)) > DEAD_VOLTS))
        live.add(part.ref);
    }
  }
  return [...live];
}

/** Across the source's cable, each pole to the frame, and where a transformer brings it to another voltage. */
function proofPlaces(model: CircuitModel, source: Extract<Part, { kind: 'source' }>): ProofPlace[] {
  const { compiled } = model;
  const frame = compiled.nodeNames[compiled.frame]!;
  const [plus, minus] = [source.nodes['+'], source.nodes['-']];
  const world = model.situation({}).solve({ mode: 'live' });
  const places: ProofPlace[] = [];
  const place = (from: string, to: string) => {
    if (from === to || places.some((one) => one.from === from && one.to === to)) return;
    const [a, b] = [from, to].map((name) => compiled.nodeIndex.get(name)!);
    const volts = Math.abs(world.changed.pairVolts(a!, b!));
    places.push({ from, to, volts: Number.isNaN(volts) ? 0 : volts });
  };
  place(plus, minus);
  place(plus, frame);
  place(minus, frame);
  // A transformer is a place of the source that feeds it: with the others off it still gives volts, without this one none.
  const others = compiled.circuit.parts.filter(({ kind, ref }) => kind === 'source' && ref !== source.ref);
  const alone = model.situation({ isolated: others.map(({ ref }) => ref) }).solve({ mode: 'live' });
  for (const { part } of compiled.parts) {
    if (part.kind !== 'transformer') continue;
    const [s1, s2] = [part.nodes.s1, part.nodes.s2].map((name) => compiled.nodeIndex.get(name)!);
    if (!(Math.abs(alone.changed.pairVolts(s1!, s2!)) > DEAD_VOLTS)) continue;
    place(part.nodes.s1, part.nodes.s2);
    place(part.nodes.s1, frame);
  }
  return places;
}

/** A place that is still live or under pressure with the given points closed. */
export interface StillLive {
  node: string;
  volts?: number;
  kPa?: number;
}

/** What stays live, in the worst position of the controls, with these sources isolated; the worst places first. */
export function stillLive(model: CircuitModel, isolated: readonly string[], most = 6): StillLive[] {
  const { compiled } = model;
  const known = isolated.filter((ref) => compiled.partIndex.has(ref));
  const volts = new Map<number, number>();
  const pressures = new Map<number, number>();
  for (const controls of model.combinations) {
    const world = model.situation({ controls, isolated: known }).solve({ mode: 'live' });
    compiled.nodeNames.forEach((_name, node) => {
      if (compiled.domains[node] === 'fluid') {
        const kPa = Math.abs(nodeKPa(world, node));
        if (kPa > DEAD_KPA) pressures.set(node, Math.max(kPa, pressures.get(node) ?? 0));
        return;
      }
      const across = Math.abs(world.changed.pairVolts(node, compiled.frame));
      if (across > DEAD_VOLTS) volts.set(node, Math.max(across, volts.get(node) ?? 0));
    });
  }
  const name = (node: number) => compiled.nodeNames[node]!;
  return [
    ...[...volts].sort((a, b) => b[1] - a[1]).map(([node, value]) => ({ node: name(node), volts: value })),
    ...[...pressures].sort((a, b) => b[1] - a[1]).map(([node, value]) => ({ node: name(node), kPa: value })),
  ].slice(0, most);
}
