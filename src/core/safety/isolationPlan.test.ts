import { CircuitModel } from '../circuit/model';
import { circuitSchema } from '../circuit/schema';
import { airClamp } from '../templates/fluid';
import { contactorTwoSupplies } from '../templates/line';
import { singleCoil, winchPack } from '../templates/electrical';
import { isolationPlan, stillLive } from './isolationPlan';

describe('the isolation plan', () => {
  it('names the only battery, what it reaches and where it is proved dead', () => {
    const [battery, ...rest] = isolationPlan(new CircuitModel(singleCoil({ volts: 25.2 })));
    expect(rest).toEqual([]);
    expect(battery).toMatchObject({ point: 'G1', energy: 'battery' });
    expect(battery!.reaches).toEqual(expect.arrayContaining(['F1', 'Y1']));
    expect(battery!.prove[0]!.volts).toBeCloseTo(25.2, 0);
  });

  it('never forgets the second supply: each has its own point and its own proof', () => {
    const model = new CircuitModel(contactorTwoSupplies());
    const sources = model.compiled.circuit.parts.filter(({ kind }) => kind === 'source');
    const electrical = isolationPlan(model).filter(({ prove }) => prove.length > 0);
    expect(sources.length).toBeGreaterThan(1);
    expect(electrical.map(({ point }) => point).sort()).toEqual(sources.map(({ ref }) => ref).sort());
    // With the first alone isolated something is live still; with all of them nothing is.
    const [first] = sources;
    expect(stillLive(model, [first!.ref]).length).toBeGreaterThan(0);
    expect(
      stillLive(
        model,
        sources.map(({ ref }) => ref),
      ),
    ).toEqual([]);
  });

  it('lists air, what moves, and what the machine’s own list adds', () => {
    const circuit = circuitSchema.parse({
      ...airClamp(),
      energies: [{ energy: 'heldLoad', name: 'Clamp jaw', how: 'Rest it on the block' }],
    });
    const model = new CircuitModel(circuit);
    const plan = isolationPlan(model);
    // The load is down before the air that may hold it is vented; what moves is tried when all else is off.
    expect(plan.map(({ energy }) => energy)).toEqual(['heldLoad', 'battery', 'air', 'moving']);
    expect(plan[0]).toMatchObject({ point: 'Clamp jaw', how: 'Rest it on the block' });
    const electrical = plan.filter(({ energy }) => energy === 'battery').map(({ point }) => point);
    expect(stillLive(model, electrical).every(({ kPa }) => kPa !== undefined)).toBe(true);
    expect(stillLive(model, electrical).length).toBeGreaterThan(0);
  });

  it('a motor can start by itself', () => {
    const plan = isolationPlan(new CircuitModel(winchPack()));
    expect(plan.some(({ energy, reaches }) => energy === 'moving' && reaches.length > 0)).toBe(true);
  });

  it('tells two supplies of one name apart, and proves each where it alone feeds', () => {
    const plan = isolationPlan(new CircuitModel(contactorTwoSupplies()));
    const labels = plan.filter(({ point }) => point === 'G1' || point === 'G2').map(({ label }) => label);
    expect(labels).toEqual(['Line supply, 240 V AC', 'Line supply, 120 V AC']);
    const places = (ref: string) => plan.find(({ point }) => point === ref)!.prove.map(({ from }) => from);
    expect(places('G1')).not.toContain('R');
    expect(places('G2')).toContain('R');
  });
});
