import type { Near } from './near';
import { nearPairs, runBeside } from './pairFaults';
import { testerVolts } from './testerVolts';
import { kindOf } from '../kinds/part';
import { guardsDefeated } from '../safety/guards';
import type { CompiledPart } from '../circuit/compile';
import type { CircuitModel } from '../circuit/model';
import type { Preferences, Setup } from '../circuit/schema';
import { branchAmps } from '../circuit/world';
import type { Family, Offer } from './offers';
import {
  isGroundStud,
  allApart,
  conductorApart,
  diodeApart,
  oneEndAlone,
  powerOff,
  setApart,
  stillTied,
} from './setApart';
import type { Pattern } from './patterns';
import { runsOf } from './feedAndReturn';
import { clampedAt, partsBeside } from './partsAcross';
import { twinsOf } from './twins';

const FLOWS_AMPS = 1e-4;

/** Tests on the powered circuit. */
export function liveFamilies(
  model: CircuitModel,
  patterns: readonly Pattern[],
  preferences: Preferences,
  near: Near,
): Family[] {
  const { compiled } = model;
  const frame = compiled.nodeNames[compiled.frame]!;
  const nodes = measurable(model, near);
  const across = acrossPairs(model, near);
  const fuses = compiled.parts.filter(({ part }) => part.kind === 'fuse' || part.kind === 'breaker');
  const loads = compiled.parts.filter(({ part }) => kindOf(part).traits.load);
  const doubted = loads.filter(({ index }) => near.part(index));

  function* volts(): Generator<Offer> {
    for (const pattern of patterns) {
      for (const from of nodes.filter(meantBy(model, pattern))) {
        yield { test: { kind: 'volts', from, to: frame, setup: pattern.setup } };
      }
    }
  }
  function* drops(): Generator<Offer> {
    for (const pattern of patterns) {
      const meant = meantBy(model, pattern);
      for (const [from, to] of across) {
        if (!meant(from) && from !== frame) continue;
        if (!meant(to) && to !== frame) continue;
        yield { test: { kind: 'volts', from, to, setup: pattern.setup } };
      }
    }
  }
  /** What a load's whole feed loses, and its whole return: small falls that volts to the frame do not show beside the supply's own. */
  function* stretches(): Generator<Offer> {
    for (const { setup, loads: fed } of patterns) {
      for (const { part } of doubted) {
        if (!fed.includes(part.ref)) continue;
        for (const { from, to } of runsOf(model, part.ref, setup))
          yield { test: { kind: 'volts', from, to, setup } };
      }
    }
  }
  function* amps(): Generator<Offer> {
    for (const pattern of patterns) {
      for (const { part } of fuses) {
        yield { test: { kind: 'amps', through: part.ref, setup: pattern.setup } };
      }
      for (const load of doubted) {
        if (pattern.loads.length > 0 && !pattern.loads.includes(load.part.ref)) continue;
        const through = clampedAt(model, load);
        if (through) yield { test: { kind: 'amps', through, setup: pattern.setup } };
      }
    }
  }
  function* watching(): Generator<Offer> {
    for (const { setup, loads: fed } of patterns) {
      for (const { part } of fuses) {
        yield { test: { kind: 'fuse', part: part.ref, setup }, extraMinutes: 0.5 };
      }
      for (const { part } of compiled.parts) {
        if (part.kind === 'driver' && Object.keys(part.codes ?? {}).length > 0) {
          yield { test: { kind: 'code', part: part.ref, setup } };
        }
        if (!fed.includes(part.ref)) continue;
        if (kindOf(part).traits.load && part.kind !== 'resistor') {
          yield { test: { kind: 'function', part: part.ref, setup } };
        }
        if (part.kind === 'relay' || part.kind === 'coil') {
          yield { test: { kind: 'click', part: part.ref, setup } };
        }
      }
    }
  }
  /** One plug off at a time: which branch takes the fuse down, what the controller says then. */
  function* unplugging(): Generator<Offer> {
    for (const connector of connectorsAt(model, near)) {
      if (isGroundStud(model, connector)) continue;
      for (const pattern of patterns) {
        // A plug that carries nothing in this position teaches nothing by coming off.
        if (!carries(model, connector, pattern)) continue;
        const setup: Setup = { ...pattern.setup, unplugged: [connector] };
        for (const { part } of fuses) {
          yield { test: { kind: 'fuse', part: part.ref, setup } };
        }
        for (const { part } of compiled.parts) {
          if (part.kind !== 'driver' || Object.keys(part.codes ?? {}).length === 0) continue;
          yield { test: { kind: 'code', part: part.ref, setup } };
        }
      }
    }
    for (const load of doubted) {
      const apart = setApart(model, load.part.ref, load.nodes.slice(0, 2));
      for (const from of harnessSide(model, apart?.unplugged ?? [])) {
        for (const pattern of patterns) {
          if (pattern.loads.length > 0 && !pattern.loads.includes(load.part.ref)) continue;
          yield {
            test: { kind: 'volts', from, to: frame, setup: { ...pattern.setup, ...apart } },
          };
        }
      }
    }
  }
  /** A part and its identical neighbour in each other's place: the fault goes along, or stays. */
  function* swaps(): Generator<Offer> {
    for (const part of compiled.parts) {
      for (const twin of twinsOf(model, part)) {
        if (!near.part(part.index) && !near.part(twin.index)) continue;
        for (const { setup, loads: fed } of patterns) {
          if (!fed.includes(part.part.ref) && !fed.includes(twin.part.ref)) continue;
          const swapped: Setup = { ...setup, swapped: [[part.part.ref, twin.part.ref]] };
          for (const { part: load } of loads) {
            if (!fed.includes(load.ref)) continue;
            yield { test: { kind: 'function', part: load.ref, setup: swapped } };
          }
          // The code goes along with the bad part, or stays with its place.
          for (const { part: driver } of compiled.parts) {
            if (driver.kind !== 'driver' || Object.keys(driver.codes ?? {}).length === 0) continue;
            yield { test: { kind: 'code', part: driver.ref, setup: swapped } };
          }
        }
      }
    }
  }
  /** A contact bridged for a moment, where the site allows it; never one that guards, or may guard, anything. */
  function* bridging(): Generator<Offer> {
    if (preferences.noJumpers !== false) return;
    for (const { part, index } of compiled.parts) {
      if (part.kind !== 'switch' || !near.part(index)) continue;
      if (guardsDefeated(model, { jumpers: [[part.nodes['1'], part.nodes['2']]] }).length > 0) continue;
      for (const { setup, loads: fed } of patterns) {
        const jumpers: [string, string][] = [[part.nodes['1'], part.nodes['2']]];
        for (const ref of fed) {
          if (!loads.some((one) => one.part.ref === ref && one.part.kind !== 'resistor')) continue;
          const test = { kind: 'function', part: ref, setup: { ...setup, jumpers } } as const;
          yield { test };
        }
      }
    }
  }
  return [
    { name: 'volts', offers: volts() },
    { name: 'drops', offers: drops() },
    { name: 'stretches', offers: stretches() },
    { name: 'amps', offers: amps() },
    { name: 'watching', offers: watching() },
    { name: 'unplugging', offers: unplugging() },
    { name: 'swaps', offers: swaps() },
    { name: 'bridging', offers: bridging() },
  ];
}

/** Tests on the dead circuit: the meter is the source. */
export function deadFamilies(
  model: CircuitModel,
  patterns: readonly Pattern[],
  preferences: Preferences,
  near: Near,
): Family[] {
  const { compiled } = model;
  const frame = compiled.nodeNames[compiled.frame]!;
  const nodes = measurable(model, near);
  const across = acrossPairs(model, near);
  const off = powerOff(model);
  const name = (node: number) => compiled.nodeNames[node]!;
  const loads = compiled.parts.filter(({ part }) => kindOf(part).traits.draws);
  const doubted = loads.filter(({ index }) => near.part(index));
  const wires = compiled.parts.filter(({ part }) => part.kind === 'wire');

  function* ohms(): Generator<Offer> {
    for (const pattern of patterns) {
      const { controls } = pattern.setup;
      const setup: Setup = { ...(controls ? { controls } : {}), ...off };
      const meant = meantBy(model, pattern);
      for (const from of nodes.filter(meant)) yield { test: { kind: 'ohms', from, to: frame, setup } };
      for (const [from, to] of across) {
        if (!meant(from) && from !== frame) continue;
        if (!meant(to) && to !== frame) continue;
        yield { test: { kind: 'ohms', from, to, setup } };
      }
    }
  }
  /** Every load by itself: unplugged where it has a plug, its neighbours lifted where it has none. */
  function* alone(): Generator<Offer> {
    for (const { part, branches, nodes: own } of doubted) {
      const body = branches[0]!;
      const [from, to] = [name(body.a), name(body.b)];
      const apart = setApart(model, part.ref, own.slice(0, 2));
      if (!apart) continue;
      const setup: Setup = { ...off, ...apart };
      yield { test: { kind: 'ohms', from, to, setup } };
      for (const [end, far] of [
        [from, to],
        [to, from],
      ] as const) {
        if (end === frame) continue;
        yield { test: { kind: 'ohms', from: end, to: frame, setup } };
        // A far end that is bonded to the frame comes off: through it the tester would see the load, no insulation.
        const bonded = compiled.nodeIndex.get(far) === compiled.frame || stillTied(model, setup, far);
        const free: Setup = bonded
          ? { ...setup, lifted: [...(setup.lifted ?? []), { part: part.ref, node: far }] }
          : setup;
        yield {
          test: {
            kind: 'insulation',
            from: end,
            to: frame,
            testVolts: testerVolts(model, [end]),
            setup: free,
          },
        };
      }
      for (const harness of harnessSide(model, apart.unplugged ?? [])) {
        for (const pattern of patterns) {
          if (pattern.loads.length > 0 && !pattern.loads.includes(part.ref)) continue;
          const controls = pattern.setup.controls ? { controls: pattern.setup.controls } : {};
          yield {
            test: { kind: 'ohms', from: harness, to: frame, setup: { ...controls, ...off, ...apart } },
          };
        }
      }
    }
  }
  /** A winding that something lies across, by itself: a shorted suppressor and a shorted winding read alike together. */
  function* bare(): Generator<Offer> {
    for (const part of doubted) {
      const { a, b } = part.branches[0]!;
      if (partsBeside(model, part).length === 0) continue;
      const setup = oneEndAlone(model, part, off);
      if (setup) yield { test: { kind: 'ohms', from: name(a), to: name(b), setup } };
    }
  }
  /** Suppression diodes and the like: by themselves, both ways. */
  function* diodes(): Generator<Offer> {
    for (const part of compiled.parts) {
      if (part.part.kind !== 'diode' || !near.part(part.index)) continue;
      const { a, b } = part.branches[0]!;
      const alone = oneEndAlone(model, part, off);
      for (const setup of [diodeApart(model, part, off), ...(alone ? [alone] : [])]) {
        for (const [from, to] of [
          [name(a), name(b)],
          [name(b), name(a)],
        ] as const) {
          yield { test: { kind: 'diode', from, to, setup } };
        }
      }
    }
  }
  /** Contacts of a relay held in from a bench supply. */
  function* benched(): Generator<Offer> {
    for (const { part, branches, index } of compiled.parts) {
      if (part.kind !== 'relay' || !near.part(index)) continue;
      for (const { a, b, role } of branches) {
        if (role === 'body') continue;
        const setup: Setup = { ...off, energised: [part.ref] };
        yield {
          test: { kind: 'ohms', from: name(a), to: name(b), setup },
        };
      }
    }
  }
  /** Conductors to the frame at test volts: loads and electronics out of the way, unplugged where they have plugs. */
  function* conductors(): Generator<Offer> {
    const setup = allApart(model, loads);
    for (const from of nodes) {
      yield { test: { kind: 'insulation', from, to: frame, testVolts: testerVolts(model, [from]), setup } };
    }
  }
  /** One conductor after the other with both its ends off: a leak that shows then is its own. */
  function* eachConductor(): Generator<Offer> {
    for (const part of wires) {
      if (!near.part(part.index)) continue;
      const found = conductorApart(model, part);
      if (!found) continue;
      const { from, setup } = found;
      yield { test: { kind: 'ohms', from, to: frame, setup } };
      yield { test: { kind: 'insulation', from, to: frame, testVolts: testerVolts(model, [from]), setup } };
    }
  }
  /** A conductor with both its ends off against what it may touch: its neighbours in the loom, and a live feed. */
  function* betweenConductors(): Generator<Offer> {
    const battery = compiled.parts.find(({ part }) => part.kind === 'source' && !part.hz);
    for (const part of wires) {
      if (!near.part(part.index)) continue;
      const found = battery && conductorApart(model, part);
      if (!found) continue;
      const { from, setup } = found;
      yield { test: { kind: 'ohms', from, to: name(battery.branches[0]!.a), setup } };
    }
    const close = (one: CompiledPart, two: CompiledPart) =>
      (near.part(one.index) || near.part(two.index)) && runBeside(one, two);
    for (const [one, two] of nearPairs(wires, close, MOST_BESIDE)) {
      const found = conductorApart(model, one);
      if (!found) continue;
      const { from, setup } = found;
      yield { test: { kind: 'ohms', from, to: name(two.branches[0]!.b), setup } };
    }
  }
  const families: Family[] = [
    { name: 'ohms', offers: ohms() },
    { name: 'alone', offers: alone() },
    { name: 'bare', offers: bare() },
    { name: 'diodes', offers: diodes() },
    { name: 'benched', offers: benched() },
    { name: 'conductors', offers: conductors() },
    { name: 'eachConductor', offers: eachConductor() },
    { name: 'betweenConductors', offers: betweenConductors() },
  ];
  return preferences.order === 'resistanceFirst'
    ? [families[1]!, ...families.filter((_one, at) => at !== 1)]
    : families;
}

/** Pairs of a loom that are read against each other. */
const MOST_BESIDE = 60;
/** Below this many readings of one sort, points times positions, none is left out. */
const FEW_READINGS = 260;

/** Whether a node has something to do with what a control position feeds; any has in a small circuit or at rest. */
function meantBy(model: CircuitModel, { setup, loads }: Pattern): (name: string) => boolean {
  const { compiled } = model;
  if (loads.length === 0 || compiled.nodeNames.length * model.combinations.length <= FEW_READINGS) {
    return () => true;
  }
  const world = model.situation(setup).solve({ mode: 'live' });
  const carrying = new Set<number>();
  for (const { index, a, b } of compiled.branches) {
    if (Math.abs(branchAmps(world, index)) > FLOWS_AMPS) carrying.add(a).add(b);
  }
  return (name) => carrying.has(compiled.nodeIndex.get(name)!);
}

/** Whether any pin of a connector carries current on the healthy circuit. */
function carries(model: CircuitModel, connector: string, { setup, loads }: Pattern): boolean {
  if (loads.length === 0) return false;
  const world = model.situation(setup).solve({ mode: 'live' });
  return model.compiled.parts.some(
    ({ part, branches }) =>
      part.kind === 'pin' &&
      part.connector === connector &&
      Math.abs(branchAmps(world, branches[0]!.index)) > FLOWS_AMPS,
  );
}

/** Names of electrical nodes that a probe can be put to, the frame left out. */
function measurable({ compiled }: CircuitModel, near: Near): string[] {
  return compiled.nodeNames.filter(
    (name, at) =>
      at !== compiled.frame &&
      compiled.domains[at] === 'electrical' &&
      !name.endsWith(':wiper') &&
      near.node(at),
  );
}

/** Pairs of node names at the two ends of every part, contact and winding. */
function acrossPairs(model: CircuitModel, near: Near): (readonly [string, string])[] {
  const { parts, nodeNames } = model.compiled;
  return parts.flatMap(({ part, branches, index }) => {
    if (!near.part(index)) return [];
    if (part.kind === 'transformer') {
      const { p1, p2, s1, s2 } = part.nodes;
      return [[p1, p2] as const, [s1, s2] as const];
    }
    if (part.kind === 'sensor3') {
      const { supply, signal, return: back } = part.nodes;
      return [[supply, back] as const, [signal, back] as const];
    }
    return branches
      .filter(({ domain }) => domain === 'electrical')
      .map(({ a, b }) => [nodeNames[a]!, nodeNames[b]!] as const);
  });
}

function connectorsAt({ compiled }: CircuitModel, near: Near): string[] {
  return compiled.connectors.filter((connector) =>
    compiled.parts.some(
      ({ part, index }) => part.kind === 'pin' && part.connector === connector && near.part(index),
    ),
  );
}

/** Nodes of the given connectors that face the supply. */
function harnessSide(model: CircuitModel, connectors: readonly string[]): string[] {
  const { parts, nodeNames, frame } = model.compiled;
  const nodes = parts
    .filter(({ part }) => part.kind === 'pin' && connectors.includes(part.connector))
    .flatMap(({ nodes: own }) => own)
    .filter((node) => node !== frame);
  return [...new Set(nodes)].map((node) => nodeNames[node]!);
}
