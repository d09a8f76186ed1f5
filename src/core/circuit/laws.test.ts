import { demoCircuits } from '@/testing/demoCircuits';
import { listFaults } from '../diagnosis/faults';
import { workingPatterns } from '../diagnosis/patterns';
import { seededRandom } from '../random';
import { TEMPLATES } from '../templates/templates';
import { CircuitModel } from './model';
import { branchAmps, branchVolts, conductance, type World } from './world';

/** What every solved circuit obeys, whatever is drawn and whatever is broken in it. */
const CIRCUITS: [string, () => CircuitModel][] = [
  ...demoCircuits().map(({ name, circuit }): [string, () => CircuitModel] => [
    name,
    () => new CircuitModel(circuit),
  ]),
  ...TEMPLATES.map(({ id, build }): [string, () => CircuitModel] => [id, () => new CircuitModel(build())]),
];
/** Circuits whose currents all have a sign: no alternating supply. */
const DIRECT = CIRCUITS.filter(([, load]) => !load().compiled.alternating.some((one) => one === 1));
const WORLDS_EACH = 10;

/** Worlds of a circuit: its working positions, sound and with faults taken at random. */
function worldsOf(model: CircuitModel, seed: number): World[] {
  const random = seededRandom(seed);
  const faults = listFaults(model);
  const patterns = workingPatterns(model);
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random.next() * list.length)]!;
  return [
    ...patterns.map(({ setup }) => model.situation(setup).solve({ mode: 'live' })),
    ...Array.from({ length: WORLDS_EACH }, () => {
      const fault = pick(faults);
      const variant = pick(fault.variants);
      const { severity } = fault;
      const size = severity
        ? Math.exp(
            Math.log(severity.mainLeast) + random.next() * Math.log(severity.mainMost / severity.mainLeast),
          )
        : 1;
      return model.situation(pick(patterns).setup).solve({ mode: 'live' }, variant.edits(size));
    }),
  ];
}

/** Current that leaves each node through what is drawn, amperes (L/min on the fluid side). */
function sums(world: World): { sum: Float64Array; size: Float64Array } {
  const { compiled, a, b, nodeCount, jumpers } = world.situation;
  const [sum, size] = [new Float64Array(nodeCount), new Float64Array(nodeCount)];
  const add = (from: number, to: number, amps: number) => {
    sum[from]! += amps;
    sum[to]! -= amps;
    size[from]! += Math.abs(amps);
    size[to]! += Math.abs(amps);
  };
  for (const { index } of compiled.branches) {
    if (conductance(world, index) > 0) add(a[index]!, b[index]!, branchAmps(world, index));
  }
  for (const { a: from, b: to, ohms } of jumpers)
    if (world.changed.joined(from, to)) add(from, to, world.changed.pairVolts(from, to) / ohms);
  return { sum, size };
}

describe.each(DIRECT)('%s', (_name, load) => {
  const model = load();
  const { compiled } = model;

  it('lets no current appear or vanish at a node that only its parts touch', () => {
    // A transformer's windings and a fault to the frame are currents of their own; the frame takes those.
    const windings = new Set(
      compiled.transformers.flatMap(({ primary, secondary }) => [...primary, ...secondary]),
    );
    let looked = 0;
    for (const { setup } of workingPatterns(model)) {
      const world = model.situation(setup).solve({ mode: 'live' });
      const { sum, size } = sums(world);
      compiled.nodeNames.forEach((_node, node) => {
        if (windings.has(node) || node === compiled.frame || node === compiled.atmosphere) return;
        looked++;
        expect(Math.abs(sum[node]!)).toBeLessThan(1e-9 + 1e-6 * size[node]!);
      });
    }
    expect(looked).toBeGreaterThan(0);
  });

  it('takes from its supplies what its parts turn into heat', () => {
    for (const { setup } of workingPatterns(model)) {
      const world = model.situation(setup).solve({ mode: 'live' });
      let [given, taken] = [0, 0];
      for (const { index, domain } of compiled.branches) {
        const siemens = conductance(world, index);
        if (domain !== 'electrical' || siemens === 0) continue;
        const amps = branchAmps(world, index);
        given += world.edges[index]!.emf * amps;
        taken += (amps * amps) / siemens;
      }
      if (compiled.transformers.length === 0)
        expect(Math.abs(given - taken)).toBeLessThan(1e-6 + 1e-5 * taken);
    }
  });

  it('has no volts above all its supplies together, broken or not', () => {
    const most = compiled.circuit.parts.reduce(
      (all, part) => all + (part.kind === 'source' ? Math.abs(part.volts) : part.kind === 'diode' ? 1 : 0),
      0.1,
    );
    if (compiled.transformers.length > 0) return;
    for (const world of worldsOf(model, 23))
      for (const { index, domain } of compiled.branches)
        if (domain === 'electrical') expect(Math.abs(branchVolts(world, index))).toBeLessThan(most);
  });

  it('reads the same ohms whichever lead is red, where no diode decides', () => {
    if (compiled.circuit.parts.some(({ kind }) => kind === 'diode')) return;
    const off = {
      isolated: compiled.circuit.parts.filter(({ kind }) => kind === 'source').map(({ ref }) => ref),
    };
    const world = model.situation(off).solve({ mode: 'ohms' });
    const random = seededRandom(5);
    const electrical = compiled.domains.flatMap((domain, node) => (domain === 'electrical' ? [node] : []));
    for (let round = 0; round < 30; round++) {
      const [i, j] = [0, 0].map(() => electrical[Math.floor(random.next() * electrical.length)]!) as [
        number,
        number,
      ];
      const [one, other] = [world.changed.pairOhms(i, j), world.changed.pairOhms(j, i)];
      if (Number.isFinite(one)) expect(Math.abs(one - other)).toBeLessThan(1e-9 * (1 + one));
      else expect(other).toBe(one);
    }
  });
});
