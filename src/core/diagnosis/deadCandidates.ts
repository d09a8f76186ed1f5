import type { Near } from './near';
import { nearPairs, runBeside } from './pairFaults';
import { testerVolts } from './testerVolts';
import { kindOf } from '../kinds/part';
import type { CompiledPart } from '../circuit/compile';
import type { CircuitModel } from '../circuit/model';
import type { Preferences, Setup } from '../circuit/schema';
import type { Family, Offer } from './offers';
import {
  allApart,
  bothApart,
  conductorApart,
  diodeApart,
  oneEndAlone,
  powerOff,
  setApart,
  stillTied,
} from './setApart';
import type { Pattern } from './patterns';
import { partsBeside } from './partsAcross';
import { acrossPairs, harnessSide, meantBy, measurable, pairsMeant } from './probePoints';

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
      for (const [from, to] of pairsMeant(across, meant, frame)) {
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
      // Test volts go through neither's load: both ends of both come off, and the weaker of the two circuits says how many.
      const other = conductorApart(model, two);
      if (!other) continue;
      const testVolts = Math.min(testerVolts(model, [from]), testerVolts(model, [other.from]));
      const apart = bothApart(setup, other.setup);
      yield { test: { kind: 'insulation', from, to: other.from, testVolts, setup: apart } };
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
