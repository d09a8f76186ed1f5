import { partsBeside } from './partsAcross';
import type { CompiledPart } from '../circuit/compile';
import { oncePerModel, partsOnNodes, type CircuitModel } from '../circuit/model';
import type { Part, Setup } from '../circuit/schema';
import { countsAsElectronic } from '../safety/electronics';

const LIVE_VOLTS = 0.05;
/** Below this many ohms to the frame an end still hangs on something. */
const TIED_OHMS = 1e6;
/** Other ways beside a diode that let its own reading stand, ohms. */
const CLEAR_OF_DIODE = 1e4;

/** How this circuit is made dead for ohms: the fuse that leaves nothing else live if there is one, else the sources. */
export const powerOff = oncePerModel((model): Setup => {
  const { circuit } = model.compiled;
  const sources = circuit.parts.filter(({ kind }) => kind === 'source');
  if (sources.length === 1) {
    for (const { kind, ref } of circuit.parts) {
      if (kind !== 'fuse' && kind !== 'breaker') continue;
      // Nothing may stay live but the fuse's own supply side: a stud left hot beside the work is not dead.
      const cut = model.combinations.every((controls) => {
        const { changed } = model.situation({ controls, pulled: [ref] }).solve({ mode: 'live' });
        return model.compiled.parts.every(
          ({ part, nodes }) =>
            part.kind === 'source' ||
            part.ref === ref ||
            nodes.every((node) => !(Math.abs(changed.pairVolts(node, model.compiled.frame)) > LIVE_VOLTS)),
        );
      });
      if (cut) return { pulled: [ref] };
    }
  }
  return { isolated: sources.map(({ ref }) => ref) };
});

/** A connector that is a lead screwed to the frame: every pin of it ends there. It is not unplugged, its lead is lifted. */
export function isGroundStud(model: CircuitModel, connector: string): boolean {
  return groundStuds(model).has(connector);
}

const groundStuds = oncePerModel(({ compiled }): ReadonlySet<string> => {
  const [studs, others] = [new Set<string>(), new Set<string>()];
  for (const { part, nodes } of compiled.parts)
    if (part.kind === 'pin') (nodes.includes(compiled.frame) ? studs : others).add(part.connector);
  return new Set([...studs].filter((connector) => !others.has(connector)));
});

/** A pin that comes apart with its plug. */
function isPlugPin(model: CircuitModel, part: Part): part is Extract<Part, { kind: 'pin' }> {
  return part.kind === 'pin' && !isGroundStud(model, part.connector);
}

/** How to measure one part alone: plugs at its ends pulled, else its neighbours at one end lifted. */
export function setApart(model: CircuitModel, ref: string, nodes: readonly number[]): Setup | null {
  const at = partsOnNodes(model);
  const touching = [...new Set(nodes.flatMap((node) => at[node]!))].filter(({ part }) => part.ref !== ref);
  const connectors = new Set(
    touching.flatMap(({ part }) => (isPlugPin(model, part) ? [part.connector] : [])),
  );
  if (connectors.size > 0) return { unplugged: [...connectors] };
  for (const node of nodes) {
    const others = touching.filter(({ nodes: own, part }) => own.includes(node) && part.kind !== 'diode');
    if (others.length > 0 && others.length <= 2) {
      const name = model.compiled.nodeNames[node]!;
      return { lifted: others.map(({ part }) => ({ part: part.ref, node: name })) };
    }
  }
  return null;
}

/** Whether an end is still tied to the frame, the part itself aside, in a dead set-up. */
export function stillTied(model: CircuitModel, setup: Setup, node: string): boolean {
  const { compiled } = model;
  const at = compiled.nodeIndex.get(node)!;
  return model.situation(setup).solve({ mode: 'ohms' }).changed.pairOhms(at, compiled.frame) < TIED_OHMS;
}

/** A diode by itself: as it stands where nothing else leads across it, else behind its plug, else with what lies across lifted. */
export function diodeApart(model: CircuitModel, diode: CompiledPart, off: Setup): Setup {
  const { branches, nodes } = diode;
  const { nodeNames, frame } = model.compiled;
  const own = branches[0]!;
  const clear = (setup: Setup) =>
    model
      .situation(setup)
      .solve({ mode: 'ohms' }, [{ type: 'ohms', branch: own.index, ohms: Infinity }])
      .changed.pairOhms(own.a, own.b) > CLEAR_OF_DIODE;
  if (clear(off)) return off;
  const plugs = [
    ...new Set(
      nodes
        .flatMap((node) => partsOnNodes(model)[node]!)
        .flatMap(({ part: one }) => (isPlugPin(model, one) ? [one.connector] : [])),
    ),
  ];
  for (const unplugged of [...plugs.map((one) => [one]), plugs]) {
    if (unplugged.length > 0 && clear({ ...off, unplugged })) return { ...off, unplugged };
  }
  const across = partsBeside(model, diode);
  const at = own.a === frame ? own.b : own.a;
  const lifted = across.map((one) => ({ part: one.part.ref, node: nodeNames[at]! }));
  const alone = { ...off, ...(lifted.length > 0 ? { lifted } : {}) };
  return clear(alone) || plugs.length === 0 ? alone : { ...alone, unplugged: plugs };
}

/**
 * A part with nothing else on one of its ends, whatever is wrong with the others: plugs there off, what else hangs there lifted.
 * The end with the least to take off; null where too much hangs on both.
 */
export function oneEndAlone(model: CircuitModel, { part, nodes }: CompiledPart, off: Setup): Setup | null {
  const { nodeNames, frame } = model.compiled;
  const ways = nodes.slice(0, 2).flatMap((node) => {
    if (node === frame) return [];
    const others = partsOnNodes(model)[node]!.filter((one) => one.part.ref !== part.ref);
    const unplugged = [
      ...new Set(others.flatMap(({ part: one }) => (isPlugPin(model, one) ? [one.connector] : []))),
    ];
    const lifted = others.flatMap(({ part: one }) =>
      isPlugPin(model, one) ? [] : [{ part: one.ref, node: nodeNames[node]! }],
    );
    if (lifted.length > MOST_LIFTED) return [];
    const setup: Setup = {
      ...off,
      ...(unplugged.length > 0 ? { unplugged } : {}),
      ...(lifted.length > 0 ? { lifted } : {}),
    };
    return [{ setup, effort: 2 * lifted.length + unplugged.length }];
  });
  ways.sort((one, two) => one.effort - two.effort);
  return ways[0]?.setup ?? null;
}

/** All loads and all electronics off: their plugs pulled, and one end lifted of what has none. */
export function allApart(model: CircuitModel, loads: readonly CompiledPart[]): Setup {
  const { compiled } = model;
  const unplugged = new Set<string>();
  const lifted = new Map<string, { part: string; node: string }>();
  const off = ({ part, nodes }: CompiledPart, ends: readonly number[]) => {
    for (const node of ends) {
      if (node === compiled.frame) continue;
      const plug = nodes.includes(node)
        ? partsOnNodes(model)[node]!.find(({ part: one }) => isPlugPin(model, one))
        : undefined;
      if (plug?.part.kind === 'pin') unplugged.add(plug.part.connector);
      else {
        const at = { part: part.ref, node: compiled.nodeNames[node]! };
        lifted.set(JSON.stringify(at), at);
      }
    }
  };
  for (const load of loads) off(load, [load.nodes.find((node) => node !== compiled.frame)!]);
  for (const part of compiled.parts) if (countsAsElectronic(part.part)) off(part, part.nodes);
  return {
    isolated: sourcesOf(model),
    ...(unplugged.size > 0 ? { unplugged: [...unplugged] } : {}),
    ...(lifted.size > 0 ? { lifted: [...lifted.values()] } : {}),
  };
}

/** Most leads taken off one stud to have a conductor alone. */
const MOST_LIFTED = 2;

/** One conductor with both ends off, and the end to read it at. */
export interface ConductorApart {
  from: string;
  setup: Setup;
}

/** One conductor with both ends off, the quickest way; null where too much hangs on both. */
export function conductorApart(model: CircuitModel, part: CompiledPart): ConductorApart | null {
  return conductorWays(model, part)[0] ?? null;
}

/** The ways to have one conductor alone, by the end that it is read at; the quickest first. */
export function conductorWays(model: CircuitModel, { part, nodes }: CompiledPart): ConductorApart[] {
  const { compiled } = model;
  const name = (node: number) => compiled.nodeNames[node]!;
  const ways = nodes.flatMap((near, at) => {
    if (near === compiled.frame) return [];
    const far = nodes[1 - at]!;
    const others = partsOnNodes(model)[near]!.filter(
      (one) => one.part.ref !== part.ref && one.part.kind !== 'source',
    );
    const pulled = others.flatMap(({ part: one }) => (isFuse(one.kind) ? [one.ref] : []));
    const unplugged = new Set(
      others.flatMap(({ part: one }) => (isPlugPin(model, one) ? [one.connector] : [])),
    );
    const lifted = others.flatMap(({ part: one }) =>
      isFuse(one.kind) || isPlugPin(model, one) ? [] : [{ part: one.ref, node: name(near) }],
    );
    if (lifted.length > MOST_LIFTED) return [];
    const beyond = partsOnNodes(model)[far]!.filter((one) => one.part.ref !== part.ref);
    const plug = beyond.length === 1 ? beyond[0]!.part : null;
    if (plug && isPlugPin(model, plug)) unplugged.add(plug.connector);
    else if (plug && isFuse(plug.kind)) pulled.push(plug.ref);
    else lifted.push({ part: part.ref, node: name(far) });
    const setup: Setup = {
      isolated: sourcesOf(model),
      ...(pulled.length > 0 ? { pulled } : {}),
      ...(unplugged.size > 0 ? { unplugged: [...unplugged] } : {}),
      ...(lifted.length > 0 ? { lifted } : {}),
    };
    return [{ from: name(near), setup, effort: 2 * lifted.length + unplugged.size + 0.5 * pulled.length }];
  });
  return ways.sort((a, b) => a.effort - b.effort).map(({ from, setup }) => ({ from, setup }));
}

function isFuse(kind: string): boolean {
  return kind === 'fuse' || kind === 'breaker';
}

function sourcesOf({ compiled }: CircuitModel): string[] {
  return compiled.circuit.parts.filter(({ kind }) => kind === 'source').map(({ ref }) => ref);
}

/** Both set-ups at once, each thing once; for dead circuits, whose controls do not matter. */
export function bothApart(one: Setup, two: Setup): Setup {
  const once = (a: readonly string[] = [], b: readonly string[] = []) => [...new Set([...a, ...b])];
  const isolated = once(one.isolated, two.isolated);
  const pulled = once(one.pulled, two.pulled);
  const unplugged = once(one.unplugged, two.unplugged);
  const lifted = new Map(
    [...(one.lifted ?? []), ...(two.lifted ?? [])].map((end) => [JSON.stringify(end), end]),
  );
  return {
    ...(isolated.length > 0 ? { isolated } : {}),
    ...(pulled.length > 0 ? { pulled } : {}),
    ...(unplugged.length > 0 ? { unplugged } : {}),
    ...(lifted.size > 0 ? { lifted: [...lifted.values()] } : {}),
  };
}
