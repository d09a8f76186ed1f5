import type { Near } from './near';
import { kindOf } from '../kinds/part';
import { guardsDefeated } from '../safety/guards';
import type { CircuitModel } from '../circuit/model';
import type { Part, Preferences, Setup } from '../circuit/schema';
import { branchAmps } from '../circuit/world';
import type { Family, Offer } from './offers';
import { isGroundStud, setApart } from './setApart';
import type { Pattern } from './patterns';
import { runsOf } from './feedAndReturn';
import { clampedAt } from './partsAcross';
import { twinsOf } from './twins';
import { acrossPairs, FLOWS_AMPS, harnessSide, meantBy, measurable, pairsMeant } from './probePoints';

/** Bits of an output that somebody can look at. */
function bitsOf(part: Part): ('command' | 'feedback')[] {
  if (part.kind !== 'driver') return [];
  return (['command', 'feedback'] as const).filter((which) => part.bits?.[which] !== undefined);
}

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
      for (const [from, to] of pairsMeant(across, meant, frame)) {
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
        for (const which of bitsOf(part)) yield { test: { kind: 'bit', part: part.ref, which, setup } };
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

function connectorsAt({ compiled }: CircuitModel, near: Near): string[] {
  return compiled.connectors.filter((connector) =>
    compiled.parts.some(
      ({ part, index }) => part.kind === 'pin' && part.connector === connector && near.part(index),
    ),
  );
}
