import { codesFor } from '../draw/newPart';
import type { Circuit } from '../circuit/schema';
import { battery, coil, contact, diode, Draft, fuse, pin, wire } from '../draw/circuitDraft';

/** One coil behind a fuse and a switch, returned to the frame. */
export function singleCoil({ volts = 12.6, ohms = 9, amps = 5 } = {}): Circuit {
  return new Draft('Single coil')
    .control('key', 'off', 'on')
    .add(battery(volts))
    .run(
      'B+',
      'GND',
      fuse('F1', amps),
      wire('W1'),
      contact('S1', { key: ['on'] }, 'none'),
      wire('W2', 0.06),
      pin('X1', 1),
      coil('Y1', ohms),
      pin('X1', 2),
      wire('W3'),
    )
    .circuit();
}

/** A lever that feeds one of two coils, each with a suppression diode, sharing fuse and return. */
export function twoWayPair({ volts = 12.6, ohms = 7.4, amps = 7.5 } = {}): Circuit {
  const draft = new Draft('Two-way valve pair')
    .control('lever', 'rest', 'forward', 'reverse')
    .add(battery(volts));
  draft.run('B+', 'C', fuse('F1', amps), wire('W1'));
  for (const [n, position] of [
    [1, 'forward'],
    [2, 'reverse'],
  ] as const) {
    draft
      .run(
        'C',
        'R',
        contact(`S${n}`, { lever: [position] }, 'none'),
        wire(`W${n}1`, 0.05, 'loom'),
        pin(`X${n}`, 1),
        coil(`Y${n}`, ohms),
        pin(`X${n}`, 2),
        wire(`W${n}2`, 0.05),
      )
      .add(diode(`V${n}`, `Y${n}:2`, `X${n}.1:2`));
  }
  return draft.run('R', 'GND', wire('W9', 0.02)).circuit();
}

/** Stop and run solenoid: a strong winding for seconds, a weak one while the seat is made. */
export function stopSolenoid({ volts = 12.6, pullOhms = 0.9, holdOhms = 16 } = {}): Circuit {
  return new Draft('Stop solenoid with seat interlock')
    .control('key', 'off', 'on')
    .control('seat', 'up', 'down')
    .add(battery(volts))
    .run('B+', 'K', fuse('F1', 25), wire('W1', 0.02), contact('S1', { key: ['on'] }, 'none'))
    .run(
      'K',
      'X:H',
      contact('S2', { seat: ['down'] }, 'person', { label: 'Seat switch' }),
      wire('W2', 0.05),
      pin('X1', 2),
    )
    .run(
      'K',
      'X:P',
      { ref: 'K1', kind: 'timer', guards: 'none', closedWhen: { key: ['on'] }, seconds: 3 },
      wire('W3', 0.03),
      pin('X1', 1),
    )
    .run('X:P', 'M', coil('Y1P', pullOhms))
    .run('X:H', 'M', coil('Y1H', holdOhms))
    .run('M', 'GND', pin('X1', 3), wire('W4', 0.02))
    .circuit();
}

/** A controller output that feeds a coil from the supply side and reports what it sees. */
export function driverHighSide({ volts = 25.2, ohms = 24, limit = 3 } = {}): Circuit {
  return new Draft('Controller output, high side')
    .control('command', 'off', 'on')
    .add(battery(volts))
    .run('B+', 'S', fuse('F1', 10), wire('W1', 0.03))
    .add({
      ref: 'A1',
      kind: 'driver',
      nodes: { supply: 'S', out: 'A1:O', return: 'GND' },
      onWhen: { command: ['on'] },
      side: 'high',
      limitAmps: limit,
      codes: codesFor(volts / ohms),
    })
    .run(
      'A1:O',
      'GND',
      pin('X10', 4),
      wire('W2', 0.1),
      pin('X1', 1),
      coil('Y1', ohms),
      pin('X1', 2),
      wire('W3', 0.05),
    )
    .circuit();
}

/** The same with the controller in the return. */
export function driverLowSide({ volts = 12.6, ohms = 6.5 } = {}): Circuit {
  return new Draft('Controller output, low side')
    .control('command', 'off', 'on')
    .add(battery(volts))
    .run(
      'B+',
      'A1:O',
      fuse('F1', 7.5),
      wire('W1', 0.05),
      pin('X1', 1),
      coil('Y1', ohms),
      pin('X1', 2),
      wire('W2', 0.1),
      pin('X10', 7),
    )
    .add({
      ref: 'A1',
      kind: 'driver',
      nodes: { supply: 'B+', out: 'A1:O', return: 'GND' },
      onWhen: { command: ['on'] },
      side: 'low',
      limitAmps: 5,
      codes: codesFor(volts / ohms),
    })
    .circuit();
}

/** Two alike coils on two outputs of one controller: a neighbour to compare and swap with. */
export function twinOutputs({ volts = 25.2, ohms = 21 } = {}): Circuit {
  const draft = new Draft('Two outputs with alike valves')
    .control('command', 'off', 'a', 'b')
    .add(battery(volts));
  draft.run('B+', 'S', fuse('F1', 10), wire('W0', 0.03));
  for (const [n, position] of [
    [1, 'a'],
    [2, 'b'],
  ] as const) {
    draft
      .add({
        ref: `A${n}`,
        kind: 'driver',
        nodes: { supply: 'S', out: `A${n}:O`, return: 'GND' },
        onWhen: { command: [position] },
        side: 'high',
        limitAmps: 4,
        codes: { '5': { belowAmps: 0.2 }, '6': { aboveAmps: 2 } },
      })
      .run(
        `A${n}:O`,
        'R',
        wire(`W${n}1`, 0.1, 'loom'),
        pin(`X${n}`, 1),
        coil(`Y${n}`, ohms),
        pin(`X${n}`, 2),
        wire(`W${n}2`, 0.05),
      );
  }
  return draft.run('R', 'GND', wire('W9', 0.02)).circuit();
}

/** Proportional pilot: a setting resistor in series with the coil of a pilot valve. */
export function proportionalPilot({ volts = 12.6, ohms = 5.3 } = {}): Circuit {
  return new Draft('Proportional pilot valve')
    .control('thumb', 'rest', 'half', 'full')
    .add(battery(volts))
    .run('B+', 'C', fuse('F1', 5), wire('W1'))
    .run('C', 'P', contact('S1', { thumb: ['half'] }, 'none'), { ref: 'R1', kind: 'resistor', ohms: 4.7 })
    .run('C', 'P', contact('S2', { thumb: ['full'] }, 'none'))
    .run(
      'P',
      'GND',
      wire('W2', 0.08),
      pin('X1', 1),
      coil('Y1', ohms, { pullInAmps: 0.9 }),
      pin('X1', 2),
      wire('W3'),
    )
    .circuit();
}

/** Two contactors for each direction of a winch motor. */
export function winchPack({ volts = 12.4, motorOhms = 0.09 } = {}): Circuit {
  const draft = new Draft('Winch contactor pack').control('pendant', 'off', 'out', 'in').add(battery(volts));
  draft.run('B+', 'C', fuse('F1', 15), wire('W1'));
  const contactor = (n: number, com: string, no: string) =>
    draft.add({
      ref: `K${n}`,
      kind: 'relay',
      guards: 'none',
      nodes: { a1: n < 3 ? 'C:out' : 'C:in', a2: 'GND', com, no },
      ohms: 6,
      pickUpVolts: 7.5,
      dropOutVolts: 2,
      contactOhms: 0.0006,
      accessMinutes: 1,
    });
  draft
    .run('C', 'C:out', contact('S1', { pendant: ['out'] }, 'person'), wire('W2', 0.05))
    .run('C', 'C:in', contact('S2', { pendant: ['in'] }, 'person'), wire('W3', 0.05))
    .run('B+', 'P', { ref: 'F0', kind: 'breaker', amps: 200, ohms: 0.0008 }, wire('W4', 0.001));
  contactor(1, 'P', 'M1');
  contactor(2, 'M2', 'GND');
  contactor(3, 'P', 'M2');
  contactor(4, 'M1', 'GND');
  return draft.run('M1', 'M2', { ref: 'M', kind: 'motor', ohms: motorOhms, tolerance: 0.1 }).circuit();
}

/** Plug-in change-over relay that feeds one lamp at rest and the other when called. */
export function changeOverRelay({ volts = 12.6, ohms = 85 } = {}): Circuit {
  return new Draft('Change-over relay')
    .control('switch', 'off', 'on')
    .add(battery(volts))
    .run('B+', '30', fuse('F1', 10), wire('W1'))
    .run('B+', '86', fuse('F2', 3), contact('S1', { switch: ['on'] }, 'none'), wire('W2', 0.1))
    .add({
      ref: 'K1',
      kind: 'relay',
      guards: 'none',
      nodes: { a1: '86', a2: '85', com: '30', no: '87', nc: '87a' },
      ohms,
      pickUpVolts: 7.5,
      dropOutVolts: 1.5,
      accessMinutes: 0.8,
    })
    .run('85', 'GND', wire('W3'))
    .run('87', 'GND', wire('W4', 0.06), { ref: 'H1', kind: 'lamp', ohms: 6 })
    .run('87a', 'GND', wire('W5', 0.06), { ref: 'H2', kind: 'lamp', ohms: 6 })
    .circuit();
}

/** Several outputs of a controller with a master feed that all of them need. */
export function multiOutput({ volts = 24.5, ohms = 30, outputs = 4 } = {}): Circuit {
  const names = Array.from({ length: outputs }, (_one, k) => `zone ${k + 1}`);
  const draft = new Draft('Outputs with a master valve')
    .control('program', 'off', ...names)
    .add(battery(volts, 'G1', 'S+', 'GND'));
  draft.run('S+', 'S', fuse('F1', 3), wire('W0', 0.05));
  draft.run(
    'S',
    'C:M',
    contact('Q0', { program: names }, 'none', { label: 'Master output', electronic: true }),
    wire('W01', 0.2, 'field'),
    coil('Y0', ohms),
  );
  names.forEach((zone, k) => {
    draft.run(
      'S',
      'C:M',
      contact(`Q${k + 1}`, { program: [zone] }, 'none', { label: `Output ${k + 1}`, electronic: true }),
      wire(`W${k + 1}1`, 0.3, 'field'),
      coil(`Y${k + 1}`, ohms),
    );
  });
  return draft.run('C:M', 'GND', wire('W9', 0.1)).circuit();
}

/** Three-wire position sensor on a 5 V reference, with its input's pull-down. */
export function threeWireSensor({ ohms = 4700 } = {}): Circuit {
  return new Draft('Three-wire position sensor')
    .control('rod', 'in', 'middle', 'out')
    .add(battery(5, 'G5', 'REF', 'GND'))
    .run('REF', 'A', wire('W1', 0.3), pin('X1', 1))
    .add({
      ref: 'B1',
      kind: 'sensor3',
      nodes: { supply: 'A', signal: 'SIG', return: 'Z' },
      ohms,
      control: 'rod',
      accessMinutes: 1.2,
    })
    .run('SIG', 'IN', pin('X1', 2), wire('W2', 0.3))
    .run('IN', 'GND', { ref: 'R1', kind: 'resistor', ohms: 220_000, accessMinutes: 6, wear: 0.2 })
    .run('Z', 'GND', pin('X1', 3), wire('W3', 0.3))
    .circuit();
}

/** Heaters on a selector: one, the other, both. */
export function heaterSelector({ volts = 12.6, ohms = 0.9 } = {}): Circuit {
  const draft = new Draft('Heaters with selector')
    .control('selector', 'off', 'low', 'high')
    .add(battery(volts));
  return draft
    .run('B+', 'C', fuse('F1', 40), wire('W1', 0.005))
    .run('C', 'GND', contact('S1', { selector: ['low', 'high'] }, 'none'), wire('W2', 0.01), {
      ref: 'E1',
      kind: 'heater',
      ohms,
    })
    .run('C', 'GND', contact('S2', { selector: ['high'] }, 'none'), wire('W3', 0.01), {
      ref: 'E2',
      kind: 'heater',
      ohms,
    })
    .circuit();
}

/** Brake that is spring-applied and released by a coil: the load hangs on it. */
export function brakeRelease({ volts = 25.2, ohms = 18 } = {}): Circuit {
  return new Draft('Brake release')
    .control('drive', 'stopped', 'running')
    .control('guard', 'open', 'closed')
    .add(battery(volts))
    .run(
      'B+',
      'GND',
      fuse('F1', 5),
      contact('S1', { guard: ['closed'] }, 'person', { label: 'Guard switch' }),
      wire('W1'),
      contact('S2', { drive: ['running'] }, 'none'),
      wire('W2', 0.08),
      pin('X1', 1),
      coil('Y1', ohms, { freesLoad: true }),
      pin('X1', 2),
      wire('W3'),
    )
    .add(diode('V1', 'Y1:2', 'X1.1:2'))
    .circuit();
}

/** Clutch of a power take-off behind three interlocks. */
export function clutchInterlocks({ volts = 12.6, ohms = 3.2 } = {}): Circuit {
  return new Draft('Clutch with interlocks')
    .control('clutch', 'off', 'on')
    .control('seat', 'up', 'down')
    .control('brake', 'released', 'pressed')
    .add(battery(volts))
    .run(
      'B+',
      'GND',
      fuse('F1', 10),
      wire('W1'),
      contact('S1', { clutch: ['on'] }, 'none'),
      wire('W2'),
      contact('S2', { seat: ['down'] }, 'person'),
      wire('W3', 0.05),
      contact('S3', { brake: ['pressed'] }, 'person'),
      wire('W4', 0.08),
      pin('X1', 1),
      coil('Y1', ohms),
      wire('W5'),
    )
    .circuit();
}

/** Start and stop buttons over a relay that holds itself. */
export function selfHolding({ volts = 24.5, ohms = 160 } = {}): Circuit {
  return new Draft('Self-holding relay')
    .control('stop', 'free', 'pressed')
    .control('start', 'free', 'pressed')
    .add(battery(volts))
    .run('B+', 'A', fuse('F1', 4), wire('W1'), contact('S1', { stop: ['free'] }, 'person'), wire('W2'))
    .run('A', 'H', contact('S2', { start: ['pressed'] }, 'none'), wire('W3'))
    .add({
      ref: 'K1',
      kind: 'relay',
      guards: 'none',
      nodes: { a1: 'H', a2: 'GND', com: 'A', no: 'H', com2: 'A', no2: 'O' },
      ohms,
      pickUpVolts: 16,
      dropOutVolts: 4,
    })
    .run('O', 'GND', wire('W4', 0.1), pin('X1', 1), coil('Y1', 38), pin('X1', 2), wire('W5'))
    .circuit();
}
