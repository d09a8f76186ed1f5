import { CircuitModel } from '../../src/core/circuit/model';
import type { Circuit, Part } from '../../src/core/circuit/schema';
import { workingPatterns } from '../../src/core/diagnosis/patterns';
import {
  battery,
  coil,
  contact,
  diode,
  Draft,
  fuse,
  line,
  pin,
  wire,
  type Item,
} from '../../src/core/draw/circuitDraft';
import { seededRandom, type Random } from '../../src/core/random';
import { around, chance, pick, whole } from './byChance';

/** What few of the other circuits put together by chance have: contactor packs, two windings, diodes, outputs of a controller, looms of plugs. */
export const FAMILIES = {
  pack,
  lineContactors,
  twoWindings,
  suppressed,
  controller,
  plugs,
} as const satisfies Record<string, (random: Random, name: string) => Circuit>;
export type Family = keyof typeof FAMILIES;

/** So many circuits of some families, the same ones each time for the same seed. */
export function circuitsOf(families: readonly Family[], count: number, seed: number): Circuit[] {
  const random = seededRandom(seed);
  return Array.from({ length: count }, (_one, k) => {
    const family = families[k % families.length]!;
    const circuit = FAMILIES[family](random, `${family} ${k + 1}`);
    if (workingPatterns(new CircuitModel(circuit)).length === 0)
      throw new Error(`${circuit.name} does nothing`);
    return circuit;
  });
}

const SUPPLIES = [12.4, 12.6, 24.8, 25.4, 48] as const;

/** A plug on the way, or none. */
const perhaps = (random: Random, share: number, ...items: Item[]): Item[] =>
  chance(random, share) ? items : [];

/** Contactors that a battery's heavy loads hang on: one with its load, or four that turn a motor both ways. */
function pack(random: Random, name: string): Circuit {
  const volts = pick(random, SUPPLIES);
  const reversing = chance(random, 0.5);
  const turns = reversing ? 1 : whole(random, 1, 3);
  const draft = new Draft(name)
    .control('pendant', 'off', ...(reversing ? ['out', 'in'] : names('load', turns)))
    .add(battery(volts))
    .run('B+', 'C', fuse('F1', 15), ...perhaps(random, 0.5, pin('X1', 1)), wire('W1', 0.03))
    .run(
      'B+',
      'P',
      { ref: 'F0', kind: 'breaker', amps: around(random, 300), ohms: 0.0006 },
      wire('W4', around(random, 0.0009)),
    );
  const ohms = around(random, volts / 2.2);
  const contactor = (n: number, feed: string, com: string, no: string): Part => ({
    ref: `K${n}`,
    kind: 'relay',
    guards: 'none',
    nodes: { a1: feed, a2: 'GND', com, no },
    ohms,
    pickUpVolts: Number((0.6 * volts).toPrecision(3)),
    dropOutVolts: Number((0.15 * volts).toPrecision(3)),
    contactOhms: 0.0005,
    accessMinutes: 1,
  });
  const command = (n: number, position: string, feed: string) =>
    draft.run(
      'C',
      feed,
      contact(`S${n}`, { pendant: [position] }, 'person'),
      ...perhaps(random, 0.5, pin('X2', n)),
      wire(`W2${n}`, around(random, 0.05)),
    );
  // A winch draws tens to hundreds of amps at work.
  const motor = around(random, volts / 130);
  if (reversing) {
    command(1, 'out', 'C:out');
    command(2, 'in', 'C:in');
    return draft
      .add(contactor(1, 'C:out', 'P', 'M1'))
      .add(contactor(2, 'C:out', 'M2', 'GND'))
      .add(contactor(3, 'C:in', 'P', 'M2'))
      .add(contactor(4, 'C:in', 'M1', 'GND'))
      .run('M1', 'M2', { ref: 'M', kind: 'motor', ohms: motor, tolerance: 0.1 })
      .circuit();
  }
  for (let n = 1; n <= turns; n++) {
    command(n, `load ${n}`, `C:${n}`);
    draft
      .add(contactor(n, `C:${n}`, 'P', `N${n}`))
      .run(
        `N${n}`,
        'GND',
        wire(`W3${n}`, around(random, 0.001)),
        pick(random, [
          { ref: `M${n}`, kind: 'motor', ohms: around(random, volts / 90) } as const,
          { ref: `E${n}`, kind: 'heater', ohms: around(random, volts / 60) } as const,
        ]),
      );
  }
  return draft.circuit();
}

/** Contactors of heaters or pumps on line voltage, each called by a contact of its own. */
function lineContactors(random: Random, name: string): Circuit {
  const volts = pick(random, [120, 230, 240]);
  const count = whole(random, 1, 3);
  const draft = new Draft(name, 'PE').control('call', 'off', ...names('load', count)).add(line(volts));
  draft
    .run('N', 'PE', wire('W9', 0.01))
    .run('L1', 'L', { ref: 'F0', kind: 'breaker', amps: 63 }, wire('W0', around(random, 0.02)))
    .run('L', 'C', fuse('F1', 3), wire('W1', around(random, 0.1)));
  for (let n = 1; n <= count; n++)
    draft
      .run(
        'C',
        `C:${n}`,
        contact(`S${n}`, { call: [`load ${n}`] }, 'none'),
        ...perhaps(random, 0.4, pin(`X${n}`, 1)),
        wire(`W2${n}`, around(random, 0.2)),
      )
      .add({
        ref: `K${n}`,
        kind: 'relay',
        guards: 'none',
        nodes: { a1: `C:${n}`, a2: 'N', com: 'L', no: `N${n}` },
        ohms: around(random, volts * 2.5),
        contactOhms: 0.004,
      })
      .run(`N${n}`, 'N', wire(`W3${n}`, around(random, 0.03)), {
        ref: `E${n}`,
        kind: 'heater',
        ohms: around(random, volts / 14),
      });
  return draft.circuit();
}

/** Solenoids of two windings with a place in common: each winding fed by a contact of its own. */
function twoWindings(random: Random, name: string): Circuit {
  const volts = pick(random, SUPPLIES);
  const count = whole(random, 1, 2);
  const draft = new Draft(name).add(battery(volts));
  draft.run('B+', 'K', fuse('F1', 40), wire('W1', 0.01));
  for (let n = 1; n <= count; n++) {
    const control = `key ${n}`;
    draft.control(control, 'off', 'pull', 'hold');
    const pull = around(random, volts / 14);
    const hold = pull * (5 + 20 * random.next());
    const plugged = chance(random, 0.7);
    const way = (k: number, position: string[], to: string) =>
      draft.run(
        'K',
        to,
        contact(`S${n}${k}`, { [control]: position }, 'none'),
        wire(`W${n}${k}`, around(random, 0.02)),
        ...(plugged ? [pin(`X${n}`, k)] : []),
      );
    way(1, ['pull'], `P${n}`);
    way(2, ['pull', 'hold'], `H${n}`);
    draft
      .run(`P${n}`, `M${n}`, coil(`Y${n}P`, pull))
      .run(`H${n}`, `M${n}`, coil(`Y${n}H`, Number(hold.toPrecision(3))))
      .run(`M${n}`, 'GND', ...(plugged ? [pin(`X${n}`, 3)] : []), wire(`W${n}3`, around(random, 0.02)));
  }
  return draft.circuit();
}

/** Coils with a diode across each, some behind a diode that lets them be fed from two sides. */
function suppressed(random: Random, name: string): Circuit {
  const volts = pick(random, SUPPLIES);
  const count = whole(random, 1, 4);
  const draft = new Draft(name).control('lever', 'rest', ...names('way', count)).add(battery(volts));
  draft.run('B+', 'C', fuse('F1', pick(random, [5, 7.5, 10])), wire('W1', 0.03));
  for (let n = 1; n <= count; n++) {
    const plugged = chance(random, 0.6);
    const feed = plugged ? `X${n}.1:2` : `W${n}1:2`;
    draft
      .run(
        'C',
        'R',
        contact(`S${n}`, { lever: [`way ${n}`] }, 'none'),
        wire(`W${n}1`, around(random, 0.06)),
        ...(plugged ? [pin(`X${n}`, 1)] : []),
        coil(`Y${n}`, around(random, volts / 1.6)),
        ...(plugged ? [pin(`X${n}`, 2)] : []),
        wire(`W${n}2`, around(random, 0.06)),
      )
      .add(diode(`V${n}`, `Y${n}:2`, feed));
  }
  return draft.run('R', 'GND', wire('W9', 0.02)).circuit();
}

/** A controller's outputs, on the high or on the low side, each with its load over a loom. */
function controller(random: Random, name: string): Circuit {
  const volts = pick(random, SUPPLIES);
  const count = whole(random, 2, 8);
  const low = chance(random, 0.3);
  const oneCommand = chance(random, 0.7);
  const draft = new Draft(name).add(battery(volts));
  if (oneCommand) draft.control('program', 'off', ...names('step', count));
  draft.run(
    'B+',
    'S',
    fuse('F1', 20),
    ...perhaps(random, 0.4, pin('X9', 1)),
    wire('W0', around(random, 0.03)),
  );
  for (let n = 1; n <= count; n++) {
    const control = oneCommand ? 'program' : `ask ${n}`;
    if (!oneCommand) draft.control(control, 'off', 'on');
    const plugged = chance(random, 0.5);
    const load = chance(random, 0.8)
      ? coil(`Y${n}`, around(random, volts))
      : ({ ref: `H${n}`, kind: 'lamp', ohms: around(random, volts) } as const);
    const way = [
      wire(`W${n}1`, around(random, 0.1), 'loom'),
      ...(plugged ? [pin(`X${n}`, 1)] : []),
      load,
      ...(plugged ? [pin(`X${n}`, 2)] : []),
      wire(`W${n}2`, around(random, 0.05)),
    ];
    draft.add({
      ref: `A${n}`,
      kind: 'driver',
      nodes: { supply: 'S', out: `A${n}:O`, return: 'GND' },
      onWhen: { [control]: [oneCommand ? `step ${n}` : 'on'] },
      side: low ? 'low' : 'high',
      limitAmps: 5,
    });
    if (low) draft.run('S', `A${n}:O`, ...way.toReversed());
    else draft.run(`A${n}:O`, 'R', ...way);
  }
  return (low ? draft : draft.run('R', 'GND', wire('W9', around(random, 0.02)))).circuit();
}

/** Loads over one plug of many pins, or over one of their own each. */
function plugs(random: Random, name: string): Circuit {
  const volts = pick(random, SUPPLIES);
  const count = whole(random, 1, 5);
  const together = chance(random, 0.5);
  const draft = new Draft(name).control('lever', 'rest', ...names('way', count)).add(battery(volts));
  draft.run('B+', 'C', fuse('F1', 10), ...perhaps(random, 0.5, pin('X8', 1)), wire('W1', 0.04));
  for (let n = 1; n <= count; n++) {
    const [plug, first] = together ? ['X1', 2 * n - 1] : [`X1${n}`, 1];
    draft.run(
      'C',
      'R',
      contact(`S${n}`, { lever: [`way ${n}`] }, 'none'),
      wire(`W${n}1`, around(random, 0.08)),
      pin(plug, first),
      pick(random, [
        coil(`Y${n}`, around(random, volts)),
        { ref: `H${n}`, kind: 'lamp', ohms: around(random, volts) } as const,
      ]),
      pin(plug, first + 1),
      wire(`W${n}2`, around(random, 0.05)),
    );
  }
  return draft.run('R', 'GND', ...perhaps(random, 0.5, pin('X9', 1)), wire('W9', 0.02)).circuit();
}

const names = (what: string, count: number) => Array.from({ length: count }, (_one, k) => `${what} ${k + 1}`);
