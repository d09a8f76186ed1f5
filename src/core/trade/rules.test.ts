import { isOnPart, placeOfFault } from '../diagnosis/onPart';
import { gatherObservations } from '../diagnosis/observations';
import { suppliesNeeded } from '../safety/suppliesNeeded';
import { countsAsElectronic } from '../safety/electronics';
import { freedLoads } from '../safety/heldLoads';
import { TEMPLATES } from '../templates/templates';
import { workingPatterns } from '../diagnosis/patterns';
import type { Test } from '../circuit/schema';
import { Story } from './story';

/** Rules that hold for every circuit: tried on all templates, after the complaint that one of their parts would bring. */
describe.each(TEMPLATES.map(({ id, build }) => [id, build] as const))('%s', (_id, build) => {
  const circuit = build();
  const { diagnoser } = new Story(circuit);
  const { model, faults } = diagnoser;
  const hidden = faults.find(({ fault, other }) => fault === 'open' && other === undefined)!;
  const complaint = workingPatterns(model).flatMap(({ setup, loads }) =>
    circuit.parts
      .filter(({ ref, kind }) => loads.includes(ref) && ['coil', 'motor', 'lamp', 'heater'].includes(kind))
      .map(({ ref }): Test => ({ kind: 'function', part: ref, setup })),
  );
  const story = new Story(circuit, [hidden.ref, hidden.fault]).take(...complaint);
  const told = story.ask({ most: 300 });

  it('bands meet, in order, end where nothing reads, and hold what they are named after', () => {
    for (const { outcomes, test } of told.next) {
      if (outcomes[0]!.low === undefined) continue;
      // Only what the sound circuit reads ends by itself; a fault's answers go on outwards.
      const [first, last] = [outcomes[0]!, outcomes.at(-1)!];
      if (!first.sound) expect([test, first.low]).toEqual([test, -Infinity]);
      if (!last.sound) expect([test, last.high]).toEqual([test, Infinity]);
      const sound = outcomes.find((one) => one.sound)!;
      if (test.kind === 'ohms' && typeof sound.reading === 'number')
        expect([test, sound.high! < Infinity]).toEqual([test, true]);
      outcomes.slice(1).forEach(({ low }, k) => expect(low).toBe(outcomes[k]!.high));
      for (const { low, high } of outcomes)
        if (outcomes.length > 1) expect([test, low! < high!]).toEqual([test, true]);
      expect(outcomes.filter(({ sound }) => sound)).toHaveLength(1);
    }
  });

  it('test volts reach nothing electronic, no bonded far end, and are those of the circuit’s class', () => {
    for (const { test, expected } of told.next) {
      if (test.kind !== 'insulation') continue;
      expect(typeof expected === 'number' ? expected : Infinity).toBeGreaterThan(2e5);
      const bound = gatherObservations(model, [{ ...test, value: 'OL' }])[0]!.bound;
      const { situation } = bound.solver;
      const near = [test.from, test.to].map((name) => model.compiled.nodeIndex.get(name)!);
      for (const { part, branches } of model.compiled.parts) {
        if (!countsAsElectronic(part) || situation.setup.removed?.includes(part.ref)) continue;
        for (const { index } of branches)
          for (const end of [situation.a[index]!, situation.b[index]!])
            if (end !== model.compiled.frame) expect(near).not.toContain(end);
      }
    }
  });

  it('nothing is opened that a test does not need, and loads stand blocked where it would free them', () => {
    for (const { test } of told.next.slice(0, 60)) {
      const needed = suppliesNeeded(model, test);
      expect(new Set(needed).size).toBe(needed.length);
      for (const ref of test.setup.isolated ?? []) expect(needed).not.toContain(ref);
      expect(freedLoads(model, test.setup)).toEqual([]);
    }
  });

  it('is named only with a reading on the part itself, and after its way was shown', () => {
    const end = story.follow(10);
    if (end.verdict.state !== 'name') return expect(end.verdict.state).not.toBe('noFault');
    const { part, proofs } = end.verdict;
    const lead = end.suspects.find((one) => one.part === part)!;
    const counted = lead.for.filter(({ reading, onPart }) => onPart && proofs.readings.includes(reading));
    expect(counted.length).toBeGreaterThan(0);
    expect(new Set(proofs.readings).size).toBe(proofs.readings.length);
    expect(proofs).toMatchObject({ have: 2, need: 2, onPart: true });
    expect(typeof isOnPart).toBe(typeof placeOfFault);
  });
});
