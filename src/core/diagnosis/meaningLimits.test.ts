import { CircuitModel } from '../circuit/model';
import { circuitSchema, type Test } from '../circuit/schema';
import { singleCoil, winchPack } from '../templates/electrical';
import { meaningLimits } from './meaningLimits';

const codes = (...given: Parameters<typeof meaningLimits>) => meaningLimits(...given).map(({ code }) => code);

describe('what a reading cannot mean', () => {
  const coil = singleCoil();
  const model = new CircuitModel(coil);
  const y1 = coil.parts.find(({ ref }) => ref === 'Y1')!.nodes as Record<string, string>;
  const plug = coil.parts.find(({ kind }) => kind === 'pin');

  it('full volts with nothing drawing on them', () => {
    const setup = { controls: { key: 'on' }, unplugged: [plug!.kind === 'pin' ? plug!.connector : ''] };
    expect(codes(model, { kind: 'volts', from: 'B+', to: coil.frame, setup })).toContain('unloaded');
    expect(
      codes(model, { kind: 'volts', from: 'B+', to: coil.frame, setup: { controls: { key: 'on' } } }),
    ).toEqual([]);
  });

  it('volts at a point that nothing ties', () => {
    const setup = { controls: { key: 'off' }, removed: ['Y1'] };
    expect(codes(model, { kind: 'volts', from: y1['1']!, to: coil.frame, setup })).toContain('ghostVoltage');
  });

  it('ohms below what the leads have themselves', () => {
    const fuse = coil.parts.find(({ kind }) => kind === 'fuse')!.nodes as Record<string, string>;
    const test: Test = { kind: 'ohms', from: fuse['1']!, to: fuse['2']!, setup: { isolated: ['G1'] } };
    expect(codes(model, test)).toContain('leadsDominate');
    expect(codes(model, test, 0)).not.toContain('leadsDominate');
  });

  it('ohms of one part while another lies across it', () => {
    const two = circuitSchema.parse({
      ...coil,
      parts: [
        ...coil.parts,
        { ref: 'R9', kind: 'resistor', nodes: { '1': y1['1'], '2': y1['2'] }, ohms: 20 },
      ],
    });
    const test: Test = { kind: 'ohms', from: y1['1']!, to: y1['2']!, setup: { isolated: ['G1'] } };
    const limits = meaningLimits(new CircuitModel(two), test);
    expect(limits.find(({ code }) => code === 'parallelPath')).toMatchObject({
      parts: expect.arrayContaining(['R9']),
    });
    expect(codes(model, test)).not.toContain('parallelPath');
  });

  it('an ohmmeter’s pass on a contact that carries a winch', () => {
    const winch = new CircuitModel(winchPack());
    const contact = winch.compiled.circuit.parts.find(({ kind }) => kind === 'relay')!.nodes as Record<
      string,
      string
    >;
    const test: Test = { kind: 'ohms', from: contact.com!, to: contact.no!, setup: { isolated: ['G1'] } };
    expect(codes(winch, test)).toContain('heavyContact');
  });

  it('an ohmmeter on insulation', () => {
    const test: Test = {
      kind: 'ohms',
      from: y1['1']!,
      to: coil.frame,
      setup: { isolated: ['G1'], removed: ['Y1'] },
    };
    expect(codes(model, test)).toContain('insulationByOhms');
  });
});
