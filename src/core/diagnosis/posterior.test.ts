import { CircuitModel } from '../circuit/model';
import type { Circuit, Reading } from '../circuit/schema';
import { plainPosterior } from '../testing/plainPosterior';
import { singleCoil } from '../templates/electrical';
import { airSwitch } from '../templates/fluid';
import { gasBypass } from '../templates/line';
import { gatherObservations } from './observations';
import { Weigher } from './posterior';

/** The grid may part where a fuse goes from where it holds a step too early. */
const CLOSE = 0.02;

const key = { controls: { key: 'on' } };
const dead: Reading = { kind: 'function', part: 'Y1', setup: key, value: 'dead' };
const weak: Reading = { kind: 'function', part: 'Y1', setup: key, value: 'weak' };
const volts = (from: string, value: number): Reading => ({
  kind: 'volts',
  from,
  to: 'GND',
  setup: key,
  value,
});
const ohms = (from: string, to: string, value: number | 'OL'): Reading => ({
  kind: 'ohms',
  from,
  to,
  setup: { pulled: ['F1'], ...key },
  value,
});

const cases: [string, () => Circuit, Reading[]][] = [
  ['a complaint alone', singleCoil, [dead]],
  ['volts that are there', singleCoil, [dead, volts('X1.1:2', 12.5)]],
  [
    'a bad joint, read twice in different places',
    singleCoil,
    [weak, volts('S1:2', 12.4), volts('W2:2', 6.1)],
  ],
  ['resistance of a bad joint', singleCoil, [weak, ohms('F1:2', 'GND', 15.2), ohms('S1:2', 'W2:2', 6.3)]],
  [
    'a short and a blown fuse',
    singleCoil,
    [{ kind: 'fuse', part: 'F1', setup: key, value: 'blows' }, ohms('F1:2', 'GND', 0.9)],
  ],
  [
    'shorted turns, apart',
    singleCoil,
    [{ kind: 'ohms', from: 'X1.1:2', to: 'Y1:2', setup: { pulled: ['F1'], unplugged: ['X1'] }, value: 4.1 }],
  ],
  [
    'an insulation test',
    singleCoil,
    [
      dead,
      {
        kind: 'insulation',
        from: 'S1:2',
        to: 'GND',
        testVolts: 250,
        setup: { isolated: ['G1'], removed: ['Y1'] },
        value: 52_000,
      },
    ],
  ],
  [
    'alternating current with reactance',
    gasBypass,
    [{ kind: 'amps', through: 'F1', setup: { controls: { output: 'on' } }, value: 0.9 }],
  ],
  [
    'pressure before a switch',
    airSwitch,
    [
      { kind: 'function', part: 'Y1', setup: { controls: { air: 'on' } }, value: 'dead' },
      { kind: 'pressure', at: 'P1', setup: { controls: { air: 'on' } }, value: 3.6 },
    ],
  ],
];

describe('weighing, against the plain slow way', () => {
  it.each(cases)('%s', (_name, build, readings) => {
    const model = new CircuitModel(build());
    const plain = plainPosterior(model, readings);
    const { faults, noFault } = new Weigher(model).weigh(gatherObservations(model, readings));
    expect(Math.abs(noFault - plain.get('sound')!)).toBeLessThan(CLOSE);
    for (const { fault, share, partner } of faults) {
      if (partner) continue;
      const slow = plain.get(`${fault.ref} ${fault.fault} ${fault.other ?? ''}`.trim())!;
      expect(Math.abs(share - slow)).toBeLessThan(CLOSE);
    }
  });

  it.each(cases)('adds to one, with every detail in order: %s', (_name, build, readings) => {
    const model = new CircuitModel(build());
    const { faults, noFault, unexplained } = new Weigher(model).weigh(gatherObservations(model, readings));
    expect(faults.reduce((sum, { share }) => sum + share, noFault)).toBeCloseTo(1, 9);
    expect(unexplained).toBeGreaterThanOrEqual(0);
    expect(unexplained).toBeLessThanOrEqual(1);
    faults.forEach(({ share, points, fits, severity, severityRange, fault, partner }, at) => {
      if (at > 0) expect(share).toBeLessThanOrEqual(faults[at - 1]!.share);
      expect(fits).toHaveLength(new Set(readings).size);
      if (share < 1e-3) return;
      expect(points.reduce((sum, { weight }) => sum + weight, 0)).toBeCloseTo(share, 2);
      // Of two at once no range is worked out.
      if (!fault.severity || partner) return;
      expect(severity).toBeGreaterThanOrEqual(fault.severity.least);
      expect(severity).toBeLessThanOrEqual(fault.severity.most * (1 + 1e-9));
      expect(severityRange![0]).toBeLessThanOrEqual(severityRange![1]);
    });
  });

  it('finds a severity between the points of its grid', () => {
    const model = new CircuitModel(singleCoil());
    for (const joint of [0.9, 2.77, 6.31, 41, 640]) {
      const total = 0.04 + 0.06 + 0.01 + 0.005 * 2 + 0.04 + 9;
      const readings = [ohms('F1:2', 'GND', total + joint), ohms('S1:2', 'W2:2', joint + 0.06)];
      const [top] = new Weigher(model).weigh(gatherObservations(model, readings)).faults;
      expect(top!.fault).toMatchObject({ ref: 'W2', fault: 'highResistance' });
      expect(Math.abs(top!.severity! / joint - 1)).toBeLessThan(0.12);
      expect(top!.severityRange![0]).toBeLessThan(joint * 1.1);
      expect(top!.severityRange![1]).toBeGreaterThan(joint * 0.9);
    }
  });
});
