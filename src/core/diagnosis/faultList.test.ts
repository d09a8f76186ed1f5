import { CircuitModel } from '../circuit/model';
import { parseCircuit } from '../circuit/parse';
import type { Circuit } from '../circuit/schema';
import { TEMPLATES } from '../templates/templates';
import { NO_FAULT_PRIOR } from './faultFrequency';
import { faultByName, listFaults } from './faults';

const circuit = (parts: unknown[], more: object = {}): Circuit =>
  parseCircuit({
    format: 'spiraxis-circuit',
    version: 1,
    name: 'List',
    frame: 'GND',
    controls: { key: ['off', 'on'] },
    parts: [{ ref: 'G1', kind: 'source', nodes: { '+': 'B+', '-': 'GND' }, volts: 12 }, ...parts],
    ...more,
  });
const faultsOf = (own: Circuit, ref: string) =>
  listFaults(new CircuitModel(own)).filter((fault) => fault.ref === ref);
const two = { '1': 'B+', '2': 'A' };
const load = { ref: 'R9', kind: 'resistor', nodes: { '1': 'A', '2': 'GND' }, ohms: 10 };

/** The contract's table: what must be considered of each kind. */
const TABLE: [string, object, string[]][] = [
  ['source', { nodes: { '+': 'B2', '-': 'GND' }, volts: 12 }, ['noOutput', 'lowVoltage']],
  ['fuse', { nodes: two, amps: 10 }, ['open']],
  ['breaker', { nodes: two, amps: 10 }, ['open']],
  ['wire', { nodes: two, ohms: 0.05 }, ['open', 'highResistance', 'shortToFrame', 'weakInsulation']],
  ['pin', { nodes: two, connector: 'X1' }, ['open', 'highResistance']],
  ['switch', { nodes: two, closedWhen: { key: ['on'] } }, ['stuckOpen', 'stuckClosed', 'highResistance']],
  [
    'relay',
    { nodes: { a1: 'B+', a2: 'GND', com: 'B+', no: 'A' }, ohms: 80 },
    ['open', 'shortedTurns', 'stuckOpen', 'welded', 'highResistance'],
  ],
  ['coil', { nodes: two, ohms: 8 }, ['open', 'shortedTurns', 'shortToFrame', 'weakInsulation']],
  ['diode', { nodes: { anode: 'GND', cathode: 'A' } }, ['open', 'short', 'reversed']],
  ['resistor', { nodes: two, ohms: 8 }, ['open', 'short']],
  ['lamp', { nodes: two, ohms: 8 }, ['open', 'short']],
  ['heater', { nodes: two, ohms: 8 }, ['open', 'short', 'shortToFrame']],
  ['motor', { nodes: two, ohms: 8 }, ['open', 'short', 'shortToFrame']],
  [
    'sensor3',
    { nodes: { supply: 'B+', signal: 'S', return: 'GND' }, ohms: 5000, control: 'key' },
    ['open', 'short', 'stuck'],
  ],
  [
    'driver',
    { nodes: { supply: 'B+', out: 'A', return: 'GND' }, onWhen: { key: ['on'] }, side: 'high' },
    ['noOutput', 'stuckOn'],
  ],
  ['timer', { nodes: two, closedWhen: { key: ['on'] }, seconds: 2 }, ['stuckOpen', 'stuckClosed']],
];

describe('the faults of a circuit', () => {
  it.each(TABLE)('%s has every one of the contract', (kind, part, wanted) => {
    const found = faultsOf(circuit([{ ref: 'Z1', kind, ...part }, load]), 'Z1').map(({ fault }) => fault);
    expect(found).toEqual(expect.arrayContaining(wanted));
  });

  it.each(TABLE.map(([kind, part]) => [kind, part] as const))(
    '%s has sizes to be inferred where they are continuous',
    (kind, part) => {
      for (const { fault, severity } of faultsOf(circuit([{ ref: 'Z1', kind, ...part }, load]), 'Z1')) {
        const sized = ['highResistance', 'shortedTurns', 'shortToFrame', 'weakInsulation', 'lowVoltage'];
        if (sized.includes(fault)) expect(severity).not.toBeNull();
        if (!severity) continue;
        expect(severity.least).toBeGreaterThan(0);
        expect(severity.least).toBeLessThanOrEqual(severity.mainLeast);
        expect(severity.mainLeast).toBeLessThan(severity.mainMost);
        expect(severity.mainMost).toBeLessThanOrEqual(severity.most);
      }
    },
  );

  it('considers any two wires of a bundle that do not meet anyway, and no others', () => {
    const wire = (ref: string, from: string, to: string, bundle?: string) => ({
      ref,
      kind: 'wire',
      nodes: { '1': from, '2': to },
      ohms: 0.05,
      ...(bundle ? { bundle } : {}),
    });
    const parts = [
      wire('W1', 'B+', 'A', 'L1'),
      wire('W2', 'C', 'D', 'L1'),
      wire('W3', 'B+', 'E', 'L1'),
      wire('W4', 'C', 'F'),
      load,
    ];
    const shorts = listFaults(new CircuitModel(circuit(parts))).filter(
      ({ fault }) => fault === 'shortBetween',
    );
    // W1 and W3 both begin at the battery: a short between them changes nothing.
    expect(shorts.map(({ ref, other }) => [ref, other])).toEqual([
      ['W1', 'W2'],
      ['W2', 'W3'],
    ]);
  });

  it.each(TEMPLATES)('of $id have shares that add to one with "nothing is wrong"', ({ build }) => {
    const faults = listFaults(new CircuitModel(build()));
    const total = faults.reduce((sum, { prior }) => sum + prior, NO_FAULT_PRIOR);
    expect(total).toBeCloseTo(1, 9);
    for (const { prior, variants } of faults) {
      expect(prior).toBeGreaterThan(0);
      expect(variants.reduce((sum, { weight }) => sum + weight, 0)).toBeCloseTo(1, 9);
    }
  });

  it('are likelier where a part is worn and where it is wet', () => {
    const wire = { ref: 'W1', kind: 'wire', nodes: two, ohms: 0.05 };
    const share = (own: Circuit, fault: string) => {
      const all = faultsOf(own, 'W1');
      return all.find((one) => one.fault === fault)!.frequency;
    };
    const usual = circuit([wire, load]);
    expect(share(circuit([{ ...wire, wear: 4 }, load]), 'open')).toBeGreaterThan(2 * share(usual, 'open'));
    const wet = circuit([wire, load], { environment: { wet: true } });
    expect(share(wet, 'weakInsulation')).toBeGreaterThan(share(usual, 'weakInsulation'));
  });

  it('are found by name, with the size that was given, and refused by name', () => {
    const faults = listFaults(
      new CircuitModel(circuit([{ ref: 'W1', kind: 'wire', nodes: two, ohms: 0.05 }, load])),
    );
    const { fault, severity } = faultByName(faults, 'W1', 'highResistance', 6.5);
    expect([fault.ref, fault.fault, severity]).toEqual(['W1', 'highResistance', 6.5]);
    expect(() => faultByName(faults, 'W1', 'welded')).toThrow(/W1.*open/s);
    expect(() => faultByName(faults, 'W99', 'open')).toThrow(/W99/);
  });
});
