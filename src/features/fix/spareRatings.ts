import type { CircuitModel } from '@/core/circuit/model';

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

/** What a spare for a part is matched by, from the circuit; the thread, plug and duty stand on the old part's label. */
export function spareRatings(
  model: CircuitModel,
  ref: string,
): { ratings: Rating[]; bench: SpareOhms | null } {
  const { circuit, supplyVolts } = model.compiled;
  const part = circuit.parts.find((one) => one.ref === ref);
  if (!part) return { ratings: [], bench: null };
  const ratings: Rating[] = [];
  const add = (name: string, wanted: string | number | undefined) =>
    wanted === undefined ? undefined : ratings.push({ name, wanted: String(wanted) });
  let bench: SpareOhms | null = null;
  switch (part.kind) {
    case 'coil':
    case 'heater':
    case 'lamp':
    case 'motor':
    case 'resistor':
    case 'relay':
      add('Volts', `${Math.round(supplyVolts)} V`);
      if (part.ohms !== undefined) {
        const tolerance = ('tolerance' in part && part.tolerance) || USUAL_TOLERANCE;
        bench = { ohms: part.ohms, tolerance };
        add('Ohms at 20 °C', `${part.ohms} Ω ± ${Math.round(tolerance * 100)} %`);
        add('Watts', `${Number(((supplyVolts * supplyVolts) / part.ohms).toPrecision(2))} W`);
      }
      if (part.kind === 'relay')
        add(
          'Contacts',
          Object.keys(part.nodes)
            .filter((node) => !/^a\d$/.test(node))
            .join(', '),
        );
      if (part.kind === 'coil') add('Duty', 'as on the old label');
      add('Plug and thread', 'as on the old part');
      break;
    case 'fuse':
    case 'breaker':
      add('Amps', `${part.amps} A, never larger`);
      break;
    case 'wire':
      add(
        'Cross-section',
        part.mm2 ? `${part.mm2} mm²` : part.awg !== undefined ? `${part.awg} AWG` : undefined,
      );
      add('Length', part.lengthMetres ? `${part.lengthMetres} m` : undefined);
      add('Colour and mark', [part.colour, part.mark].filter(Boolean).join(', ') || undefined);
      break;
    case 'driver':
      add('Limit', part.limitAmps ? `${part.limitAmps} A` : undefined);
      add('Software version', 'as on the old controller');
      break;
    case 'switch':
      add('Contact', 'normally open or closed as it stands in service');
      break;
    default:
      add('Kind', 'as on the old part');
  }
  return { ratings, bench };
}

/** Whether a bench reading is that of a sound spare. */
export function soundSpare(value: number | 'OL', { ohms, tolerance }: SpareOhms): boolean {
  return typeof value === 'number' && Math.abs(value - ohms) <= ohms * (tolerance + METER_SHARE);
}
