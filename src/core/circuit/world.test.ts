import { bindTest, predict, predictedValue } from '../diagnosis/predict';
import { InputError } from './inputError';
import { CircuitModel } from './model';
import type { Circuit, Part, Test } from './schema';
import { circuitSchema } from './schema';
import { conductorOhms, gaugeArea } from './wireGauge';
import oracles from './oracles.json';

const battery: Part = {
  ref: 'G1',
  kind: 'source',
  nodes: { '+': 'B+', '-': 'GND' },
  volts: 24,
  internalOhms: 0.01,
};

function circuit(parts: unknown[], controls: Circuit['controls'] = {}): CircuitModel {
  return new CircuitModel(
    circuitSchema.parse({
      format: 'spiraxis-circuit',
      version: 1,
      name: 'bench',
      frame: 'GND',
      controls,
      parts: [battery, ...parts],
    }),
  );
}

function read(model: CircuitModel, test: Test): unknown {
  return predictedValue(test.kind, predict(bindTest(model, test), []));
}

const coil = { ref: 'Y1', kind: 'coil', nodes: { '1': 'A', '2': 'GND' }, ohms: 24, pullInAmps: 0.5 };

describe('a solved circuit', () => {
  it('divides volts and loads the meter', () => {
    const model = circuit([
      { ref: 'R1', kind: 'resistor', nodes: { '1': 'B+', '2': 'A' }, ohms: 1e6 },
      { ref: 'R2', kind: 'resistor', nodes: { '1': 'A', '2': 'GND' }, ohms: 1e6 },
    ]);
    // 10 Mohm across a 0.5 Mohm source.
    expect(read(model, { kind: 'volts', from: 'A', to: 'GND', setup: {} })).toBeCloseTo((12 * 10) / 10.5, 3);
  });

  it('reads the reference’s ghost of a supply behind a leak', () => {
    const { in: given, out } = oracles.E08;
    const model = new CircuitModel(
      circuitSchema.parse({
        format: 'spiraxis-circuit',
        version: 1,
        name: 'ghost',
        frame: 'GND',
        parts: [
          { ...battery, volts: given.Vs, internalOhms: 0 },
          { ref: 'W1', kind: 'wire', nodes: { '1': 'B+', '2': 'A' }, ohms: given.Rs },
        ],
      }),
    );
    const test: Test = { kind: 'volts', from: 'A', to: 'GND', setup: {}, meter: { loadOhms: given.Zin } };
    expect(read(model, test)).toBeCloseTo(out.V, 6);
  });

  it('says OL across an open switch and the switch’s ohms across a closed one', () => {
    const parts = [
      { ref: 'S1', kind: 'switch', nodes: { '1': 'B+', '2': 'A' }, closedWhen: { key: ['on'] }, ohms: 0.02 },
      coil,
    ];
    const model = circuit(parts, { key: ['off', 'on'] });
    const dead = { isolated: ['G1'] };
    expect(read(model, { kind: 'ohms', from: 'B+', to: 'A', setup: dead })).toBe('OL');
    const closed = { ...dead, controls: { key: 'on' } };
    expect(read(model, { kind: 'ohms', from: 'B+', to: 'A', setup: closed })).toBeCloseTo(0.02, 4);
  });

  it('refuses ohms on a powered pair, naming the volts', () => {
    const model = circuit([{ ref: 'W1', kind: 'wire', nodes: { '1': 'B+', '2': 'A' }, ohms: 0.1 }, coil]);
    expect(() => bindTest(model, { kind: 'ohms', from: 'A', to: 'GND', setup: {} })).toThrow(InputError);
    expect(() => bindTest(model, { kind: 'ohms', from: 'A', to: 'GND', setup: {} })).toThrow(
      /powered \(23\.\d+ V\)/,
    );
  });

  it('conducts a diode one way only, and hides it behind a coil', () => {
    const { in: given } = oracles.E21;
    const diode = { ref: 'V1', kind: 'diode', nodes: { anode: 'GND', cathode: 'A' } };
    const model = circuit([{ ...coil, ohms: given.Rcoil }, diode]);
    const alone = { isolated: ['G1'], removed: ['Y1'] };
    expect(read(model, { kind: 'diode', from: 'GND', to: 'A', setup: alone })).toBeCloseTo(0.7, 1);
    expect(read(model, { kind: 'diode', from: 'A', to: 'GND', setup: alone })).toBe('OL');
    const fitted = { isolated: ['G1'] };
    for (const [from, to] of [
      ['GND', 'A'],
      ['A', 'GND'],
    ] as const) {
      expect(read(model, { kind: 'diode', from, to, setup: fitted })).toBeCloseTo(oracles.E21.out.V, 3);
    }
  });

  it('pulls a relay in, holds its load, and finds the one that chatters', () => {
    const relay = {
      ref: 'K1',
      kind: 'relay',
      nodes: { a1: 'C', a2: 'GND', com: 'B+', no: 'A', nc: 'N' },
      ohms: 300,
      pickUpVolts: 15,
      dropOutVolts: 4,
    };
    const feed = { ref: 'S1', kind: 'switch', nodes: { '1': 'B+', '2': 'C' }, closedWhen: { key: ['on'] } };
    const model = circuit([relay, feed, coil], { key: ['off', 'on'] });
    expect(read(model, { kind: 'function', part: 'Y1', setup: {} })).toBe('dead');
    expect(read(model, { kind: 'function', part: 'Y1', setup: { controls: { key: 'on' } } })).toBe('works');
    expect(read(model, { kind: 'click', part: 'K1', setup: { controls: { key: 'on' } } })).toBe(true);
    // By hand, with the supply off: the contact closes and the other one opens.
    const held = { isolated: ['G1'], energised: ['K1'] };
    expect(read(model, { kind: 'ohms', from: 'B+', to: 'N', setup: held })).toBe('OL');
    expect(read(model, { kind: 'ohms', from: 'B+', to: 'N', setup: { isolated: ['G1'] } })).toBeCloseTo(
      0.01,
      3,
    );

    const buzzer = circuit([{ ...relay, nodes: { a1: 'N', a2: 'GND', com: 'B+', nc: 'N' } }]);
    expect(buzzer.situation({}).solve({ mode: 'live' }).chatters).toBe(true);
  });

  it('keeps a self-holding relay in after its button is let go only while powered', () => {
    const relay = {
      ref: 'K1',
      kind: 'relay',
      nodes: { a1: 'C', a2: 'GND', com: 'B+', no: 'C' },
      ohms: 300,
      pickUpVolts: 15,
      dropOutVolts: 4,
    };
    const model = circuit([relay]);
    expect(read(model, { kind: 'click', part: 'K1', setup: {} })).toBe(false);
    expect(read(model, { kind: 'click', part: 'K1', setup: { jumpers: [['B+', 'C']] } })).toBe(true);
  });

  it('blows the fuse that a short loads past 135 %, and leaves the circuit dead behind it', () => {
    const fuse = { ref: 'F1', kind: 'fuse', nodes: { '1': 'B+', '2': 'A' }, amps: 5 };
    const model = circuit([fuse, { ref: 'H1', kind: 'heater', nodes: { '1': 'A', '2': 'GND' }, ohms: 3 }]);
    expect(read(model, { kind: 'fuse', part: 'F1', setup: {} })).toBe('blows');
    expect(read(model, { kind: 'volts', from: 'A', to: 'GND', setup: {} })).toBeCloseTo(0, 3);
    const lighter = circuit([fuse, { ref: 'H1', kind: 'heater', nodes: { '1': 'A', '2': 'GND' }, ohms: 5 }]);
    expect(read(lighter, { kind: 'fuse', part: 'F1', setup: {} })).toBe('holds');
  });

  it('limits a driver and sets its codes', () => {
    const driver = {
      ref: 'U1',
      kind: 'driver',
      nodes: { supply: 'B+', out: 'A', return: 'GND' },
      onWhen: { key: ['on'] },
      side: 'high',
      limitAmps: 3,
      codes: { '5': { belowAmps: 0.1 }, '6': { aboveAmps: 2.2 } },
    };
    const on = { controls: { key: 'on' } };
    const model = circuit([driver, coil], { key: ['off', 'on'] });
    expect(read(model, { kind: 'code', part: 'U1', setup: on })).toEqual([]);
    expect(read(model, { kind: 'code', part: 'U1', setup: { ...on, removed: ['Y1'] } })).toEqual([5]);
    const heavy = circuit([driver, { ...coil, ohms: 2 }], { key: ['off', 'on'] });
    expect(read(heavy, { kind: 'code', part: 'U1', setup: on })).toEqual([6]);
    expect(read(heavy, { kind: 'amps', through: 'Y1', setup: on })).toBeCloseTo(3, 2);
    // The limit acts long before a fuse could: a dead short behind the driver blows none.
    const fuse = { ref: 'F1', kind: 'fuse', nodes: { '1': 'B+', '2': 'F' }, amps: 5 };
    const shorted = circuit(
      [fuse, { ...driver, nodes: { ...driver.nodes, supply: 'F' } }, { ...coil, ohms: 0.05 }],
      { key: ['off', 'on'] },
    );
    expect(read(shorted, { kind: 'fuse', part: 'F1', setup: on })).toBe('holds');
    expect(read(shorted, { kind: 'code', part: 'U1', setup: on })).toEqual([6]);
  });

  it('steps volts down through a transformer, and shows an ohmmeter its windings only', () => {
    const model = new CircuitModel(
      circuitSchema.parse({
        format: 'spiraxis-circuit',
        version: 1,
        name: 'control supply',
        frame: 'PE',
        parts: [
          {
            ref: 'G1',
            kind: 'source',
            nodes: { '+': 'L', '-': 'PE' },
            volts: 120,
            hz: 60,
            internalOhms: 0.1,
          },
          {
            ref: 'T1',
            kind: 'transformer',
            nodes: { p1: 'L', p2: 'PE', s1: 'S', s2: 'PE' },
            ratio: 5,
            internalOhms: 1,
          },
          { ref: 'E1', kind: 'heater', nodes: { '1': 'S', '2': 'PE' }, ohms: 47 },
        ],
      }),
    );
    expect(read(model, { kind: 'volts', from: 'S', to: 'PE', setup: {} })).toBeCloseTo((24 * 47) / 48, 1);
    expect(read(model, { kind: 'ohms', from: 'S', to: 'PE', setup: { isolated: ['G1'] } })).toBeCloseTo(
      47 / 48,
      3,
    );
    expect(read(model, { kind: 'volts', from: 'S', to: 'PE', setup: { isolated: ['G1'] } })).toBeCloseTo(
      0,
      6,
    );
  });

  it('closes a timer only for its seconds', () => {
    const timer = {
      ref: 'K2',
      kind: 'timer',
      nodes: { '1': 'B+', '2': 'A' },
      closedWhen: { key: ['on'] },
      seconds: 2,
    };
    const model = circuit([timer, coil], { key: ['off', 'on'] });
    const on = { controls: { key: 'on' } };
    expect(read(model, { kind: 'function', part: 'Y1', setup: { ...on, afterSeconds: 1 } })).toBe('works');
    expect(read(model, { kind: 'function', part: 'Y1', setup: on })).toBe('dead');
  });

  it('moves a leak with the end that is lifted', () => {
    const wire = { ref: 'W1', kind: 'wire', nodes: { '1': 'B+', '2': 'A' }, ohms: 0.1 };
    const model = circuit([wire, coil]);
    const lifted = { isolated: ['G1'], lifted: [{ part: 'W1', node: 'A' }] };
    expect(read(model, { kind: 'ohms', from: 'A', to: 'GND', setup: lifted })).toBeCloseTo(24, 6);
    expect(read(model, { kind: 'ohms', from: 'B+', to: 'A', setup: lifted })).toBe('OL');
  });

  it.each([
    [{ pulled: ['F99'] }, /unknown part "F99"/],
    [{ controls: { lever: 'up' } }, /unknown control "lever"/],
    [{ unplugged: ['X9'] }, /unknown connector "X9"/],
    [{ jumpers: [['B+', 'Z']] }, /unknown node "Z"/],
  ])('refuses a set-up that names what is not there: %j', (setup, message) => {
    expect(() => circuit([coil]).situation(setup as never)).toThrow(message as RegExp);
  });

  it.each([
    [[{ ...coil, ref: 'G1' }], /"G1" is used twice/],
    [
      [{ ref: 'S1', kind: 'switch', nodes: { '1': 'B+', '2': 'A' }, closedWhen: { key: ['on'] } }],
      /unknown control "key"/,
    ],
    [[{ ref: 'K1', kind: 'relay', nodes: { com: 'B+', no: 'A' }, ohms: 90 }], /coil nodes/],
  ])('refuses a circuit that does not hold together', (parts, message) => {
    expect(() => circuit(parts as unknown[])).toThrow(message as RegExp);
  });
});

describe('wire resistance', () => {
  it.each(Object.entries(oracles.E_AWG.out))('of %s AWG is %d ohm a kilometre', (gauge, ohmsPerKm) => {
    expect(conductorOhms(1000, gaugeArea(gauge))).toBeCloseTo(ohmsPerKm, 6);
  });
});
