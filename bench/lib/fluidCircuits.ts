import { battery, coil, contact, Draft, fuse, pin, wire } from '../../src/core/draw/circuitDraft';
import { CircuitModel } from '../../src/core/circuit/model';
import type { Circuit } from '../../src/core/circuit/schema';
import { workingPatterns } from '../../src/core/diagnosis/patterns';
import { seededRandom, type Random } from '../../src/core/random';
import { around as near, chance, pick } from './byChance';

/** Air, oil and vacuum put together by chance out of what such machines are made of. */
const COUNT = 24;
const SEED = 20261128;

const around = (random: Random, value: number) => near(random, value, 0.25);

/** The same circuits each time for the same seed, by name; 24 of them where nobody says. */
export function fluidCircuits(count = COUNT, seed = SEED): [string, Circuit][] {
  const random = seededRandom(seed);
  return Array.from({ length: count }, (_one, k): [string, Circuit] => {
    const medium = k % 6 === 4 ? 'vacuum' : k % 6 === 5 ? 'oil' : 'air';
    const circuit = fluidCircuit(random, `Fluid ${k + 1}`, medium, k % 12 === 5);
    if (workingPatterns(new CircuitModel(circuit)).every(({ driven }) => driven.length === 0))
      throw new Error(`fluid circuit ${k + 1} moves nothing`);
    return [`fluid-${k + 1}-${medium}`, circuit];
  });
}

function fluidCircuit(
  random: Random,
  name: string,
  medium: 'air' | 'oil' | 'vacuum',
  relieved: boolean,
): Circuit {
  const volts = pick(random, [12.6, 24.4, 25.2]);
  const draft = new Draft(name).add(battery(volts)).run('B+', 'C', fuse('F1', 10), wire('W1', 0.05));
  supply(random, draft, medium, relieved);
  const functions = medium === 'air' ? 1 + Math.floor(2 * random.next()) : 1;
  for (let k = 1; k <= functions; k++) {
    if (medium === 'vacuum') vacuumFunction(random, draft, k, volts);
    else if (medium === 'oil') oilFunction(random, draft, k, volts);
    else airFunction(random, draft, k, volts);
  }
  return draft.circuit();
}

/** What feeds the valves, up to node P. */
function supply(random: Random, draft: Draft, medium: 'air' | 'oil' | 'vacuum', relieved: boolean): void {
  if (medium === 'oil') {
    const kPa = around(random, 15_000);
    draft.add({
      ref: 'P0',
      kind: 'pump',
      nodes: { out: 'P' },
      kPa,
      restriction: 10,
      how: 'Pump off, let down',
    });
    // Every pump has one; on the drawing it stands where somebody drew it.
    if (relieved) draft.add({ ref: 'RV0', kind: 'relief', nodes: { in: 'P' }, kPa: Math.round(1.1 * kPa) });
    return;
  }
  const kPa = medium === 'vacuum' ? -around(random, 70) : around(random, 750);
  draft.add({ ref: 'P0', kind: 'airSupply', nodes: { out: 'P0' }, kPa, how: 'Shut and vented' });
  if (medium === 'vacuum') draft.run('P0', 'P', { ref: 'H0', kind: 'hose' });
  else
    draft.run(
      'P0',
      'P',
      ...(chance(random, 0.6) ? [{ ref: 'Z1', kind: 'filter' } as const] : []),
      { ref: 'Z2', kind: 'regulator', kPa: around(random, 550) },
      { ref: 'H0', kind: 'hose' },
    );
}

/** A coil behind a switch or an output, in one position of a control. */
function coilRun(random: Random, draft: Draft, ref: string, control: [string, string], volts: number): void {
  const ohms = around(random, volts * 1.6);
  const name = ref.slice(1);
  const plug = chance(random, 0.7);
  const run = [
    wire(`W${name}`, 0.1),
    ...(plug ? [pin(`X${name}`, 1)] : []),
    coil(ref, ohms),
    ...(plug ? [pin(`X${name}`, 2)] : []),
  ];
  if (chance(random, 0.5))
    draft.run('C', 'GND', contact(`S${name}`, { [control[0]]: [control[1]] }, 'none'), ...run);
  else {
    const out = `A${name}:O`;
    draft
      .add({
        ref: `A${name}`,
        kind: 'driver',
        nodes: { supply: 'C', out, return: 'GND' },
        onWhen: { [control[0]]: [control[1]] },
        side: 'high',
      })
      .run(out, 'GND', ...run);
  }
}

function airFunction(random: Random, draft: Draft, k: number, volts: number): void {
  const ways = pick(random, ['3/2', '5/2', '5/2', '5/3'] as const);
  const control = `lever ${k}`;
  const q = `Q${k}`;
  draft.control(control, ...(ways === '5/3' ? ['rest', 'out', 'in'] : ['rest', 'out']));
  coilRun(random, draft, `Y${k}1`, [control, 'out'], volts);
  const hose = (n: string) => ({ ref: `H${k}${n}`, kind: 'hose' }) as const;
  if (ways === '3/2') {
    draft
      .add({ ref: q, kind: 'valve', ways, nodes: { '1': 'P', '2': `${q}:2` }, coil: `Y${k}1` })
      .run(`${q}:2`, `C${k}:A`, hose('2'))
      .add({ ref: `C${k}`, kind: 'cylinder', nodes: { a: `C${k}:A` }, springKPa: around(random, 110) });
    return;
  }
  const two = ways === '5/3';
  if (two) coilRun(random, draft, `Y${k}2`, [control, 'in'], volts);
  const silenced = chance(random, 0.5);
  draft.add({
    ref: q,
    kind: 'valve',
    ways,
    nodes: {
      '1': 'P',
      '2': `${q}:2`,
      '4': `${q}:4`,
      ...(silenced ? { '3': `${q}:3`, '5': `${q}:5` } : {}),
    },
    coil: `Y${k}1`,
    ...(two ? { coil2: `Y${k}2` } : {}),
    ...(chance(random, 0.6) ? { pilotKPa: 220 } : {}),
  });
  if (silenced)
    draft
      .add({ ref: `U${k}3`, kind: 'silencer', nodes: { in: `${q}:3` } })
      .add({ ref: `U${k}5`, kind: 'silencer', nodes: { in: `${q}:5` } });
  const throttle = (n: string) =>
    chance(random, 0.4) ? [{ ref: `R${k}${n}`, kind: 'throttle' } as const] : [];
  draft
    .run(`${q}:4`, `C${k}:A`, ...throttle('4'), hose('4'))
    .run(`${q}:2`, `C${k}:B`, ...throttle('2'), hose('2'))
    .add({ ref: `C${k}`, kind: 'cylinder', nodes: { a: `C${k}:A`, b: `C${k}:B` }, areaRatio: 0.84 });
}

function vacuumFunction(random: Random, draft: Draft, k: number, volts: number): void {
  draft.control('command', 'rest', 'on');
  coilRun(random, draft, `Y${k}1`, ['command', 'on'], volts);
  draft
    .add({
      ref: `Q${k}`,
      kind: 'valve',
      ways: '3/2',
      nodes: { '1': 'P', '2': 'V2', '3': 'V3' },
      coil: `Y${k}1`,
    })
    .add({ ref: 'Z1', kind: 'silencer', nodes: { in: 'V3' } })
    .run('V2', 'V4', { ref: 'H2', kind: 'hose' })
    .add({ ref: 'U1', kind: 'vacuumActuator', nodes: { port: 'V4' }, pullKPa: around(random, 38) });
}

function oilFunction(random: Random, draft: Draft, k: number, volts: number): void {
  draft.control('lever', 'rest', 'lift');
  coilRun(random, draft, `Y${k}1`, ['lever', 'lift'], volts);
  draft
    .add({
      ref: `Q${k}`,
      kind: 'valve',
      ways: '3/2',
      nodes: { '1': 'P', '2': `Q${k}:2` },
      coil: `Y${k}1`,
      pilotKPa: 2500,
      restriction: 20,
    })
    .run(`Q${k}:2`, `C${k}:A`, { ref: `H${k}`, kind: 'hose', restriction: 5 })
    .add({ ref: `C${k}`, kind: 'cylinder', nodes: { a: `C${k}:A` }, springKPa: 3000, frictionKPa: 1500 });
}
