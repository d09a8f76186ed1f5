import { demoCircuit } from '@/testing/demoCircuits';
import { CircuitModel } from '@/core/circuit/model';
import { singleCoil, stopSolenoid } from '@/core/templates/electrical';
import { contactorTwoSupplies, levelControl } from '@/core/templates/line';
import { TEMPLATES } from '@/core/templates/templates';
import { spareRatings } from './spareRatings';

describe('a spare', () => {
  const model = new CircuitModel(singleCoil({ volts: 24, ohms: 24 }));
  it('of a coil has nominal volts, not what the rail reads', () => {
    const ratings = spareRatings(new CircuitModel(singleCoil({ volts: 25.4, ohms: 24 })), 'Y1', 'bar');
    expect(ratings.map(({ name }) => name)).toEqual([
      'Volts, AC or DC',
      'Ohms at 20 °C',
      'Power',
      'Duty',
      'Plug and thread',
    ]);
    expect(JSON.stringify(ratings)).not.toMatch(/25/);
  });
  it('of an alternating coil behind a transformer has that side’s volts, and volt-amperes instead of watts', () => {
    const level = new CircuitModel(levelControl());
    const wanted = (name: string) =>
      spareRatings(level, 'Y1', 'bar').find((one) => one.name === name)!.wanted;
    expect(wanted('Volts, AC or DC')).toMatch(/^24 V AC/);
    expect(wanted('Power')).toMatch(/^about 1[12] VA, sealed$/);
    const unknown = TEMPLATES.find(({ id }) => id === 'single-coil')!.build();
    const parts = unknown.parts.map((part) => (part.ref === 'Y1' ? { ...part, ohms: undefined } : part));
    const bare = spareRatings(
      new CircuitModel({ ...unknown, parts: parts as typeof unknown.parts }),
      'Y1',
      'bar',
    );
    expect(bare.find(({ name }) => name === 'Power')!.wanted).toBe('as on the old label');
  });
  it('of a contactor has its coil’s volts and what its contacts carry', () => {
    const ratings = spareRatings(new CircuitModel(contactorTwoSupplies()), 'K1', 'bar');
    expect(ratings).toContainEqual({ name: 'Volts, AC or DC', wanted: '24 V AC, and as on the old label' });
    expect(ratings.find(({ name }) => name === 'Contact amps')!.wanted).toMatch(/^1\d(\.\d)? A carried here/);
  });
  it('of a switch or timer has what its contact carries and breaks, also what it carries at once only', () => {
    const engine = new CircuitModel(stopSolenoid());
    const amps = (ref: string) =>
      spareRatings(engine, ref, 'bar').find(({ name }) => name === 'Contact amps')?.wanted ?? '';
    const timer = engine.compiled.circuit.parts.find(({ kind }) => kind === 'timer')!;
    expect(amps(timer.ref)).toMatch(/^12(\.\d)? A carried here at 12 V DC/);
    expect(amps('S2')).toMatch(/^0\.\d+ A carried here at 12 V DC/);
  });
  it('of a suppressor blocks the circuit’s volts, bears the winding’s current and stands the right way round', () => {
    const tiller = demoCircuit('groomer-tiller-float');
    const wanted = Object.fromEntries(
      spareRatings(new CircuitModel(tiller), 'V14', 'bar').map((one) => [one.name, one.wanted]),
    );
    expect(wanted['Stands off']).toMatch(/^over 12 V/);
    expect(wanted['Amps, for a moment']).toMatch(/^1\.6\d? A of the winding/);
    expect(wanted['Way round']).toContain('band on Y14:1');
  });
  it('of a valve has its ways, what it does at rest and the pressure it shifts at', () => {
    const gate = demoCircuit('compressor-gate');
    const ratings = spareRatings(new CircuitModel(gate), 'Q1', 'bar');
    expect(ratings).toContainEqual({ name: 'Ways and rest', wanted: '5/3, exhaust centre' });
    expect(ratings).toContainEqual({ name: 'Pilot pressure', wanted: 'shifts from 2.5 bar' });
  });
  it('of every kind is matched by something', () => {
    for (const { build } of TEMPLATES) {
      const circuit = build();
      for (const { ref } of circuit.parts)
        expect(spareRatings(new CircuitModel(circuit), ref, 'bar').length).toBeGreaterThan(0);
    }
  });
  it('of a fuse is never larger', () => {
    expect(spareRatings(model, 'F1', 'bar')[0]!.wanted).toContain('never larger');
    expect(spareRatings(model, 'none', 'bar')).toEqual([]);
  });
});
