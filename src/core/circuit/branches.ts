import { InputError } from './inputError';
import type { Part, PartOf } from './schema';
import { conductorOhms, gaugeArea } from './wireGauge';

/** Closed contact, plug pin or jumper when the file gives no figure, ohms. */
const CONTACT_OHMS = 0.01;
const PIN_OHMS = 0.005;
const WIRE_OHMS = 0.02;
const SOURCE_OHMS = 0.02;
const OUTPUT_OHMS = 0.05;
/** A fuse's cold resistance drops about this many volts at its rating. */
const FUSE_DROP_VOLTS = 0.08;
const DIODE_ON_OHMS = 0.05;
/** Spread that a load's resistance may have around its nominal value when the file gives none. */
const LOAD_TOLERANCE = 0.08;
const SOURCE_TOLERANCE = 0.02;

export type BranchRole =
  | 'body'
  | 'output'
  | 'made'
  | 'resting'
  | 'upper'
  | 'lower'
  | 'wiper'
  /** Way through a valve. */
  | 'way'
  /** A fluid part's own opening to the atmosphere. */
  | 'vent'
  /** Feed of a regulator that cannot reach its set pressure. */
  | 'wideOpen'
  /** Place of a leak through a piston seal. */
  | 'seal';

/** What one two-terminal piece of a part needs to be told; nodes by name. */
export interface BranchSpec {
  role: BranchRole;
  from: string;
  to: string;
  /** Resistance while it conducts: ohms, or kPa per L/min. */
  ohms: number;
  henries?: number;
  /** Volts, or kPa. */
  emf?: number;
  tolerance?: number;
  emfTolerance?: number;
  /** Contact set of a relay, counted from 0. */
  set?: number;
  /** Valve positions in which a way is open. */
  positions?: readonly number[];
}

/** Electrical pieces of a part. Throws {@link InputError} for a relay without a coil. */
export function electricalBranches(part: Part, field: string): BranchSpec[] {
  switch (part.kind) {
    case 'source':
      return [
        {
          role: 'body',
          from: part.nodes['+'],
          to: part.nodes['-'],
          ohms: part.internalOhms ?? SOURCE_OHMS,
          emf: -part.volts,
          emfTolerance: SOURCE_TOLERANCE,
        },
      ];
    case 'fuse':
    case 'breaker':
      return [body(part, part.ohms ?? FUSE_DROP_VOLTS / part.amps)];
    case 'wire':
      return [body(part, wireOhms(part))];
    case 'pin':
      return [body(part, part.ohms ?? PIN_OHMS)];
    case 'switch':
    case 'timer':
    case 'pressureSwitch':
      return [body(part, part.ohms ?? CONTACT_OHMS)];
    case 'coil':
    case 'resistor':
    case 'lamp':
    case 'heater':
    case 'motor':
      return [
        {
          ...body(part, part.ohms),
          tolerance: part.tolerance ?? LOAD_TOLERANCE,
          ...(part.kind === 'coil' && part.henries ? { henries: part.henries } : {}),
        },
      ];
    case 'diode':
      return [
        {
          role: 'body',
          from: part.nodes.anode,
          to: part.nodes.cathode,
          ohms: DIODE_ON_OHMS,
          emf: -(part.forwardVolts ?? 0.7),
        },
      ];
    case 'driver': {
      const [from, to] =
        part.side === 'low' ? [part.nodes.out, part.nodes.return] : [part.nodes.supply, part.nodes.out];
      return [{ role: 'output', from, to, ohms: part.ohms ?? OUTPUT_OHMS }];
    }
    case 'sensor3': {
      const wiper = `${part.ref}:wiper`;
      const tolerance = part.tolerance ?? LOAD_TOLERANCE;
      return [
        { role: 'upper', from: part.nodes.supply, to: wiper, ohms: part.ohms / 2, tolerance },
        { role: 'lower', from: wiper, to: part.nodes.return, ohms: part.ohms / 2, tolerance },
        { role: 'wiper', from: wiper, to: part.nodes.signal, ohms: Math.max(1, part.ohms / 100) },
      ];
    }
    case 'relay': {
      const { a1, a2 } = part.nodes;
      if (!a1 || !a2) throw new InputError(`${field}.nodes`, 'a relay needs its coil nodes "a1" and "a2"');
      const contactOhms = part.contactOhms ?? CONTACT_OHMS;
      return [
        {
          role: 'body',
          from: a1,
          to: a2,
          ohms: part.ohms,
          tolerance: part.tolerance ?? LOAD_TOLERANCE,
          ...(part.henries ? { henries: part.henries } : {}),
        },
        ...relaySets(part, field).flatMap(({ com, no, nc }, set): BranchSpec[] => [
          ...(no === undefined ? [] : [{ role: 'made' as const, from: com, to: no, ohms: contactOhms, set }]),
          ...(nc === undefined
            ? []
            : [{ role: 'resting' as const, from: com, to: nc, ohms: contactOhms, set }]),
        ]),
      ];
    }
    default:
      return [];
  }
}

function body(part: { nodes: { '1': string; '2': string } }, ohms: number): BranchSpec {
  return { role: 'body', from: part.nodes['1'], to: part.nodes['2'], ohms };
}

/** Contact sets of a relay: `com`/`no`/`nc`, and `com2`/`no2`/`nc2` … for further poles. */
function relaySets(part: PartOf<'relay'>, field: string) {
  const sets = new Map<string, { com?: string; no?: string; nc?: string }>();
  for (const [key, value] of Object.entries(part.nodes)) {
    if (key === 'a1' || key === 'a2') continue;
    const match = /^(com|no|nc)[_.-]?(\d*)$/.exec(key) ?? /^(\d+)[_.-]?(com|no|nc)$/.exec(key);
    if (!match) {
      throw new InputError(
        `${field}.nodes.${key}`,
        'use a1, a2, com, no, nc, and com2, no2, nc2 for more poles',
      );
    }
    const [first = '', second = ''] = [match[1], match[2]];
    const [role, pole] = /^\d/.test(first) ? [second, first] : [first, second];
    const set = sets.get(pole === '1' ? '' : pole) ?? {};
    sets.set(pole === '1' ? '' : pole, { ...set, [role]: value });
  }
  return [...sets].map(([pole, { com, no, nc }]) => {
    if (com === undefined || (no === undefined && nc === undefined)) {
      throw new InputError(
        `${field}.nodes`,
        `contact set ${pole || '1'} needs "com" and one of "no" and "nc"`,
      );
    }
    return { com, no, nc };
  });
}

function wireOhms(part: PartOf<'wire'>): number {
  if (part.ohms !== undefined) return part.ohms;
  const area = part.mm2 ?? (part.awg === undefined ? undefined : gaugeArea(part.awg));
  if (part.lengthMetres === undefined || area === undefined) return WIRE_OHMS;
  return conductorOhms(part.lengthMetres, area);
}

/** Copper resistance at the secondary giving about 10 % regulation at the rated load; a small control unit when unrated. */
export function transformerOhms(part: PartOf<'transformer'>, supplyVolts: number): number {
  const secondary = Math.max(supplyVolts / part.ratio, 1);
  return (0.1 * secondary * secondary) / (part.va ?? 50);
}
