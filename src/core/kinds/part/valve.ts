import { InputError } from '../../circuit/inputError';
import type { PartOf } from '../../circuit/partSchema';
import { bridged, leak, worsened, type FaultVariant } from '../../diagnosis/faultTypes';
import { ATMOSPHERE, AT_REST, SHIFTED, OTHER_WAY, MIDWAY, type BranchSpec } from './branch';
import { holdAmps, pullInAmps } from './coil';
import { definePart, nothing, traits } from './module';
import { BLOCKED, LEAK, SEAL_LEAK } from './ranges';

/** Pressure lost per flow when the file gives none, kPa per L/min: linearised at working flow. */
const RESTRICTION = 0.15;

type Ways = PartOf<'valve'>['ways'];
/** Ports that need a node, by ways (ISO 5599 numbers). */
const PORTS: Readonly<Record<Ways, readonly ('1' | '2' | '4')[]>> = {
  '2/2': ['1', '2'],
  '3/2': ['1', '2'],
  '5/2': ['1', '2', '4'],
  '5/3': ['1', '2', '4'],
};

export const valve = definePart<'valve'>()({
  chain: { letter: 'Q', figure: null, words: ['valve'] },
  traits: traits({ fluid: true }),
  accessMinutes: 1,
  odds: {
    stuckAtRest: 0.9,
    stuckShifted: 0.4,
    stuckMidway: 0.3,
    sealLeak: 0.4,
    ventBlocked: 0.3,
    leaking: 0.4,
  },
  branches: waysOf,
  devices: (part, { index }, { compiled }) => [
    {
      kind: 'valve',
      part: index,
      port: compiled.nodeIndex.get(part.nodes['1']!)!,
      pilotKPa: part.pilotKPa ?? 0,
      coils: [part.coil, part.coil2].map((ref) => {
        if (ref === undefined) return null;
        const place = compiled.partIndex.get(ref)!;
        const own = compiled.parts[place]!.part;
        if (own.kind !== 'coil') return null;
        const branch = compiled.parts[place]!.branches[0]!;
        return { place, pullIn: pullInAmps(branch, own), hold: holdAmps(branch, own) };
      }),
      bistable: part.ways === '5/2' && part.coil2 !== undefined,
    },
  ],
  faults: ({ add, part: { index, branches }, body }, { ways, refrigerant }) => {
    const position = (at: number): FaultVariant => ({
      weight: 1,
      edits: () => [{ type: 'position', part: index, position: at }],
    });
    add('stuckAtRest', null, [position(AT_REST)]);
    add('stuckShifted', null, [position(SHIFTED), ...(ways === '5/3' ? [position(OTHER_WAY)] : [])]);
    add('stuckMidway', null, [position(MIDWAY)]);
    add('sealLeak', SEAL_LEAK, branches.map(bridged));
    // Out past its stem, where what it holds is worth more than a hiss.
    if (refrigerant) add('leaking', LEAK, [leak(body, 'a'), leak(body, 'b')]);
    add('ventBlocked', BLOCKED, branches.filter(({ role }) => role === 'vent').map(worsened));
  },
  energy: nothing,
  labelled: {},
  make: ({ common, near, far, ref, given }) => {
    const ways = (given.ways ?? '3/2') as Ways;
    const both = ways.startsWith('5');
    return {
      part: {
        ...common,
        kind: 'valve',
        ways,
        nodes: {
          '1': near,
          ...(both ? { '4': far, '2': `${ref}:2`, '3': `${ref}:3`, '5': `${ref}:5` } : { '2': far }),
          ...(ways === '3/2' ? { '3': `${ref}:3` } : {}),
        },
        coil: given.others[0] ?? '',
        ...(given.others[1] ? { coil2: given.others[1] } : {}),
      },
    };
  },
});

/** Ways of a valve by position; ports 3 and 5 without a node vent by themselves. */
function waysOf(part: PartOf<'valve'>, field: string): BranchSpec[] {
  const ohms = part.restriction ?? RESTRICTION;
  for (const port of PORTS[part.ways]) {
    if (part.nodes[port] === undefined) {
      throw new InputError(`${field}.nodes`, `a ${part.ways} valve needs a node at port ${port}`);
    }
  }
  const node = (port: '1' | '2' | '3' | '4' | '5') => part.nodes[port] ?? ATMOSPHERE;
  const way = (a: '1' | '2' | '4', b: '2' | '3' | '4' | '5', positions: readonly number[]): BranchSpec => ({
    role: node(b) === ATMOSPHERE ? 'vent' : 'way',
    fluid: true,
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
