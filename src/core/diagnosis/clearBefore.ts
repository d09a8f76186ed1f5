import { mediumOf } from '../circuit/medium';
import type { Part } from '../circuit/schema';
import { isOfRefrigerant } from '../safety/refrigerant';
import { kindOf } from '../kinds/part';
import type { CircuitModel } from '../circuit/model';
import type { CompiledPart } from '../circuit/compile';
import { branchAmps, branchVolts } from '../circuit/world';
import type { FaultName } from './faultTypes';

/** Why a part beside the one proved bad must be cleared first. */
export interface ClearFirst {
  part: string;
  reason:
    | 'shortBehind'
    | 'suppressionDiode'
    | 'openSuppressor'
    /** Of a battery, which is highest while it is charged; of a line, which is highest with little on it. */
    | 'overVoltage'
    | 'overLineVoltage'
    | 'jammedSpool'
    | 'jammedArmature'
    /** On direct volts: a new one would not move either. A rotor: what it drives, or its bearings. */
    | 'jammedPlunger'
    | 'seizedRotor'
    | 'missingAir'
    /** Water, dirt or dry air; dirt in the oil; dust; moisture in a refrigerant: what made it stick, wear or choke. */
    | 'foulAir'
    | 'foulOil'
    | 'foulVacuum'
    | 'foulRefrigerant'
    | 'overload';
}

/** Less is nothing that a load would draw. */
const LEAST_AMPS = 1e-3;
const BURNT_CONTACT: readonly FaultName[] = ['highResistance', 'welded'];
const BURNT: readonly FaultName[] = ['open', 'shortedTurns', 'short', 'shortToFrame', 'weakInsulation'];

/** What would kill a new part and must be cleared before it goes in: what lies across it, moves with it, feeds it too hard. */
export function clearBefore(model: CircuitModel, ref: string, fault: FaultName): ClearFirst[] {
  // Where the program does not ask, nothing goes in.
  if (fault === 'noCommand') return [];
  const { compiled } = model;
  const { part, nodes, branches } = compiled.parts[compiled.partIndex.get(ref)!]!;
  const found: ClearFirst[] = [];
  const diodesAcross = (ends: readonly number[], reason: ClearFirst['reason'] = 'suppressionDiode') => {
    for (const other of compiled.parts) {
      if (other.part.kind !== 'diode' || other.part.ref === ref) continue;
      if (other.nodes.every((node) => ends.includes(node))) {
        found.push({ part: other.part.ref, reason });
      }
    }
  };
  const loadsBehind = () => {
    const fed = new Set<string>();
    for (const controls of model.combinations) {
      const world = model.situation({ controls }).solve({ mode: 'live' });
      const flows = (branch: number) => Math.abs(branchAmps(world, branch)) > LEAST_AMPS;
      if (!branches.some(({ index }) => flows(index))) continue;
      for (const other of compiled.parts) {
        if (other.part.ref !== ref && kindOf(other.part).traits.load && flows(other.branches[0]!.index))
          fed.add(other.part.ref);
      }
    }
    return [...fed];
  };
  // A contact that burnt may have broken a coil whose suppressor is open, or more than it is made for.
  if (kindOf(part).traits.contact && BURNT_CONTACT.includes(fault)) {
    for (const load of loadsBehind()) {
      diodesAcross(compiled.parts[compiled.partIndex.get(load)!]!.nodes, 'openSuppressor');
      if (fault === 'welded') found.push({ part: load, reason: 'overload' });
    }
  }
  switch (part.kind) {
    case 'coil':
    case 'relay':
      diodesAcross(nodes);
      if (fault === 'jammed')
        found.push({ part: ref, reason: branches[0]!.reactance > 0 ? 'jammedArmature' : 'jammedPlunger' });
      if (!BURNT.includes(fault)) break;
      for (const { part: valve } of compiled.parts) {
        if (valve.kind !== 'valve' || (valve.coil !== ref && valve.coil2 !== ref)) continue;
        // On alternating current a plunger that cannot close leaves the coil at its inrush current.
        if (compiled.alternating[nodes[0]!] || compiled.alternating[nodes[1]!]) {
          found.push({ part: valve.ref, reason: 'jammedSpool' });
        }
      }
      for (const source of feedsOf(model, branches[0]!.index))
        found.push({
          part: source.part.ref,
          reason: compiled.alternating[source.branches[0]!.a] === 1 ? 'overLineVoltage' : 'overVoltage',
        });
      break;
    case 'fuse':
    case 'breaker':
    case 'driver':
      // A fuse seldom opens by itself: what took it down takes the next one.
      if (part.kind !== 'driver') found.push({ part: ref, reason: 'shortBehind' });
      for (const load of loadsBehind()) {
        found.push({ part: load, reason: 'overload' });
        diodesAcross(compiled.parts[compiled.partIndex.get(load)!]!.nodes);
      }
      break;
    case 'valve':
      if (part.pilotKPa === undefined || fault !== 'stuckMidway') break;
      for (const { part: supply } of compiled.parts) {
        if (supply.kind === 'airSupply' || supply.kind === 'pump') {
          found.push({ part: supply.ref, reason: 'missingAir' });
        }
      }
      break;
    case 'motor':
      diodesAcross(nodes);
      if (fault === 'jammed') found.push({ part: ref, reason: 'seizedRotor' });
  }
  found.push(...foulBefore(model, part, fault));
  return found;
}

/** Of the volts across a load, what a supply has to bring to be one that feeds it, share. */
const FEEDS_SHARE = 0.05;

/** Supplies that feed a branch in a position in which current flows through it; each where none does, since nothing clears it. */
function feedsOf(model: CircuitModel, branch: number): CompiledPart[] {
  const sources = model.compiled.parts.filter(({ part }) => part.kind === 'source');
  const fed = new Set<CompiledPart>();
  for (const controls of model.combinations) {
    const world = model.situation({ controls }).solve({ mode: 'live' });
    if (Math.abs(branchAmps(world, branch)) < LEAST_AMPS) continue;
    const { a, b } = world.edges[branch]!;
    const across = Math.abs(branchVolts(world, branch));
    for (const source of sources) {
      const { a: from, b: to, siemens, emf } = world.edges[source.branches[0]!.index]!;
      if (Math.abs(siemens * emf * world.changed.transfer(a, b, from, to)) > FEEDS_SHARE * across)
        fed.add(source);
    }
  }
  return fed.size > 0 ? [...fed] : sources;
}

/** What sticks, wears or chokes because of what comes with its air, oil or vacuum. */
const BY_DIRT: readonly FaultName[] = [
  'stuckAtRest',
  'stuckShifted',
  'stuckMidway',
  'jammed',
  'sealLeak',
  'ventBlocked',
  'blocked',
];

/** Where the next one would meet what spoilt this: at the filter before it, else at the supply. */
function foulBefore(model: CircuitModel, part: Part, fault: FaultName): ClearFirst[] {
  if (!kindOf(part).traits.fluid || !BY_DIRT.includes(fault)) return [];
  const parts = model.compiled.circuit.parts;
  const cold = isOfRefrigerant(model, part.ref);
  const supply = parts.find(
    (one) =>
      kindOf(one).traits.fluid && kindOf(one).traits.supply && isOfRefrigerant(model, one.ref) === cold,
  );
  const at = parts.find(({ kind, ref }) => kind === 'filter' && ref !== part.ref) ?? supply;
  if (!at || at.ref === part.ref) return [];
  const medium = mediumOf(model);
  const reason = cold
    ? 'foulRefrigerant'
    : medium === 'oil'
      ? 'foulOil'
      : medium === 'vacuum'
        ? 'foulVacuum'
        : 'foulAir';
  return [{ part: at.ref, reason }];
}
