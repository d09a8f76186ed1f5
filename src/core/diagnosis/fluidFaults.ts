import { AT_REST, MIDWAY, OTHER_WAY, SHIFTED } from '../circuit/fluidBranches';
import type { CircuitModel } from '../circuit/model';
import {
  bridged,
  broken,
  forced,
  leak,
  worsened,
  type AddFault,
  type FaultVariant,
  type SeverityRange,
} from './faultTypes';

/** A choke that slows the function, up to one that stops it. */
const BLOCKED: SeverityRange = { unit: 'restriction', least: 0.4, most: 1e6, mainLeast: 1.5, mainMost: 1e3 };
/** From a hose that is off down to bubbles in water. */
const LEAK: SeverityRange = { unit: 'restriction', least: 0.02, most: 2e4, mainLeast: 0.02, mainMost: 30 };
const SEAL_LEAK: SeverityRange = {
  unit: 'restriction',
  least: 0.05,
  most: 1e4,
  mainLeast: 0.1,
  mainMost: 300,
};
const LOW_PRESSURE: SeverityRange = {
  unit: 'factor',
  least: 0.03,
  most: 0.9,
  mainLeast: 0.05,
  mainMost: 0.8,
};
const DRIFT: SeverityRange = { unit: 'factor', least: 0.3, most: 4, mainLeast: 0.4, mainMost: 3 };

/** Faults of the air, oil and vacuum side. */
export function addFluidFaults({ compiled }: CircuitModel, add: AddFault): void {
  for (const part of compiled.parts) {
    const { kind } = part.part;
    const body = part.branches.find(({ domain }) => domain === 'fluid');
    if (!body) continue;
    const position = (at: number): FaultVariant[] => [
      { weight: 1, edits: () => [{ type: 'position', part: part.index, position: at }] },
    ];
    const lowPressure: FaultVariant[] = [
      { weight: 1, edits: (factor) => [{ type: 'emf', branch: body.index, factor }] },
    ];
    const jammed: FaultVariant[] = [{ weight: 1, edits: () => [{ type: 'jam', part: part.index }] }];
    switch (kind) {
      case 'airSupply':
      case 'pump':
        add(part, 'noOutput', kind, null, [broken(body)]);
        add(part, 'lowPressure', kind, LOW_PRESSURE, lowPressure);
        break;
      case 'regulator':
        add(part, 'lowPressure', kind, LOW_PRESSURE, lowPressure);
        add(part, 'blocked', kind, null, [
          { weight: 1, edits: () => part.branches.flatMap((branch) => forced(branch, false).edits(1)) },
        ]);
        break;
      case 'filter':
      case 'throttle':
      case 'silencer':
        add(part, 'blocked', kind, BLOCKED, [worsened(body)]);
        break;
      case 'hose':
        add(part, 'blocked', kind, BLOCKED, [worsened(body)]);
        add(part, 'leaking', kind, LEAK, [leak(body, 'a'), leak(body, 'b')]);
        break;
      case 'plug':
        add(part, 'leaking', kind, LEAK, [leak(body, 'a')]);
        break;
      case 'check':
        add(part, 'stuckOpen', kind, null, [forced(body, true)]);
        add(part, 'stuckClosed', kind, null, [forced(body, false)]);
        break;
      case 'valve': {
        add(part, 'stuckAtRest', kind, null, position(AT_REST));
        add(part, 'stuckShifted', kind, null, [
          ...position(SHIFTED),
          ...(part.part.kind === 'valve' && part.part.ways === '5/3' ? position(OTHER_WAY) : []),
        ]);
        add(part, 'stuckMidway', kind, null, position(MIDWAY));
        add(part, 'sealLeak', kind, SEAL_LEAK, part.branches.map(bridged));
        const vents = part.branches.filter(({ role }) => role === 'vent');
        add(part, 'ventBlocked', kind, BLOCKED, vents.map(worsened));
        break;
      }
      case 'cylinder':
        add(part, 'sealLeak', kind, SEAL_LEAK, [bridged(body)]);
        add(part, 'jammed', kind, null, jammed);
        break;
      case 'vacuumActuator':
        add(part, 'leaking', kind, LEAK, [leak(body, 'a')]);
        add(part, 'jammed', kind, null, jammed);
        break;
      case 'pressureSwitch': {
        const contact = part.branches[0]!;
        add(part, 'stuckOpen', kind, null, [forced(contact, false)]);
        add(part, 'stuckClosed', kind, null, [forced(contact, true)]);
        add(part, 'drifted', kind, DRIFT, [
          { weight: 1, edits: (factor) => [{ type: 'threshold', part: part.index, factor }] },
        ]);
      }
    }
  }
}
