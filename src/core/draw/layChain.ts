import { controlsOf } from '../circuit/controlsOf';
import { InputError } from '../circuit/inputError';
import type { Circuit, Part } from '../circuit/schema';
import { readChainItem, splitChains, type ChainItem } from './chainItem';
import { codesFor, newPart, nodeBehind, surroundings, type Surroundings } from './newPart';
import { kindOf, PART_KINDS } from '../kinds/part/index';
import { kindOfWords } from './words';

/** A circuit that is being drawn, and the node one stands at. */
export interface Drawing {
  circuit: Circuit;
  /** Where the next chain begins; null before anything is drawn. */
  at: string | null;
}

/** What the machine has elsewhere: parts that are taken as they stand there, and the controls that work them. */
export type Known = Pick<Circuit, 'parts' | 'controls'>;
const NOTHING: Known = { parts: [], controls: {} };

/** An empty sheet. */
export function emptyDrawing(name: string): Drawing {
  return {
    circuit: { format: 'spiraxis-circuit', version: 1, name, frame: 'GND', controls: {}, parts: [] },
    at: null,
  };
}

/**
 * Lays typed chains into a circuit: "battery 12, fuse 10, wire, seat switch, plug X31, coil 7.4, wire, ground". Chains
 * go on from where one stands; a ground, or `@node`, ends them there. `known` are parts of the same machine that are
 * taken as they are when their reference is said. Throws {@link InputError} naming the item that does not fit; nothing
 * is changed then.
 */
export function layChains(drawing: Drawing, text: string, known: Known = NOTHING): Drawing {
  const runs = splitChains(text);
  if (runs.length === 0)
    throw new InputError('chain', 'nothing is typed; begin with battery, or with a part');
  return runs.reduce((now, run) => layRun(now, run, known), drawing);
}

function layRun(drawing: Drawing, typed: readonly string[], known: Known): Drawing {
  const layer = new Layer(drawing, known);
  typed.forEach((text, at) => layer.lay(readChainItem(text), at === typed.length - 1));
  return layer.drawing();
}

class Layer {
  private parts: Part[];
  private controls: Circuit['controls'];
  private at: string | null;
  /** Parts of this run that were new, in order: a driver's codes come from the load after it. */
  private readonly fresh: Part[] = [];
  private openPort: string | null = null;

  constructor(
    private readonly before: Drawing,
    private readonly known: Known,
  ) {
    this.parts = [...before.circuit.parts];
    this.controls = { ...before.circuit.controls };
    this.at = before.at;
  }

  drawing(): Drawing {
    const load = this.fresh.find((part) => kindOf(part).traits.draws);
    const amps = load && 'ohms' in load && load.ohms ? this.around().volts / load.ohms : null;
    const fresh = new Set(this.fresh.map(({ ref }) => ref));
    this.parts = this.parts.map((part) =>
      part.kind === 'driver' && fresh.has(part.ref) && !part.codes && amps !== null
        ? { ...part, codes: codesFor(amps) }
        : part,
    );
    return { circuit: { ...this.before.circuit, parts: this.parts, controls: this.controls }, at: this.at };
  }

  lay(item: ChainItem, last: boolean): void {
    const { frame } = this.before.circuit;
    if (item.is === 'ground' || item.is === 'back' || item.is === 'node') {
      const node = item.is === 'ground' ? frame : item.is === 'back' ? this.home() : item.node;
      if (this.fresh.length > 0 && this.at !== null) {
        this.endAt(node, last);
        // A run that went home is done: the next one begins at the supply again.
        if (last && item.is !== 'node') this.at = null;
      } else this.at = node;
      return;
    }
    if (item.is === 'after') {
      this.at = this.behind(item.said);
      return;
    }
    const there = item.ref === null ? undefined : this.parts.find(({ ref }) => ref === item.ref);
    if (there?.kind === 'relay' && (item.is === 'known' || item.kind === 'switch' || item.kind === 'relay')) {
      this.contactOf(there, item.is === 'part' || item.is === 'known' ? item.normallyClosed : false);
      return;
    }
    if (there && (item.is === 'known' || item.kind !== 'pin'))
      throw new InputError(
        'chain',
        `${there.ref} is drawn already; write "after ${there.ref}" to go on from it, or give the new part another reference`,
      );
    const shared = item.ref === null ? undefined : this.known.parts.find(({ ref }) => ref === item.ref);
    if (
      shared &&
      Object.keys(item.figures).length === 0 &&
      (item.is === 'known' || item.kind === shared.kind)
    ) {
      this.takeShared(shared);
      return;
    }
    if (item.is === 'known')
      throw new InputError(
        'chain',
        `"${item.typed}" is on no other drawing of this machine; say what it is, such as "fuse ${item.ref} 10"`,
      );
    if (item.across !== null) {
      this.across(item, item.across);
      return;
    }
    this.add(item);
  }

  private add(item: Extract<ChainItem, { is: 'part' }>): void {
    const { kind } = item;
    const ref = this.freeRef(kind, item.ref);
    const start = kind === 'source' || kind === 'airSupply' || kind === 'pump';
    const near = start ? this.before.circuit.frame : this.here();
    let far = start
      ? this.supplyNode(kind, item.figures.hz !== undefined || /line|mains/i.test(item.typed))
      : nodeBehind(ref);
    if (kind === 'driver') far = item.lowSide ? this.before.circuit.frame : `${ref}:O`;
    if (kind === 'cylinder') far = this.openPort ?? `${ref}:B`;
    const made = newPart(kind, ref, near, far, item, this.around());
    if (made.part.kind === 'valve') this.pipe(made.part, item);
    this.controls = made.controls;
    this.put(made.part);
    this.at = kindOf({ kind }).traits.ends ? near : far;
  }

  /** A valve's coil must be there; its exhausts get silencers and its second outlet waits for the cylinder. */
  private pipe(valve: Extract<Part, { kind: 'valve' }>, item: Extract<ChainItem, { is: 'part' }>): void {
    const coils = this.parts.filter(({ kind }) => kind === 'coil').map(({ ref }) => ref);
    if (valve.coil === '' && coils.length > 0) {
      const used = new Set(
        this.parts.flatMap((part) => (part.kind === 'valve' ? [part.coil, part.coil2] : [])),
      );
      const free = coils.filter((ref) => !used.has(ref));
      valve.coil = free[0] ?? coils[0]!;
      if (valve.ways === '5/3' && free[1]) valve.coil2 = free[1];
    }
    if (!coils.includes(valve.coil))
      throw new InputError('chain', `"${item.typed}": no coil shifts this valve yet; draw its coil first`);
    for (const port of ['3', '5'] as const) {
      const node = valve.nodes[port];
      if (node) this.put({ ref: this.freeRef('silencer', null), kind: 'silencer', nodes: { in: node } });
    }
    this.openPort = valve.ways.startsWith('5') ? valve.nodes['2']! : null;
  }

  /** A diode, or another part, lying across one that is drawn: cathode to its fed end. */
  private across(item: Extract<ChainItem, { is: 'part' }>, over: string): void {
    const part = this.parts.find(({ ref }) => ref === over);
    const ends = part ? Object.values(part.nodes) : [];
    if (!part || ends.length < 2)
      throw new InputError(
        'chain',
        `"${item.typed}": ${over} is not drawn; draw it first, then lay a part across it`,
      );
    const ref = this.freeRef(item.kind, item.ref);
    const [high, low] = [ends[0] as string, ends[1] as string];
    const [near, far] = item.kind === 'diode' ? [low, high] : [high, low];
    const made = newPart(item.kind, ref, near, far, { ...item, label: '' }, this.around());
    this.controls = made.controls;
    this.put(made.part);
  }

  /** A contact of a relay that is drawn: the next free set, at its made side or its resting side. */
  private contactOf(relay: Extract<Part, { kind: 'relay' }>, resting: boolean): void {
    const near = this.here();
    const nodes = { ...relay.nodes };
    const side = resting ? 'nc' : 'no';
    const open = ['', '2', '3', '4', '5', '6'].find(
      (set) => nodes[`com${set}`] === near && nodes[`${side}${set}`] === undefined,
    );
    const set = open ?? ['', '2', '3', '4', '5', '6'].find((one) => nodes[`com${one}`] === undefined);
    if (set === undefined) throw new InputError('chain', `${relay.ref} has all its contacts in use`);
    const far = `${relay.ref}:${side}${set}`;
    nodes[`com${set}`] = near;
    nodes[`${side}${set}`] = far;
    this.put({ ...relay, nodes });
    this.at = far;
  }

  /** A part of another function of this machine, as it stands there. */
  private takeShared(part: Part): void {
    const [first] = Object.values(part.nodes) as string[];
    const starts = part.kind === 'source' || part.kind === 'airSupply' || part.kind === 'pump';
    if (!starts && this.at !== null && this.at !== first)
      throw new InputError(
        'chain',
        `${part.ref} stands at "${first}" on this machine, and you are at "${this.at}"; go there first, or give this one another reference`,
      );
    for (const control of controlsOf(part)) {
      const own = this.controls[control] ?? [];
      const there = this.known.controls[control] ?? [];
      this.controls[control] = [...own, ...there.filter((position) => !own.includes(position))];
    }
    this.put(part);
    this.at = behindOf(part) ?? this.at;
  }

  private put(part: Part): void {
    const at = this.parts.findIndex(({ ref }) => ref === part.ref);
    if (at >= 0) this.parts = this.parts.with(at, part);
    else this.parts = [...this.parts, part];
    this.fresh.push(part);
  }

  /** The open end one stands at becomes another node; the last item of a run goes there, or the way leads on from it. */
  private endAt(node: string, last: boolean): void {
    const from = this.at!;
    const drawnBefore = this.before.circuit.parts.some((part) =>
      (Object.values(part.nodes) as string[]).includes(from),
    );
    if (drawnBefore && last && from !== node && this.fresh.length === 0)
      throw new InputError('chain', `there is nothing between "${from}" and "${node}"; put a part there`);
    this.parts = this.parts.map((part) => renamed(part, from, node));
    this.at = node;
  }

  private here(): string {
    if (this.at !== null) return this.at;
    const source = this.parts.find(({ kind }) => kind === 'source');
    return source?.kind === 'source' ? source.nodes['+'] : 'B+';
  }

  private behind(said: string): string {
    const found = this.called(said);
    if (found.length > 1)
      throw new InputError(
        'chain',
        `"after ${said}" may be ${found.map(({ ref }) => ref).join(' or ')}; say which`,
      );
    const node = found[0] ? behindOf(found[0]) : null;
    if (!node)
      throw new InputError(
        'chain',
        `"after ${said}": there is no ${said} on the drawing; say a part's reference or name`,
      );
    return node;
  }

  /** Parts of a reference, else of a name, else of a kind. */
  private called(said: string): Part[] {
    const wanted = said.toLowerCase();
    const named = kindOfWords(said);
    const ways: ((part: Part) => boolean)[] = [
      ({ ref }) => ref.toLowerCase() === wanted,
      ({ label }) => label?.toLowerCase() === wanted,
      ({ kind }) => named !== null && named.rest === '' && kind === named.kind,
    ];
    for (const way of ways) {
      const found = this.parts.filter(way);
      if (found.length > 0) return found;
    }
    return [];
  }

  /** Where the present run goes home: the other side of its source or transformer. */
  private home(): string {
    for (const part of this.parts.toReversed()) {
      if (part.kind === 'transformer') return part.nodes.s2;
      if (part.kind === 'source') return part.nodes['-'];
    }
    return this.before.circuit.frame;
  }

  private around(): Surroundings {
    return surroundings(this.parts, this.controls, this.before.circuit.frame);
  }

  private supplyNode(kind: Part['kind'], alternating: boolean): string {
    const stem = kind === 'source' ? (alternating ? 'L1' : 'B+') : kind === 'pump' ? 'Pump' : 'Main';
    const taken = new Set(this.parts.flatMap((part) => Object.values(part.nodes) as string[]));
    let name = stem;
    for (let n = 2; taken.has(name); n++) name = `${stem}${n}`;
    return name;
  }

  /** The reference said, a plug's next free pin, or the next free number of its letter on this machine. */
  private freeRef(kind: Part['kind'], said: string | null): string {
    const taken = new Set([...this.parts, ...this.known.parts].map(({ ref }) => ref));
    if (kind === 'pin') {
      const connector = said?.split('.')[0] ?? nextNumber(taken, 'X', (ref) => ref.split('.')[0]!);
      if (said?.includes('.')) {
        if (!this.parts.some(({ ref }) => ref === said)) return said;
        throw new InputError('chain', `pin ${said} is drawn already; give another number`);
      }
      let pin = 1;
      while (taken.has(`${connector}.${pin}`)) pin++;
      return `${connector}.${pin}`;
    }
    return said ?? nextNumber(taken, PART_KINDS[kind].chain.letter, (ref) => ref);
  }
}

function nextNumber(taken: ReadonlySet<string>, letter: string, stem: (ref: string) => string): string {
  const used = new Set([...taken].map(stem));
  let n = 1;
  while (used.has(`${letter}${n}`)) n++;
  return `${letter}${n}`;
}

/** Node behind a part, seen from its supply: where a chain goes on. */
export function behindOf(part: Part): string | null {
  const nodes = part.nodes as Record<string, string | undefined>;
  if (part.kind === 'source') return nodes['+'] ?? null;
  if (part.kind === 'driver') return part.side === 'low' ? nodes.return! : nodes.out!;
  if (part.kind === 'relay') return nodes.no ?? nodes.a2 ?? null;
  if (part.kind === 'transformer') return nodes.s1 ?? null;
  if (part.kind === 'valve') return nodes['4'] ?? nodes['2'] ?? null;
  if (part.kind === 'sensor3') return nodes.return ?? null;
  return nodes['2'] ?? nodes.out ?? nodes.cathode ?? nodes.port ?? nodes.a ?? nodes.in ?? null;
}

/** A part with one of its nodes called otherwise. */
export function renamed(part: Part, from: string, to: string): Part {
  const nodes = Object.fromEntries(
    Object.entries(part.nodes as Record<string, string>).map(([key, node]) => [
      key,
      node === from ? to : node,
    ]),
  );
  return { ...part, nodes } as Part;
}
