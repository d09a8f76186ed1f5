import { CircuitModel } from '../../circuit/model';
import type { Circuit, Test } from '../../circuit/schema';
import { Diagnoser } from '../../diagnosis/diagnose';
import { listFaults } from '../../diagnosis/faults';
import { MachineUnderTest } from '../../testing/machineUnderTest';
import { hydraulicLift } from '../../templates/fluid';

/** The lift with a relief valve beside its pump. */
function relieved(kPa: number): Circuit {
  const { parts, ...rest } = hydraulicLift();
  return { ...rest, parts: [...parts, { ref: 'RV1', kind: 'relief', nodes: { in: 'P' }, kPa }] };
}
const gauge: Test = { kind: 'pressure', at: 'P', setup: { controls: { lever: 'lift' } } };
const read = (circuit: Circuit, ...fault: [part?: string, fault?: string, severity?: number]) =>
  new MachineUnderTest(circuit, ...fault).value(gauge) as number;

describe('a relief valve', () => {
  it('does nothing below its pressure, and lets no more than that stand', () => {
    expect(read(relieved(17_500))).toBeCloseTo(read(hydraulicLift()), 3);
    const held = read(relieved(10_000));
    expect(held).toBeGreaterThan(10_000);
    expect(held).toBeLessThan(12_000);
  });
  it('that opens early, or does not shut, leaves too little; one that does not open, all of the pump', () => {
    const sound = read(relieved(17_500));
    expect(read(relieved(17_500), 'RV1', 'lowPressure', 0.4)).toBeLessThan(0.6 * sound);
    expect(read(relieved(17_500), 'RV1', 'leaking', 1)).toBeLessThan(0.3 * sound);
    expect(read(relieved(10_000), 'RV1', 'stuckClosed')).toBeCloseTo(sound, 3);
  });
  it('stands among the suspects beside the pump where the gauge reads too little', () => {
    const circuit = relieved(17_500);
    const machine = new MachineUnderTest(circuit, 'RV1', 'lowPressure', 0.3);
    const { suspects } = new Diagnoser(circuit).diagnose([
      { ...gauge, value: machine.value(gauge) } as never,
    ]);
    expect(
      suspects
        .slice(0, 2)
        .map(({ part }) => part)
        .sort(),
    ).toEqual(['P1', 'RV1']);
    const faults = listFaults(new CircuitModel(circuit)).filter(({ ref }) => ref === 'RV1');
    expect(faults.map(({ fault }) => fault).sort()).toEqual(['leaking', 'lowPressure', 'stuckClosed']);
  });
});
