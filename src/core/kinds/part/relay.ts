import type { Edit } from '../../circuit/edits';
import { InputError } from '../../circuit/inputError';
import type { PartOf } from '../../circuit/partSchema';
import { broken, forced, worsened } from '../../diagnosis/faultTypes';
import { LOAD_TOLERANCE, CONTACT_OHMS, type BranchSpec } from './branch';
import { openGap } from './coil';
import { definePart, nothing, round, traits } from './module';

/** Thresholds against the highest supply when the file gives none (common range, see reference section 10). */
const PICK_UP_SHARE = 0.6;
const DROP_OUT_SHARE = 0.15;

export const relay = definePart<'relay'>()({
  chain: { letter: 'K', figure: 'ohms', words: ['relay coil', 'contactor', 'relay'] },
  traits: traits({ contact: true, carries: true, draws: true, falls: true, ohmic: true }),
  accessMinutes: 1,
  odds: {
    open: 0.6,
    shortedTurns: 0.2,
    stuckOpen: 0.6,
    welded: 0.4,
    highResistance: 0.6,
    jammed: 0.2,
    wrongTerminal: 0.06,
  },
  branches: (part, field) => {
    const { a1, a2 } = part.nodes;
    if (!a1 || !a2) throw new InputError(`${field}.nodes`, 'a relay needs its coil nodes "a1" and "a2"');
    const ohms = part.contactOhms ?? CONTACT_OHMS;
    return [
      {
        role: 'body',
        from: a1,
        to: a2,
        ohms: part.ohms,
        tolerance: part.tolerance ?? LOAD_TOLERANCE,
        winding: part,
      },
      ...contactSets(part, field).flatMap(({ com, no, nc }, set): BranchSpec[] => [
        ...(no === undefined ? [] : [{ role: 'made' as const, from: com, to: no, ohms, set }]),
        ...(nc === undefined ? [] : [{ role: 'resting' as const, from: com, to: nc, ohms, set }]),
      ]),
    ];
  },
  devices: ({ pickUpVolts, dropOutVolts }, { branches, index }, { compiled: { supplyVolts } }) => [
    {
      kind: 'relay',
      coil: branches[0]!.index,
      pickUp: pickUpVolts ?? PICK_UP_SHARE * supplyVolts,
      dropOut: dropOutVolts ?? DROP_OUT_SHARE * supplyVolts,
      part: index,
    },
  ],
  faults: ({ add, part, body: own, turns, series }, { inrushAmps }) => {
    const made = part.branches.filter(({ role }) => role === 'made');
    const resting = part.branches.filter(({ role }) => role === 'resting');
    const contacts = [...made, ...resting];
    add('open', null, [broken(own)]);
    add('shortedTurns', turns(own), [worsened(own)]);
    add('stuckOpen', null, [
      ...made.map((branch) => ({ ...forced(branch, false), weight: 2 })),
      ...resting.map((branch) => forced(branch, false)),
    ]);
    add(
      'welded',
      null,
      made.map((branch) => {
        const twin = resting.find(({ set }) => set === branch.set);
        return {
          weight: 1,
          edits: () => [
            ...(twin ? [{ type: 'force' as const, branch: twin.index, on: false }] : []),
            { type: 'force', branch: branch.index, on: true },
          ],
        };
      }),
    );
    // An armature that does not close leaves all its contacts as they rest.
    add('jammed', null, [
      {
        weight: 1,
        edits: () => [
          ...openGap(own, inrushAmps),
          { type: 'jam', part: part.index },
          ...made.map(({ index }) => ({ type: 'force' as const, branch: index, on: false })),
          ...resting.map(({ index }) => ({ type: 'force' as const, branch: index, on: true })),
        ],
      },
    ]);
    // What belongs on the one contact of a pole hangs on the other.
    const turned = made.flatMap((branch) => {
      const twin = resting.find(({ set }) => set === branch.set);
      if (!twin) return [];
      const pair = [
        { branch: branch.index, end: 'b' },
        { branch: twin.index, end: 'b' },
      ] as const;
      return [{ weight: 1, edits: (): Edit[] => [{ type: 'cross', pairs: [pair] }] }];
    });
    add('wrongTerminal', null, turned);
    if (contacts[0]) add('highResistance', series(contacts[0]), contacts.map(worsened));
  },
  energy: nothing,
  labelled: { ohms: { saidBy: ['ohms', 'watts'] } },
  make: ({ common, near, far, ohms, volts }) => ({
    part: {
      ...common,
      kind: 'relay',
      nodes: { a1: near, a2: far },
      ohms: ohms(round(volts / 0.15)),
      pickUpVolts: round(PICK_UP_SHARE * volts),
      dropOutVolts: round(DROP_OUT_SHARE * volts),
    },
  }),
});

/** Contact sets of a relay: `com`/`no`/`nc`, and `com2`/`no2`/`nc2` … for further poles. */
function contactSets(part: PartOf<'relay'>, field: string) {
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
