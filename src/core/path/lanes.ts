import { mediumOf } from '../circuit/medium';
import { oncePerModel, type CircuitModel } from '../circuit/model';
import type { Setup } from '../circuit/schema';
import { branchAmps, branchVolts } from '../circuit/world';
import { kindOf } from '../kinds/part';
import { findFluidLanes } from './fluidLanes';
import { LEAST_AMPS, waysOf, type Lane, type Lanes, type Step } from './lane';
import { shortestWay } from './shortestWay';

export type { Lane, Lanes, Step } from './lane';

/** Finds the lane of every load. Positions are another matter: see `layoutPath`. */
export const findLanes = oncePerModel((model): Lanes => {
  const { compiled } = model;
  const lanes: Lane[] = [];
  const worlds = model.combinations.flatMap((controls) => {
    const timed = compiled.circuit.parts.some(({ kind }) => kind === 'timer');
    return (timed ? [undefined, 0.1] : [undefined]).map((afterSeconds) => {
      const setup: Setup = {
        ...(Object.keys(controls).length > 0 ? { controls } : {}),
        ...(afterSeconds === undefined ? {} : { afterSeconds }),
      };
      return { setup, world: model.situation(setup).solve({ mode: 'live' }) };
    });
  });
  const supplies = new Map<number, number>();
  for (const { part, nodes, index } of compiled.parts) {
    if (part.kind === 'source') supplies.set(nodes[0]!, nodes[1]!);
    if (part.kind === 'transformer') {
      const unit = compiled.transformers.find((one) => one.part === index)!;
      supplies.set(unit.secondary[0], unit.secondary[1]);
    }
  }
  for (const { part, branches } of compiled.parts) {
    if (!kindOf(part).traits.falls) continue;
    const body = branches[0]!;
    // A sensor falls from its supply to its return; its signal is tapped on the way.
    const [one, other] =
      part.kind === 'sensor3'
        ? [part.nodes.supply, part.nodes.return].map((name) => compiled.nodeIndex.get(name)!)
        : [body.a, body.b];
    const fed = worlds.find(({ world }) => Math.abs(branchAmps(world, body.index)) > LEAST_AMPS);
    const { setup, world } = fed ?? worlds[0]!;
    const upright = !fed || branchVolts(world, body.index) >= 0;
    const [high, low] = upright ? [one!, other!] : [other!, one!];
    const carries = (branch: number) => Math.abs(branchAmps(world, branch)) > LEAST_AMPS;
    const goals = new Set(supplies.keys());
    const home = new Set([...supplies.values(), compiled.frame]);
    const find = (start: number, to: ReadonlySet<number>, avoid: ReadonlySet<number>) =>
      (fed && route(model, start, to, avoid, carries)) ??
      route(model, start, to, avoid, () => true) ??
      // What hangs on a sensor's signal is fed through the sensor.
      route(model, start, to, avoid, () => true, true);
    const feed = find(high, goals, home);
    const back = find(low, home, goals);
    if (!feed || !back) continue;
    lanes.push({
      id: part.ref,
      of: body.part,
      load: { part: body.part, branch: body.index, from: high, to: low },
      feed: feed.reverse().map((step) => ({ ...step, from: step.to, to: step.from })),
      back,
      setup,
      medium: 'electrical',
      coils: [],
      hangs: [],
      across: compiled.parts
        .filter((other) => other.index !== body.part && other.part.kind === 'diode')
        .filter(({ nodes }) => nodes.includes(high) && nodes.includes(low))
        .map(({ index }) => index),
    });
  }
  lanes.push(...findFluidLanes(model, worlds));
  const pointOf = new Map<number, number>();
  const number = (node: number) => {
    if (!pointOf.has(node)) pointOf.set(node, pointOf.size + 1);
  };
  const ports = new Map<number, string>();
  const outside = mediumOf(model) === 'oil' ? 'tank' : 'open';
  const drawnWays = lanes.flatMap(waysOf);
  for (const { feed, load, back, medium } of drawnWays) {
    for (const { from, to } of [...feed, load, ...back]) {
      for (const node of [from, to]) {
        if (medium === 'electrical') number(node);
        else if (!ports.has(node))
          ports.set(node, node === compiled.atmosphere ? outside : letterOf(ports.size));
      }
    }
  }
  compiled.nodeNames.forEach((name, node) => {
    // Ports of the air, oil and vacuum side have letters.
    if (!name.endsWith(':wiper') && compiled.domains[node] === 'electrical') number(node);
  });
  const drawn = new Set(
    drawnWays.flatMap(({ feed, load, back, across, hangs }) => [
      ...[...feed, load, ...back].map(({ part }) => part),
      ...across,
      ...hangs.map(({ part }) => part),
    ]),
  );
  return {
    lanes,
    controls: compiled.circuit.controls,
    pointOf,
    nodeOf: new Map([...pointOf].map(([node, point]) => [point, node])),
    labelOf: new Map([
      ...[...pointOf].map(([node, point]) => [node, String(point)] as const),
      ...[...ports].filter(([node]) => !pointOf.has(node)),
    ]),
    loose: compiled.parts
      .filter(({ index, part }) => !drawn.has(index) && part.kind !== 'source')
      .map(({ index }) => index),
  };
});

/** a, b … z, aa, ab … */
function letterOf(at: number): string {
  const last = String.fromCharCode(97 + (at % 26));
  return at < 26 ? last : letterOf(Math.floor(at / 26) - 1) + last;
}

/** Fewest parts from a node to one of the goals, walking contacts, fuses, wires and pins, never a load. */
function route(
  { compiled }: CircuitModel,
  start: number,
  goals: ReadonlySet<number>,
  avoid: ReadonlySet<number>,
  usable: (branch: number) => boolean,
  throughSensors = false,
): Step[] | null {
  return shortestWay(compiled, start, goals, avoid, ({ index, part, role }) => {
    const own = compiled.parts[part]!.part;
    const { kind } = own;
    if (kind === 'source' || kind === 'diode') return false;
    if (kind === 'sensor3' && !throughSensors) return false;
    if (kindOf(own).traits.falls && role === 'body') return false;
    return usable(index);
  });
}
