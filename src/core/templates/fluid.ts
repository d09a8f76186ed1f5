import { significant } from '../units/significant';
import type { Circuit } from '../circuit/schema';
import { battery, coil, contact, Draft, fuse, line, pin, wire } from '../draw/circuitDraft';

const SHUT = 'Shut-off valve closed, locked and vented';

/** Air preparation up to node P. */
function airTo(draft: Draft, kPa = 700, set = 600): Draft {
  return draft
    .add({
      ref: 'P0',
      kind: 'airSupply',
      label: 'Air main',
      nodes: { out: 'P0' },
      kPa,
      how: SHUT,
      accessMinutes: 0.3,
    })
    .run(
      'P0',
      'P',
      { ref: 'Z1', kind: 'filter', accessMinutes: 0.5 },
      { ref: 'Z2', kind: 'regulator', kPa: set, accessMinutes: 0.3 },
      { ref: 'H1', kind: 'hose' },
    );
}

/** Clamp on a 5/2 valve with pilot, commanded by a controller output: electricity, air and cleanliness. */
export function airClamp({ volts = 24.2, ohms = 48 } = {}): Circuit {
  const draft = new Draft('Pneumatic clamp').control('bit', '0', '1').add(battery(volts, 'G1', 'S+'));
  draft
    .add({
      ref: 'A1',
      kind: 'driver',
      nodes: { supply: 'S+', out: 'A1:O', return: 'GND' },
      onWhen: { bit: ['1'] },
      side: 'high',
    })
    .run('A1:O', 'GND', wire('W1', 0.4), pin('X1', 1), coil('Y1', ohms), pin('X1', 2), wire('W2', 0.4));
  airTo(draft);
  return draft
    .add({
      ref: 'Q1',
      kind: 'valve',
      ways: '5/2',
      nodes: { '1': 'P', '2': 'Q1:2', '4': 'Q1:4', '3': 'Q1:3', '5': 'Q1:5' },
      coil: 'Y1',
      pilotKPa: 250,
    })
    .add({ ref: 'U3', kind: 'silencer', nodes: { in: 'Q1:3' } })
    .add({ ref: 'U5', kind: 'silencer', nodes: { in: 'Q1:5' } })
    .run('Q1:4', 'C:A', { ref: 'R4', kind: 'throttle' }, { ref: 'H4', kind: 'hose' })
    .run('Q1:2', 'C:B', { ref: 'R2', kind: 'throttle' }, { ref: 'H2', kind: 'hose' })
    .add({ ref: 'C1', kind: 'cylinder', nodes: { a: 'C:A', b: 'C:B' }, areaRatio: 0.84 })
    .circuit();
}

/** Single-acting cylinder on a 3/2 valve. */
export function springCylinder({ volts = 24.2, ohms = 60 } = {}): Circuit {
  const draft = new Draft('Single-acting cylinder')
    .control('switch', 'off', 'on')
    .add(battery(volts))
    .run(
      'B+',
      'GND',
      fuse('F1', 2),
      contact('S1', { switch: ['on'] }, 'none'),
      wire('W1', 0.1),
      pin('X1', 1),
      coil('Y1', ohms),
      pin('X1', 2),
      wire('W2'),
    );
  airTo(draft);
  return draft
    .add({ ref: 'Q1', kind: 'valve', ways: '3/2', nodes: { '1': 'P', '2': 'Q1:2' }, coil: 'Y1' })
    .run('Q1:2', 'C:A', { ref: 'H2', kind: 'hose' })
    .add({ ref: 'C1', kind: 'cylinder', nodes: { a: 'C:A' }, springKPa: 120 })
    .circuit();
}

/** Vacuum actuator held back by a vent solenoid. */
export function vacuumVent({ volts = 12.6, ohms = 28 } = {}): Circuit {
  return new Draft('Vacuum actuator with vent valve')
    .control('command', 'off', 'on')
    .add(battery(volts))
    .run('B+', 'Y:1', fuse('F1', 10), wire('W1'), pin('X1', 1))
    .run('Y:1', 'D', coil('Y1', ohms), pin('X1', 2), wire('W2', 0.1))
    .add({
      ref: 'A1',
      kind: 'driver',
      nodes: { supply: 'B+', out: 'D', return: 'GND' },
      onWhen: { command: ['on'] },
      side: 'low',
    })
    .add({
      ref: 'P0',
      kind: 'airSupply',
      how: 'Vacuum shut off and vented',
      label: 'Vacuum pump',
      nodes: { out: 'V0' },
      kPa: -75,
      restriction: 0.2,
    })
    .run('V0', 'V1', { ref: 'H1', kind: 'hose' })
    .add({ ref: 'Q1', kind: 'valve', ways: '3/2', nodes: { '1': 'V1', '2': 'V2', '3': 'V3' }, coil: 'Y1' })
    .add({ ref: 'Z1', kind: 'silencer', label: 'Vent filter', nodes: { in: 'V3' } })
    .run('V2', 'V4', { ref: 'H2', kind: 'hose' })
    .add({ ref: 'U1', kind: 'vacuumActuator', nodes: { port: 'V4' }, pullKPa: 40 })
    .circuit();
}

/** Cylinder whose speed follows the current through its valve: slow through a resistor, fast without. */
export function proportionalFlow({ volts = 24.6, ohms = 21 } = {}): Circuit {
  const draft = new Draft('Flow valve that follows its current')
    .control('lever', 'rest', 'slow', 'fast')
    .add(battery(volts))
    .run('B+', 'C', fuse('F1', 3), wire('W1', 0.05));
  const slow = { ref: 'R1', kind: 'resistor', ohms: significant(0.9 * ohms, 3) } as const;
  draft
    .run('C', 'D', contact('S1', { lever: ['slow'] }, 'none'), slow)
    .run('C', 'D', contact('S2', { lever: ['fast'] }, 'none'))
    .run('D', 'Q:1', wire('W2', 0.1), pin('X1', 1))
    .run('Q:2', 'GND', pin('X1', 2), wire('W3', 0.05))
    .add({
      ref: 'P0',
      kind: 'pump',
      nodes: { out: 'P' },
      kPa: 12_000,
      restriction: 8,
      how: 'Pump off, pressure let down',
    })
    .add({
      ref: 'Q1',
      kind: 'proportionalValve',
      label: 'Flow valve',
      nodes: { '1': 'Q:1', '2': 'Q:2', in: 'P', out: 'A' },
      ohms,
      restriction: 20,
      fromAmps: significant((0.2 * volts) / ohms, 2),
      fullAmps: significant((0.9 * volts) / ohms, 2),
    })
    .run('A', 'C:A', { ref: 'L1', kind: 'hose', restriction: 1 })
    .add({ ref: 'C1', kind: 'cylinder', nodes: { a: 'C:A' }, springKPa: 3000 });
  return draft.circuit();
}

/** Diaphragm switch that lets a relay in when the air is up. */
export function airSwitch({ volts = 24.2 } = {}): Circuit {
  const draft = new Draft('Low-pressure air switch').control('air', 'off', 'on').add(battery(volts));
  draft
    .add({ ref: 'P0', kind: 'airSupply', nodes: { out: 'P0' }, kPa: 12, restriction: 0.1, how: SHUT })
    .run('P0', 'P1', { ref: 'H1', kind: 'hose', restriction: 0.2 })
    .add({
      ref: 'B1',
      kind: 'pressureSwitch',
      guards: 'none',
      nodes: { '1': 'B:1', '2': 'B:2', port: 'P1' },
      makeKPa: 5,
      breakKPa: 3,
    })
    .run('B+', 'B:1', fuse('F1', 2), wire('W1'), contact('S1', { air: ['on'] }, 'none'))
    .run('B:2', 'GND', wire('W2', 0.1), coil('Y1', 90), wire('W3'));
  return draft.circuit();
}

/** Gate on a 5/3 valve with two coils. */
export function gateValve({ volts = 24.2, ohms = 36 } = {}): Circuit {
  const draft = new Draft('Gate with two coils')
    .control('lever', 'rest', 'open', 'close')
    .add(battery(volts));
  draft.run('B+', 'C', fuse('F1', 3), wire('W1'));
  for (const [n, position] of [
    [14, 'open'],
    [12, 'close'],
  ] as const) {
    draft.run(
      'C',
      'R',
      contact(`S${n}`, { lever: [position] }, 'none'),
      wire(`W${n}`, 0.1, 'loom'),
      pin(`X${n}`, 1),
      coil(`Y${n}`, ohms),
      pin(`X${n}`, 2),
    );
  }
  draft.run('R', 'GND', wire('W9'));
  airTo(draft);
  return draft
    .add({
      ref: 'Q1',
      kind: 'valve',
      ways: '5/3',
      nodes: { '1': 'P', '2': 'Q1:2', '4': 'Q1:4' },
      coil: 'Y14',
      coil2: 'Y12',
      pilotKPa: 200,
    })
    .run('Q1:4', 'C:A', { ref: 'H4', kind: 'hose' })
    .run('Q1:2', 'C:B', { ref: 'H2', kind: 'hose' })
    .add({ ref: 'C1', kind: 'cylinder', nodes: { a: 'C:A', b: 'C:B' } })
    .circuit();
}

/** Compressor that a pressure switch stops: pressure, contact, relay and motor in one loop. */
export function compressorControl({ volts = 120 } = {}): Circuit {
  return new Draft('Compressor with pressure switch', 'N')
    .control('main', 'off', 'on')
    .control('receiver', 'low', 'charged')
    .add(line(volts, 'G1', 'L1', 'N'))
    .run(
      'L1',
      'A',
      { ref: 'F1', kind: 'breaker', amps: 20 },
      contact('S1', { main: ['on'] }, 'none'),
      wire('W1', 0.05),
    )
    .add({ ref: 'P1', kind: 'airSupply', label: 'Receiver', nodes: { out: 'P1' }, kPa: 520, how: SHUT })
    .run('P1', 'P2', { ref: 'H1', kind: 'hose' })
    .add({
      ref: 'B1',
      kind: 'pressureSwitch',
      guards: 'none',
      nodes: { '1': 'A', '2': 'B', port: 'P2' },
      makeKPa: 800,
      breakKPa: 600,
      contact: 'NC',
    })
    .run(
      'B',
      'K:A',
      contact('S2', { receiver: ['low'] }, 'none', { label: 'Unloader contact' }),
      wire('W2', 0.1),
    )
    .add({
      ref: 'K1',
      kind: 'relay',
      guards: 'none',
      nodes: { a1: 'K:A', a2: 'N', com: 'A', no: 'M' },
      ohms: 900,
      henries: 4.5,
      pickUpVolts: 85,
      dropOutVolts: 30,
    })
    .run('M', 'N', wire('W3', 0.05), { ref: 'M1', kind: 'motor', ohms: 10 })
    .circuit();
}

/** Lift valve of a hydraulic circuit on a low-side output. */
export function hydraulicLift({ volts = 25.2, ohms = 19 } = {}): Circuit {
  return new Draft('Hydraulic lift valve')
    .control('lever', 'rest', 'lift')
    .add(battery(volts))
    .run(
      'B+',
      'D',
      fuse('F1', 7.5),
      wire('W1'),
      pin('X1', 1),
      coil('Y1', ohms),
      pin('X1', 2),
      wire('W2', 0.1),
    )
    .add({
      ref: 'A1',
      kind: 'driver',
      nodes: { supply: 'B+', out: 'D', return: 'GND' },
      onWhen: { lever: ['lift'] },
      side: 'low',
      codes: { '5': { belowAmps: 0.2 }, '6': { aboveAmps: 2.2 } },
    })
    .add({
      ref: 'P1',
      kind: 'pump',
      nodes: { out: 'P' },
      kPa: 16_000,
      restriction: 10,
      how: 'Pump off, pressure let down to the tank',
    })
    .add({
      ref: 'Q1',
      kind: 'valve',
      ways: '3/2',
      nodes: { '1': 'P', '2': 'Q1:2' },
      coil: 'Y1',
      pilotKPa: 2500,
      restriction: 20,
    })
    .run('Q1:2', 'C:A', { ref: 'H1', kind: 'hose', restriction: 5 })
    .add({ ref: 'C1', kind: 'cylinder', nodes: { a: 'C:A' }, springKPa: 3000, frictionKPa: 1500 })
    .circuit();
}

/** Ram that oil moves both ways: a pump with its relief valve, a 5/3 valve with a shut centre, each coil on a low-side output. */
export function hydraulicBothWays({ volts = 25.2, ohms = 19 } = {}): Circuit {
  const draft = new Draft('Hydraulic lift and lower')
    .control('lever', 'rest', 'lift', 'lower')
    .add(battery(volts))
    .run('B+', 'F', fuse('F1', 7.5), wire('W1'));
  for (const [n, position] of [
    [1, 'lift'],
    [2, 'lower'],
  ] as const) {
    draft
      .run('F', `D${n}`, pin(`X${n}`, 1), coil(`Y${n}`, ohms), pin(`X${n}`, 2), wire(`W${n + 1}`, 0.1))
      .add({
        ref: `A${n}`,
        kind: 'driver',
        nodes: { supply: 'B+', out: `D${n}`, return: 'GND' },
        onWhen: { lever: [position] },
        side: 'low',
        codes: { '5': { belowAmps: 0.2 }, '6': { aboveAmps: 2.2 } },
      });
  }
  return draft
    .add({
      ref: 'P1',
      kind: 'pump',
      nodes: { out: 'P' },
      kPa: 18_000,
      restriction: 10,
      how: 'Pump off, pressure let down to the tank',
    })
    .add({ ref: 'RV1', kind: 'relief', nodes: { in: 'P' }, kPa: 16_500 })
    .add({
      ref: 'Q1',
      kind: 'valve',
      ways: '5/3',
      nodes: { '1': 'P', '2': 'Q1:2', '4': 'Q1:4' },
      coil: 'Y1',
      coil2: 'Y2',
      pilotKPa: 2500,
      restriction: 20,
    })
    .run('Q1:4', 'C:A', { ref: 'H1', kind: 'hose', restriction: 5 })
    .run('Q1:2', 'C:B', { ref: 'H2', kind: 'hose', restriction: 5 })
    .add({
      ref: 'C1',
      kind: 'cylinder',
      nodes: { a: 'C:A', b: 'C:B' },
      areaRatio: 0.7,
      frictionKPa: 2500,
      holdsLoad: true,
    })
    .circuit();
}
