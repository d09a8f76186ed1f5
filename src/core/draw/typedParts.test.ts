import { parseCircuit } from '../circuit/parse';
import { emptyDrawing, layChains } from './layChain';

/** The last part of a run begun with the given supply. */
function typed(text: string, supply = 'battery 12'): Record<string, unknown> {
  const { circuit } = layChains(emptyDrawing('Typed'), `${supply}, ${text}`);
  return circuit.parts.at(-1)! as unknown as Record<string, unknown>;
}

describe('what is typed of a part', () => {
  it.each([
    ['fuse 7,5', { kind: 'fuse', amps: 7.5 }],
    ['fuse F7 10 A', { kind: 'fuse', ref: 'F7', amps: 10 }],
    ['breaker 15', { kind: 'breaker', amps: 15 }],
    ['wire 3 m 1.5 mm2 red', { kind: 'wire', lengthMetres: 3, mm2: 1.5, colour: 'red' }],
    ['wire W12 10 ft 16 awg', { kind: 'wire', ref: 'W12', lengthMetres: 3.048, awg: 16 }],
    ['coil 7.4', { kind: 'coil', ohms: 7.4 }],
    ['coil Y3 31.5 ohm', { kind: 'coil', ref: 'Y3', ohms: 31.5 }],
    ['resistor 4.7 k', { kind: 'resistor', ohms: 4700 }],
    ['relay K1 85', { kind: 'relay', ref: 'K1', ohms: 85 }],
    ['diode', { kind: 'diode' }],
    ['motor 0.4', { kind: 'motor', ohms: 0.4 }],
    ['plug X31', { kind: 'pin', connector: 'X31', ref: 'X31.1' }],
  ])('%s', (text, wanted) => {
    expect(typed(text)).toMatchObject(wanted);
  });

  it('becomes ohms where watts are said, at the supply that feeds it', () => {
    expect(typed('lamp 21 W', 'battery 12').ohms).toBeCloseTo(144 / 21, 2);
    expect(typed('lamp 21 W', 'battery 24').ohms).toBeCloseTo(576 / 21, 1);
    expect(typed('heater 48 W', 'battery 24').ohms).toBeCloseTo(12, 2);
  });

  it('steps the supply down through a control transformer', () => {
    const { circuit } = layChains(
      emptyDrawing('Control'),
      'supply 120 V 60 Hz, fuse 2, control transformer 120/24, fuse 3, lamp 24 W, back',
    );
    const lamp = circuit.parts.find(({ kind }) => kind === 'lamp');
    expect(circuit.parts.find(({ kind }) => kind === 'transformer')).toMatchObject({ ratio: 5 });
    expect(lamp).toMatchObject({ ohms: expect.closeTo(24, 3) });
    expect(() => parseCircuit(circuit)).not.toThrow();
  });

  it.each([
    ['regulator 6 bar', 'air 7 bar', { kind: 'regulator', kPa: 600 }],
    ['regulator 80 psi', 'air 7 bar', { kind: 'regulator', kPa: expect.closeTo(551.6, 1) }],
    ['hose', 'pump 180 bar', { kind: 'hose' }],
    ['cylinder C4', 'air 600 kPa', { kind: 'cylinder', ref: 'C4' }],
  ])('%s on the air side', (text, supply, wanted) => {
    expect(typed(text, supply)).toMatchObject(wanted);
  });

  it.each([
    ['seat switch', { closedWhen: { seat: ['taken'] }, label: 'Seat switch' }],
    ['stop button', { closedWhen: { stop: ['free'] } }],
    ['lever=left switch', { closedWhen: { lever: ['left'] } }],
    ['lever=left|right switch', { closedWhen: { lever: ['left', 'right'] } }],
    ['"upper limit"=free switch', { closedWhen: { 'upper limit': ['free'] } }],
  ])('a contact from %s', (text, wanted) => {
    expect(typed(text)).toMatchObject({ kind: 'switch', ...wanted });
  });

  it.each([
    ['flux capacitor', /"flux capacitor" names no part/],
    ['plug 7 bar 3', /say what/],
  ])('refuses %s in one sentence that says the mend', (text, words) => {
    expect(() => typed(text)).toThrow(words);
  });
});
