import type { CircuitModel } from '@/core/circuit/model';
import type { Part } from '@/core/circuit/partSchema';
import { kindOf } from '@/core/kinds/part';
import { quantity } from '@/words/en/readings';

/** A rating that a spare must match, as words. */
export interface Rating {
  name: string;
  wanted: string;
}

/** Resistance a sound spare shows on the bench, ohms, and how far it may be off. */
export interface SpareOhms {
  ohms: number;
  tolerance: number;
}

const USUAL_TOLERANCE = 0.1;
/** The meter's own part in a bench reading. */
const METER_SHARE = 0.02;

const OLD_PART = 'as on the old part';
const OLD_LABEL = 'as on the old label';

/**
 * What a spare for a part is matched by, from the circuit. The circuit knows what a part reads, not what its maker wrote on
 * it: rated volts and watts, thread, plug and duty stand on the old part's label.
 */
export function spareRatings(
  model: CircuitModel,
  ref: string,
): { ratings: Rating[]; bench: SpareOhms | null } {
  const part = model.compiled.circuit.parts.find((one) => one.ref === ref);
  if (!part) return { ratings: [], bench: null };
  return { ratings: ratingsOf(part), bench: benchOf(part) };
}

function benchOf(part: Part): SpareOhms | null {
  if (!(kindOf(part).traits.load || part.kind === 'relay') || !('ohms' in part) || part.ohms === undefined)
    return null;
  return { ohms: part.ohms, tolerance: ('tolerance' in part && part.tolerance) || USUAL_TOLERANCE };
}

function ratingsOf(part: Part): Rating[] {
  const ratings: Rating[] = [];
  const add = (name: string, wanted: string | undefined) => {
    if (wanted) ratings.push({ name, wanted });
  };
  const bench = benchOf(part);
  switch (part.kind) {
    case 'coil':
    case 'heater':
    case 'lamp':
    case 'motor':
    case 'resistor':
    case 'relay':
    case 'proportionalValve':
    case 'transformer':
      if (part.kind !== 'resistor') add('Volts, AC or DC', OLD_LABEL);
      if (bench)
        add('Ohms at 20 °C', `${quantity('ohms', bench.ohms)} ± ${Math.round(bench.tolerance * 100)} %`);
      if (part.kind === 'relay')
        add(
          'Contacts',
          Object.keys(part.nodes)
            .filter((node) => !/^a\d$/.test(node))
            .join(', '),
        );
      add('Watts', part.kind === 'relay' ? undefined : OLD_LABEL);
      if (part.kind === 'coil') add('Duty', OLD_LABEL);
      add('Plug and thread', OLD_PART);
      break;
    case 'fuse':
    case 'breaker':
      add('Amps', `${part.amps} A, never larger`);
      add('Speed and volts', OLD_PART);
      break;
    case 'wire':
      add(
        'Cross-section',
        part.mm2
          ? `${part.mm2} mm²`
          : part.awg !== undefined
            ? `${part.awg} AWG`
            : 'as the old wire, never less',
      );
      add('Length', part.lengthMetres ? `${part.lengthMetres} m` : undefined);
      add('Colour and mark', [part.colour, part.mark].filter(Boolean).join(', '));
      break;
    case 'driver':
      add('Limit', part.limitAmps ? `${part.limitAmps} A` : undefined);
      add('Software version', 'as on the old controller');
      break;
    case 'switch':
      add('Contact', 'normally open or closed as it stands in service');
      add('Kind', OLD_PART);
      break;
    case 'valve':
    case 'hose':
    case 'pump':
    case 'cylinder':
    case 'regulator':
    case 'filter':
    case 'check':
    case 'throttle':
    case 'silencer':
    case 'plug':
    case 'vacuumActuator':
    case 'airSupply':
      add('Kind and size', OLD_PART);
      add('Working pressure', 'as on the old part, never less');
      break;
    case 'pressureSwitch':
      add('Switching pressure', OLD_LABEL);
      add('Kind', OLD_PART);
      break;
    case 'source':
    case 'pin':
    case 'diode':
    case 'sensor3':
    case 'timer':
      add('Kind', OLD_PART);
      break;
    default:
      part satisfies never;
  }
  return ratings;
}

/** Whether a bench reading is that of a sound spare. */
export function soundSpare(value: number | 'OL', { ohms, tolerance }: SpareOhms): boolean {
  return typeof value === 'number' && Math.abs(value - ohms) <= ohms * (tolerance + METER_SHARE);
}
