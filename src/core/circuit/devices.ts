import type { Device } from './deviceTypes';
import { AT_REST, MIDWAY, OPENING_STEPS, OTHER_WAY, SHIFTED } from '../kinds/part/branch';
import { kindOf } from '../kinds/part/index';
import { openedBy } from './fuseTime';
import type { Situation } from './situation';
import { branchAmps, branchVolts, conductance, nodeKPa, type World } from './world';

/** Steady current above this share of its rating opens a fuse (contract). */
export const FUSE_LIMIT = 1.35;

/** Everything in a situation whose conduction depends on the solution. */
export function listDevices(situation: Situation): Device[] {
  return situation.compiled.parts.flatMap(
    (compiled) => kindOf(compiled.part).devices?.(compiled.part, compiled, situation) ?? [],
  );
}

/** Faults that act on devices rather than on the network. */
export interface DeviceFaults {
  reversed: ReadonlySet<number>;
  positions: ReadonlyMap<number, number>;
  thresholds: ReadonlyMap<number, number>;
}

/** Moves every device to the state its own volts, amps and pressures ask for. One fuse at a time: the worst loaded goes first. */
export function advanceDevices(
  world: World,
  state: Uint8Array,
  fuseLoad: number[],
  faults: DeviceFaults,
  frozen: boolean,
): void {
  const { devices, situation } = world;
  const seconds = situation.setup.afterSeconds ?? Infinity;
  let worst = -1;
  let worstLoad = 1;
  // A driver limits within microseconds: until it has, the current says nothing about the fuse before it.
  const limiting = frozen ? false : limitDrivers(world, state);
  devices.forEach((device, at) => {
    if (frozen && device.kind !== 'diode') return;
    switch (device.kind) {
      case 'fuse': {
        if (state[at] === 1 || limiting) return;
        const load = Math.abs(branchAmps(world, device.branch)) / (FUSE_LIMIT * device.amps);
        if (load > fuseLoad[at]!) fuseLoad[at] = load;
        if (load > worstLoad && openedBy(seconds, 100 * FUSE_LIMIT * load) >= 0.5) {
          worst = at;
          worstLoad = load;
        }
        return;
      }
      case 'diode': {
        const sign = faults.reversed.has(device.branch) ? -1 : 1;
        if (state[at] === 0) {
          // A dead end behind a check valve fills through it.
          const across = sign * branchVolts(world, device.branch);
          const floats = device.from >= 0 && !world.changed.joined(...endsOf(world, device.branch));
          const pushed = floats ? nodeKPa(world, device.from) : across;
          const drift = device.part === undefined ? 1 : (faults.thresholds.get(device.part) ?? 1);
          state[at] = pushed > device.volts * drift ? 1 : 0;
        } else state[at] = sign * branchAmps(world, device.branch) < 0 ? 0 : 1;
        return;
      }
      case 'relay': {
        if (situation.energised.has(device.part)) return;
        const volts = Math.abs(branchVolts(world, device.coil));
        const flows = conductance(world, device.coil) > 0;
        state[at] = flows && volts >= (state[at] === 0 ? device.pickUp : device.dropOut) ? 1 : 0;
        return;
      }
      case 'driver':
        return;
      case 'valve':
        state[at] = spoolPosition(world, device, state[at]!, faults.positions.get(device.part));
        return;
      case 'regulator': {
        const reached =
          state[at] === 0
            ? nodeKPa(world, device.inlet) >= device.kPa
            : nodeKPa(world, device.outlet) > device.kPa;
        state[at] = reached ? 0 : 1;
        return;
      }
      case 'opening': {
        const { part, coil, from, full } = device;
        const stuck = faults.positions.get(part);
        const amps = situation.energised.has(part) ? full : Math.abs(branchAmps(world, coil));
        const share = Math.min(1, Math.max(0, (amps - from) / (full - from)));
        state[at] = stuck ?? Math.round(OPENING_STEPS * share);
        return;
      }
      case 'pressureSwitch': {
        const factor = faults.thresholds.get(device.part) ?? 1;
        const kPa = nodeKPa(world, device.port);
        const [make, back] = [device.makeKPa * factor, device.breakKPa * factor];
        const rising = device.makeKPa >= device.breakKPa;
        if (state[at] === 0) state[at] = (rising ? kPa >= make : kPa <= make) ? 1 : 0;
        else state[at] = (rising ? kPa <= back : kPa >= back) ? 0 : 1;
      }
    }
  });
  if (worst >= 0) state[worst] = 1;
}

/** Puts every driver into or out of its limit; says whether any changed. */
function limitDrivers(world: World, state: Uint8Array): boolean {
  let changed = false;
  world.devices.forEach((device, at) => {
    if (device.kind !== 'driver') return;
    const before = state[at];
    if (before === 0) state[at] = branchAmps(world, device.branch) > device.limit ? 1 : 0;
    else state[at] = branchVolts(world, device.branch) < device.limit * device.ohms ? 0 : 1;
    if (state[at] !== before) changed = true;
  });
  return changed;
}

function spoolPosition(
  world: World,
  device: Extract<Device, { kind: 'valve' }>,
  now: number,
  stuck: number | undefined,
): number {
  if (stuck !== undefined) return stuck;
  const { situation } = world;
  const [on, other] = device.coils.map((coil) => {
    if (!coil) return false;
    if (situation.energised.has(coil.place)) return true;
    const sitting = situation.compiled.parts[situation.inPlace[coil.place]!]!.branches[0]!.index;
    const amps = Math.abs(branchAmps(world, sitting));
    return amps >= (now === AT_REST || now === MIDWAY ? coil.pullIn : coil.hold);
  });
  const byHand = situation.overrides.get(device.part);
  let wanted = AT_REST;
  if (byHand !== undefined) wanted = byHand === OTHER_WAY && device.bistable ? AT_REST : byHand;
  else if (on && !other) wanted = SHIFTED;
  else if (other && !on && !device.bistable) wanted = OTHER_WAY;
  if (wanted === AT_REST) return AT_REST;
  // Oil and air push a pilot, a vacuum pulls it.
  return Math.abs(nodeKPa(world, device.port)) < device.pilotKPa ? MIDWAY : wanted;
}

function endsOf(world: World, branch: number): [number, number] {
  const { a, b } = world.edges[branch]!;
  return [a, b];
}
