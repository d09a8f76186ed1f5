import { CircuitModel } from '../src/core/circuit/model';
import type { PartKind } from '../src/core/kinds/part/module';
import { wantedSpare, type SpareRatings } from '../src/core/shed/spares';
import { KIND_NAMES } from '../src/words/en/drawing';
import { loadDemoCircuit, MACHINES } from './shed';

export interface ShelfCard {
  number: string;
  name: string;
  kind: PartKind;
  ratings: SpareRatings;
  fitting: string;
  place: string;
  stock: number;
  minimum: number;
  price: number;
  leadDays: number;
  supplier: string;
}

const KEPT: readonly PartKind[] = [
  'coil',
  'relay',
  'fuse',
  'diode',
  'switch',
  'valve',
  'timer',
  'driver',
  'regulator',
  'hose',
  'pin',
];
const FITTINGS: Partial<Record<PartKind, string>> = {
  coil: '2-pin plug, 13 mm stem',
  relay: 'plug-in base',
  pin: 'female, for 1.5 mm², with seal',
  valve: '1/4 inch ports',
  hose: '8 mm',
  fuse: 'blade',
  switch: 'panel, 22 mm',
};
const NAMES: Partial<Record<PartKind, string>> = {
  coil: 'Valve coil',
  relay: 'Relay',
  fuse: 'Fuse',
  diode: 'Suppressor diode',
  switch: 'Panel contact',
  valve: 'Valve',
  timer: 'Timed relay',
  driver: 'Output module',
  regulator: 'Regulator',
  hose: 'Hose',
  pin: 'Plug pin',
};
const PRICES: Partial<Record<PartKind, number>> = {
  coil: 62,
  relay: 28,
  fuse: 0.8,
  diode: 1.2,
  switch: 19,
  valve: 240,
  driver: 410,
  regulator: 85,
  hose: 12,
  pin: 0.6,
};
const SUPPLIERS = [
  'valley electric counter',
  'hydraulics store, lower town',
  'by parcel from the maker',
] as const;
const FIRST = 4410;

/** Above so many amps contacts stand on studs. */
const PLUG_IN_AMPS = 50;
const CONTACTOR = { name: 'Contactor', fitting: 'studs M8, bracket', price: 95 } as const;

/** The demonstration's shelf: what its machines are made of, by what their own circuits ask for, and a few that only look alike. */
export function demoShelf(): ShelfCard[] {
  const files = new Set(MACHINES.flatMap(({ functions }) => functions.map(({ circuit }) => circuit)));
  const seen = new Map<string, { kind: PartKind; ratings: SpareRatings; uses: number }>();
  for (const file of files) {
    const model = new CircuitModel(loadDemoCircuit(file));
    for (const { part } of model.compiled.parts) {
      const wanted = KEPT.includes(part.kind) ? wantedSpare(model, part.ref) : null;
      if (!wanted) continue;
      const key = JSON.stringify([wanted.kind, wanted.ratings]);
      const known = seen.get(key);
      if (known) known.uses++;
      else seen.set(key, { kind: wanted.kind, ratings: roomy(wanted.ratings), uses: 1 });
    }
  }
  const cards = [...seen.values()].sort(
    (a, b) => KEPT.indexOf(a.kind) - KEPT.indexOf(b.kind) || b.uses - a.uses,
  );
  const alike: typeof cards = [
    { kind: 'coil', ratings: { volts: 24, current: 'DC', ohms: 21 }, uses: 1 },
    { kind: 'coil', ratings: { volts: 12, current: 'DC' }, uses: 1 },
    { kind: 'fuse', ratings: { amps: 30 }, uses: 2 },
  ];
  return [...cards, ...alike].map(({ kind, ratings, uses }, k): ShelfCard => {
    const heavy = kind === 'relay' && (ratings.contactAmps ?? 0) > PLUG_IN_AMPS ? CONTACTOR : null;
    const minimum = kind === 'fuse' || kind === 'pin' ? 10 : uses > 1 ? 2 : 1;
    return {
      number: `OR-${FIRST + 3 * k}`,
      name: heavy?.name ?? NAMES[kind] ?? KIND_NAMES[kind],
      kind,
      ratings,
      fitting: heavy?.fitting ?? FITTINGS[kind] ?? '',
      place: `Rack ${'ABC'[k % 3]}, bin ${1 + (k % 14)}`,
      stock: k % 7 === 3 ? 0 : minimum + (k % 3) - (k % 11 === 5 ? 1 : 0),
      minimum,
      price: heavy?.price ?? PRICES[kind] ?? 30,
      leadDays: 3 + (k % 5) * 4,
      supplier: SUPPLIERS[k % SUPPLIERS.length]!,
    };
  });
}

/** A contact is bought for more than it carries. */
function roomy(ratings: SpareRatings): SpareRatings {
  const { contactAmps } = ratings;
  return contactAmps === undefined
    ? ratings
    : {
        ...ratings,
        contactAmps: [5, 10, 20, 30, 60, 100, 200, 400].find((amps) => amps >= contactAmps) ?? contactAmps,
      };
}
