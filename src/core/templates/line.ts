import type { Circuit } from '../circuit/schema';
import { battery, coil, contact, Draft, fuse, line, pin, wire } from '../draw/circuitDraft';

/** Line supply through a contactor whose coil is fed from a control transformer somewhere else. */
export function contactorTwoSupplies({ volts = 240, controlVolts = 24 } = {}): Circuit {
  return new Draft('Contactor with two supplies', 'PE')
    .control('thermostat', 'satisfied', 'calling')
    .add(line(volts, 'G1', 'L1', 'PE'))
    .add(line(120, 'G2', 'C120', 'PE'))
    .add({
      ref: 'T1',
      kind: 'transformer',
      nodes: { p1: 'C120', p2: 'PE', s1: 'R', s2: 'PE' },
      ratio: 120 / controlVolts,
      va: 40,
      internalOhms: 1.4,
      accessMinutes: 1,
    })
    .run(
      'R',
      'A1',
      fuse('F2', 3),
      wire('W1', 0.2),
      contact('S1', { thermostat: ['calling'] }, 'none'),
      wire('W2', 0.2),
    )
    .add({
      ref: 'K1',
      kind: 'relay',
      guards: 'none',
      nodes: { a1: 'A1', a2: 'PE', com: 'L1:F', no: 'T1:L' },
      ohms: 12,
      henries: 0.11,
      pickUpVolts: 18,
      dropOutVolts: 8,
      contactOhms: 0.003,
    })
    .run('L1', 'L1:F', fuse('F1', 30), wire('W3', 0.02))
    .run('T1:L', 'PE', wire('W4', 0.05), { ref: 'M1', kind: 'motor', ohms: 14 })
    .circuit();
}

/** Up and down contactor coils of a hoist, each behind its own limit. */
export function hoistLimits({ volts = 120 } = {}): Circuit {
  const draft = new Draft('Hoist with limits', 'PE')
    .control('pendant', 'off', 'up', 'down')
    .control('upper limit', 'free', 'reached')
    .control('lower limit', 'free', 'reached')
    .add(line(volts, 'G1', 'L1', 'PE'))
    .run('L1', 'C', fuse('F1', 3), wire('W1', 0.05));
  for (const [n, position, limit] of [
    [1, 'up', 'upper limit'],
    [2, 'down', 'lower limit'],
  ] as const) {
    draft.run(
      'C',
      'N',
      contact(`S${n}`, { pendant: [position] }, 'person'),
      wire(`W${n}1`, 0.2, 'pendant cable'),
      contact(`B${n}`, { [limit]: ['free'] }, 'limit', { label: 'Limit switch', accessMinutes: 3 }),
      wire(`W${n}2`, 0.2),
      coil(`K${n}`, 320, { henries: 1.1, pullInAmps: 0.12, holdAmps: 0.05 }),
    );
  }
  return draft.run('N', 'PE', wire('W9', 0.05)).circuit();
}

/** Fill valve outside in the wet, fed through a level relay from a control transformer. */
export function levelControl({ volts = 120, controlVolts = 24 } = {}): Circuit {
  return new Draft('Level control with fill valve', 'PE', { wet: true })
    .control('level', 'full', 'low')
    .add(line(volts, 'G1', 'L1', 'PE'))
    .add({
      ref: 'T1',
      kind: 'transformer',
      nodes: { p1: 'L1', p2: 'PE', s1: 'T1:S', s2: 'PE' },
      ratio: volts / controlVolts,
      va: 75,
      internalOhms: 0.8,
      accessMinutes: 1,
    })
    .run('T1:S', 'A', fuse('F1', 3), wire('W1', 0.05))
    .run(
      'A',
      'K:A',
      contact('S1', { level: ['low'] }, 'none', { label: 'Level probe output', electronic: true }),
    )
    .add({
      ref: 'K1',
      kind: 'relay',
      guards: 'none',
      nodes: { a1: 'K:A', a2: 'PE', com: 'A', no: 'V' },
      ohms: 180,
      henries: 0.9,
      pickUpVolts: 17,
      dropOutVolts: 6,
    })
    .run(
      'V',
      'PE',
      wire('W2', 0.4, 'field'),
      coil('Y1', 22, { henries: 0.12, pullInAmps: 0.3, holdAmps: 0.12, accessMinutes: 4 }),
      wire('W3', 0.4, 'field'),
    )
    .circuit();
}

/** Gas bypass valve on a relay output of a controller, with an alternating-current coil. */
export function gasBypass({ volts = 24 } = {}): Circuit {
  return (
    new Draft('Gas bypass valve on a controller output', 'N')
      .control('output', 'off', 'on')
      .add(line(volts, 'G1', 'R', 'N'))
      .run('R', 'W1:2', fuse('F1', 3), wire('W1', 0.1))
      // A relay of the controller: a part with a card and a proof of its own, common hot in and switched hot out.
      .add({
        ref: 'A1',
        kind: 'driver',
        label: 'Controller relay output',
        nodes: { supply: 'W1:2', out: 'A1:O', return: 'N' },
        onWhen: { output: ['on'] },
        side: 'high',
      })
      .run(
        'A1:O',
        'N',
        wire('W2', 0.4),
        coil('Y1', 8, { henries: 0.055, pullInAmps: 0.7, holdAmps: 0.4, accessMinutes: 2.5 }),
        wire('W3', 0.4),
      )
      .circuit()
  );
}

/** Battery and line supply in one machine, joined only at the frame: a relay of one switches a load of the other. */
export function batteryOverLine({ volts = 120 } = {}): Circuit {
  return new Draft('Battery control of a line load', 'PE')
    .control('call', 'off', 'on')
    .add(battery(24.5, 'G1', 'B+', 'PE'))
    .add(line(volts, 'G2', 'L1', 'PE'))
    .run('B+', 'A1', fuse('F1', 2), contact('S1', { call: ['on'] }, 'none'), wire('W1', 0.1))
    .add({
      ref: 'K1',
      kind: 'relay',
      guards: 'none',
      nodes: { a1: 'A1', a2: 'PE', com: 'L', no: 'H' },
      ohms: 410,
      pickUpVolts: 16,
      dropOutVolts: 3,
    })
    .run('L1', 'L', { ref: 'F2', kind: 'breaker', amps: 15 }, wire('W2', 0.05))
    .run('H', 'PE', wire('W3', 0.1), { ref: 'E1', kind: 'heater', ohms: 14.5 })
    .circuit();
}

/** Speed pick-up: a small alternating voltage whose frequency a controller counts, beside the battery that feeds it. */
export function speedPickup({ volts = 12.6, hertz = 83 } = {}): Circuit {
  return new Draft('Speed pick-up on a controller input')
    .control('key', 'off', 'on')
    .control('wheel', 'still', 'turning')
    .add(battery(volts))
    .run('B+', 'GND', fuse('F1', 5), contact('S1', { key: ['on'] }, 'none'), wire('W1', 0.05), {
      ref: 'H1',
      kind: 'lamp',
      label: 'Ready lamp',
      ohms: 60,
    })
    .add({
      ref: 'B1',
      kind: 'source',
      label: 'Pick-up',
      supplies: 'control',
      nodes: { '+': 'B1:1', '-': 'B1:2' },
      volts: 4,
      hz: hertz,
      internalOhms: 900,
      how: 'Wheel stopped',
    })
    .run(
      'B1:1',
      'A1:5',
      contact('B1W', { wheel: ['turning'] }, 'none', { label: 'Wheel turns' }),
      pin('X4', 1),
      wire('W2', 0.1),
    )
    .run('B1:2', 'GND', pin('X4', 2), wire('W3', 0.1))
    .run('A1:5', 'GND', {
      ref: 'R1',
      kind: 'resistor',
      label: 'Controller input',
      ohms: 10_000,
      electronic: true,
    })
    .circuit();
}
