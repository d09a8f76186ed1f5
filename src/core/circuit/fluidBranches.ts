import type { BranchSpec } from './branches';
import { InputError } from './inputError';
import type { Part, PartOf } from './schema';

/** Node that every vent leads to; the zero of gauge pressure. */
export const ATMOSPHERE = 'ATM';

/** Pressure lost per flow when the file gives none, kPa per L/min: linearised at working flow. */
const RESTRICTION = {
  airSupply: 0.05,
  pump: 0.05,
  regulator: 0.05,
  filter: 0.05,
  check: 0.08,
  hose: 0.05,
  throttle: 0.5,
  silencer: 0.05,
  valve: 0.15,
} as const;
const SUPPLY_TOLERANCE = 0.04;
const SET_TOLERANCE = 0.03;
/** A spool that stands mid-way joins all its ways, each this much narrower. */
export const MIDWAY_NARROWER = 3;
/** Resistance of the place where a sound seal would leak: it is open until a fault gives it a path. */
const SEAL = 1;

/** Positions of a valve's spool. */
export const AT_REST = 0;
export const SHIFTED = 1;
export const OTHER_WAY = 2;
export const MIDWAY = 3;

/** Fluid pieces of a part. Throws {@link InputError} for a valve whose ports do not fit its ways. */
export function fluidBranches(part: Part, field: string): BranchSpec[] {
  switch (part.kind) {
    case 'airSupply':
    case 'pump':
      return [
        {
          role: 'body',
          from: part.nodes.out,
          to: ATMOSPHERE,
          ohms: part.restriction ?? RESTRICTION[part.kind],
          emf: -part.kPa,
          emfTolerance: SUPPLY_TOLERANCE,
        },
      ];
    case 'regulator': {
      const ohms = part.restriction ?? RESTRICTION.regulator;
      const { in: from, out: to } = part.nodes;
      return [
        // While it regulates it is a source of its set pressure; what it draws from its inlet is neglected.
        { role: 'body', from: to, to: ATMOSPHERE, ohms, emf: -part.kPa, emfTolerance: SET_TOLERANCE },
        { role: 'wideOpen', from, to, ohms },
      ];
    }
    case 'filter':
    case 'check':
      return [
        {
          role: 'body',
          from: part.nodes.in,
          to: part.nodes.out,
          ohms: part.restriction ?? RESTRICTION[part.kind],
          ...(part.kind === 'check' ? { emf: -(part.crackingKPa ?? 0) } : {}),
        },
      ];
    case 'hose':
    case 'throttle':
      return [
        {
          role: 'body',
          from: part.nodes['1'],
          to: part.nodes['2'],
          ohms: part.restriction ?? RESTRICTION[part.kind],
        },
      ];
    case 'silencer':
      return [
        {
          role: 'vent',
          from: part.nodes.in,
          to: ATMOSPHERE,
          ohms: part.restriction ?? RESTRICTION.silencer,
        },
      ];
    case 'plug':
      return [{ role: 'seal', from: part.nodes.in, to: ATMOSPHERE, ohms: SEAL }];
    case 'cylinder':
      return [{ role: 'seal', from: part.nodes.a, to: part.nodes.b ?? ATMOSPHERE, ohms: SEAL }];
    case 'vacuumActuator':
    case 'pressureSwitch':
      return [{ role: 'seal', from: part.nodes.port, to: ATMOSPHERE, ohms: SEAL }];
    case 'valve':
      return valveWays(part, field);
    default:
      return [];
  }
}

/** Ways of a valve by position (ISO 5599 port numbers); ports 3 and 5 without a node vent by themselves. */
function valveWays(part: PartOf<'valve'>, field: string): BranchSpec[] {
  const ohms = part.restriction ?? RESTRICTION.valve;
  const wanted = { '2/2': ['1', '2'], '3/2': ['1', '2'], '5/2': ['1', '2', '4'], '5/3': ['1', '2', '4'] };
  for (const port of wanted[part.ways]) {
    if (part.nodes[port as '1'] === undefined) {
      throw new InputError(`${field}.nodes`, `a ${part.ways} valve needs a node at port ${port}`);
    }
  }
  const node = (port: '1' | '2' | '3' | '4' | '5') => part.nodes[port] ?? ATMOSPHERE;
  const way = (a: '1' | '2' | '4', b: '2' | '3' | '4' | '5', positions: readonly number[]): BranchSpec => ({
    role: node(b) === ATMOSPHERE ? 'vent' : 'way',
    from: node(a),
    to: node(b),
    ohms,
    positions,
  });
  switch (part.ways) {
    case '2/2':
      return [way('1', '2', [part.atRest === 'open' ? AT_REST : SHIFTED, MIDWAY])];
    case '3/2': {
      const [passing, venting] = part.atRest === 'open' ? [AT_REST, SHIFTED] : [SHIFTED, AT_REST];
      return [way('1', '2', [passing, MIDWAY]), way('2', '3', [venting, MIDWAY])];
    }
    case '5/2':
      return [
        way('1', '2', [AT_REST, MIDWAY]),
        way('1', '4', [SHIFTED, MIDWAY]),
        way('2', '3', [SHIFTED, MIDWAY]),
        way('4', '5', [AT_REST, MIDWAY]),
      ];
    case '5/3': {
      const { centre = 'closed' } = part;
      const feed = centre === 'pressure' ? [AT_REST] : [];
      const drain = centre === 'exhaust' ? [AT_REST] : [];
      return [
        way('1', '2', [OTHER_WAY, MIDWAY, ...feed]),
        way('1', '4', [SHIFTED, MIDWAY, ...feed]),
        way('2', '3', [SHIFTED, MIDWAY, ...drain]),
        way('4', '5', [OTHER_WAY, MIDWAY, ...drain]),
      ];
    }
  }
}
