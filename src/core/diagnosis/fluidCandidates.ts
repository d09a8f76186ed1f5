import { kindOf } from '../kinds/part';
import { ATMOSPHERE } from '../kinds/part/branch';
import { mediumOf } from '../circuit/medium';
import type { CircuitModel } from '../circuit/model';
import type { Edge, PartOf, Setup, Test } from '../circuit/schema';
import { powerOff } from './setApart';
import { nodeKPa } from '../circuit/world';
import type { Near } from './near';
import type { Family, Offer } from './offers';
import type { Pattern } from './patterns';
import { ventNodes } from './predictFluid';

/** Pressure worth opening a line for, kPa. */
const PRESSURE = 5;

/** A pressure switch on a hand pump, its contact dead and its line off; of oil with all that presses shut off and let down. */
export function switchTest(model: CircuitModel, { ref, nodes }: PartOf<'pressureSwitch'>, edge: Edge): Test {
  const pressed = model.compiled.parts
    .filter(({ part }) => kindOf(part).traits.supply || kindOf(part).traits.stores)
    .map(({ part }) => part.ref);
  const off = mediumOf(model) === 'oil' ? { isolated: pressed } : powerOff(model);
  return { kind: 'changes', part: ref, edge, setup: { ...off, lifted: [{ part: ref, node: nodes.port }] } };
}

/** Gauges, hands and eyes on the air, oil or vacuum side; none where the circuit has no such side. */
export function fluidFamilies(model: CircuitModel, patterns: readonly Pattern[], near: Near): Family[] {
  const { compiled } = model;
  if (compiled.atmosphere < 0) return [];
  const nodes = compiled.nodeNames.filter(
    (name, at) => compiled.domains[at] === 'fluid' && name !== ATMOSPHERE && near.node(at),
  );
  const valves = compiled.parts.filter(({ part }) => part.kind === 'valve');
  const actuators = compiled.parts.filter(({ part }) => kindOf(part).traits.actuator);
  const rest: Setup = {};

  function* gauges(): Generator<Offer> {
    for (const { setup } of patterns) {
      for (const at of nodes) yield { test: { kind: 'pressure', at, setup } };
    }
  }
  function* outlets(): Generator<Offer> {
    for (const { setup } of patterns) {
      for (const node of ventNodes(model.situation(setup).situation)) {
        yield { test: { kind: 'flow', at: compiled.nodeNames[node]!, setup } };
      }
    }
  }
  function* motions(): Generator<Offer> {
    for (const { setup, driven } of patterns) {
      for (const { part } of actuators) {
        if (!driven.includes(part.ref)) continue;
        yield { test: { kind: 'moves', part: part.ref, setup } };
      }
    }
  }
  /** The valve pushed by hand, or its coil fed from a bench supply: which half of the machine is at fault. */
  function* byHand(): Generator<Offer> {
    for (const { part } of valves) {
      if (part.kind !== 'valve') continue;
      const ways = part.ways === '5/3' ? [part.ref, `${part.ref}:12`] : [part.ref];
      for (const override of ways) {
        const setup: Setup = { ...rest, override: [override] };
        for (const { part: actuator } of actuators) {
          yield { test: { kind: 'moves', part: actuator.ref, setup } };
        }
        for (const at of Object.values(part.nodes)) {
          if (at && at !== ATMOSPHERE) yield { test: { kind: 'pressure', at, setup } };
        }
        for (const node of ventNodes(model.situation(setup).situation)) {
          yield { test: { kind: 'flow', at: compiled.nodeNames[node]!, setup } };
        }
      }
      const energised: Setup = { ...rest, energised: [part.coil] };
      for (const { part: actuator } of actuators) {
        const test = { kind: 'moves', part: actuator.ref, setup: energised } as const;
        yield { test };
      }
    }
  }
  /** A line taken off: what comes out of it. At a cylinder's far port, bubbles say that the seal leaks. */
  function* opened(): Generator<Offer> {
    for (const { setup } of patterns) {
      for (const at of nodes) {
        yield {
          test: { kind: 'flow', at, setup: { ...setup, open: [at] } },
        };
      }
    }
  }
  /** Exhausts stopped with a finger: pressure behind it that should not be there. */
  function* stopped(): Generator<Offer> {
    for (const { setup } of patterns) {
      for (const node of ventNodes(model.situation(setup).situation)) {
        const at = compiled.nodeNames[node]!;
        const healthy = nodeKPa(model.situation({ ...setup, plugged: [at] }).solve({ mode: 'live' }), node);
        if (Math.abs(healthy) > PRESSURE) continue;
        yield { test: { kind: 'pressure', at, setup: { ...setup, plugged: [at] } } };
      }
    }
  }
  /** An exhaust set free, by taking out its silencer or opening the actuator's own port: does it run now? */
  function* freed(): Generator<Offer> {
    for (const { setup, driven } of patterns) {
      for (const { part: actuator, branches } of actuators) {
        if (!driven.includes(actuator.ref)) continue;
        const silencers = compiled.circuit.parts.flatMap((part) =>
          part.kind === 'silencer' ? [part.nodes.in] : [],
        );
        const ports = [branches[0]!.a, branches[0]!.b].map((node) => compiled.nodeNames[node]!);
        for (const node of new Set([...silencers, ...ports])) {
          if (node === ATMOSPHERE) continue;
          const out: Setup = { ...setup, open: [node] };
          for (const kind of ['function', 'moves'] as const) {
            yield { test: { kind, part: actuator.ref, setup: out } };
          }
        }
      }
    }
  }
  /** A line taken off and its end stopped: whether what comes before it holds pressure by itself. */
  function* blanked(): Generator<Offer> {
    for (const { setup } of patterns) {
      for (const { part, branches, index } of compiled.parts) {
        if (!near.part(index)) continue;
        const way = branches.find(
          // Of an actuator its seal: with its line off and stopped a leak behind the line is out of it.
          ({ domain, role }) => domain === 'fluid' && (role === 'body' || role === 'way' || role === 'seal'),
        );
        const { supply, stores } = kindOf(part).traits;
        if (!way || supply || stores) continue;
        for (const node of new Set([way.a, way.b])) {
          const at = compiled.nodeNames[node]!;
          if (at === ATMOSPHERE) continue;
          const off: Setup = { ...setup, lifted: [{ part: part.ref, node: at }], plugged: [at] };
          yield { test: { kind: 'pressure', at, setup: off } };
        }
      }
    }
  }
  /** Pumped up where a line was taken off, or drawn empty, and shut in: what is left on that place holds it, or does not. Oil gives at once. */
  function* pumped(): Generator<Offer> {
    if (mediumOf(model) === 'oil') return;
    for (const at of nodes) {
      const node = compiled.nodeIndex.get(at)!;
      for (const { part, nodes: ends } of compiled.parts) {
        const { supply } = kindOf(part).traits;
        if (supply || !ends.includes(node)) continue;
        yield {
          test: { kind: 'hold', at, setup: { lifted: [{ part: part.ref, node: at }], plugged: [at] } },
        };
      }
    }
  }
  /** A pressure switch by itself, on a hand pump: where its contact changes over. */
  function* switched(): Generator<Offer> {
    for (const { part, index } of compiled.parts) {
      if (part.kind !== 'pressureSwitch' || !near.part(index)) continue;
      // Where it lets go again tells of its play, not of whether it works: the sheet asks for that.
      yield { test: switchTest(model, part, 'rising') };
    }
  }
  return [
    { name: 'switched', offers: switched() },
    { name: 'gauges', offers: gauges() },
    { name: 'motions', offers: motions() },
    { name: 'outlets', offers: outlets() },
    { name: 'byHand', offers: byHand() },
    { name: 'freed', offers: freed() },
    { name: 'opened', offers: opened() },
    { name: 'blanked', offers: blanked() },
    { name: 'pumped', offers: pumped() },
    { name: 'stopped', offers: stopped() },
  ];
}
