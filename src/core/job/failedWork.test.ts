import { Diagnoser } from '../diagnosis/diagnose';
import { faultKey } from '../diagnosis/experience';
import { twoWayPair } from '../templates/electrical';
import { entryWriter, fitted } from '../testing/entryWriter';
import { MachineUnderTest } from '../testing/machineUnderTest';
import { proofList, type Proof } from './proofList';
import { reduceJob } from './reduceJob';
import { compareWires } from './restoreCheck';
import { handOverStops } from './rules/handOverStops';
import { nextStep } from './rules/nextStep';
import { stepsDone, type StepId } from './rules/stepsDone';

const circuit = twoWayPair();
const diagnoser = new Diagnoser(circuit);
/** A feed wire with a bad joint; the coil was changed for it. */
const wire = diagnoser.faults.find(({ ref, fault }) => ref.startsWith('W') && fault === 'highResistance')!;
const machine = new MachineUnderTest(circuit, wire.ref, 'highResistance', 12);
const sound = new MachineUnderTest(circuit);
const proofs = proofList(diagnoser.model, reduceJob([]));
const ofCoil = proofs.filter(
  (proof): proof is Extract<Proof, { kind: 'works' | 'current' }> =>
    (proof.kind === 'works' || proof.kind === 'current') && proof.part === 'Y1',
);

const CARRIED: readonly StepId[] = ['make-safe', 'test', 'decide', 'fix'];

function story() {
  const write = entryWriter();
  const log = [
    write('complaint', { words: 'dead', when: [] }),
    write('decision', { part: 'Y1', fault: 'open', action: 'replace', why: 'last year too' }),
    write('fix', fitted('Y1')),
  ];
  const prove = (on: MachineUnderTest, done: boolean) =>
    ofCoil.forEach(({ id, test }) => {
      const value = on.value(test);
      log.push(write('reading', { reading: { ...test, value }, typed: '', phase: 'fixed', check: id }));
      log.push(write('proof', { proof: id, done, found: String(value) }));
    });
  const weigh = () => {
    const state = reduceJob(log);
    const diagnosis = diagnoser.diagnose(
      state.readings.map(({ reading }) => reading),
      { mended: state.mended, most: 3 },
    );
    const share = (part: string) =>
      diagnosis.suspects.filter((one) => one.part === part).reduce((sum, one) => sum + one.share, 0);
    return { state, diagnosis, share };
  };
  return { log, write, prove, weigh };
}

describe('a work that did not mend it', () => {
  it('is told by what was to prove it: the new part is good, and the search goes on', () => {
    const { prove, weigh } = story();
    expect(weigh().state).toMatchObject({ failed: false, readings: [] });
    prove(machine, false);
    const { state, diagnosis, share } = weigh();
    expect(state.failed).toBe(true);
    expect(state.readings).toHaveLength(ofCoil.length);
    expect(share('Y1')).toBeLessThan(0.1);
    expect(diagnosis.suspects.map(faultKeyOf)).toContain(faultKey(wire));
    expect(nextStep(state, diagnosis)).toMatchObject({ step: 'test' });
  });

  it('stays evidence when the next one is proved, which is none itself', () => {
    const { log, write, prove, weigh } = story();
    prove(machine, false);
    log.push(write('decision', { part: wire.ref, fault: 'highResistance', action: 'repair', why: '' }));
    log.push(write('fix', fitted(wire.ref)));
    prove(sound, true);
    const { state, diagnosis } = weigh();
    expect(state.failed).toBe(false);
    expect(state.readings).toHaveLength(ofCoil.length);
    expect(state.mended).toEqual([
      { part: 'Y1', from: 0 },
      { part: wire.ref, from: ofCoil.length },
    ]);
    expect(nextStep(state, diagnosis)).toEqual({ step: 'prove' });
  });

  it('leaves nothing done for the next part: neither made safe, nor decided, nor mended', () => {
    const { log, write, prove, weigh } = story();
    // Its lock is off again: the work is done.
    log.push(write('madeSafe', { points: ['G1'] }));
    const done = () => stepsDone(reduceJob(log), null).filter((step) => CARRIED.includes(step));
    expect(done()).toEqual(CARRIED);
    prove(machine, false);
    expect(done()).toEqual([]);
    log.push(write('decision', { part: wire.ref, fault: 'highResistance', action: 'repair', why: '' }));
    expect(done()).toEqual(['test', 'decide']);
    const { state, diagnosis } = weigh();
    expect(nextStep(state, diagnosis)).toEqual({ step: 'fix', action: 'repair', part: wire.ref });
    expect(handOverStops(diagnoser.model, state)).toContainEqual({ code: 'noFix', part: wire.ref });
    log.push(write('fix', fitted(wire.ref)));
    expect(done()).toEqual(CARRIED);
    expect(handOverStops(diagnoser.model, reduceJob(log)).map(({ code }) => code)).not.toContain('noFix');
    expect(nextStep(weigh().state, diagnosis)).toEqual({ step: 'prove' });
  });

  it('takes its wires off again: what was back by the first work is to be seen back by the next', () => {
    const { log, write, prove } = story();
    const wire1 = { part: 'Y1', terminal: '1', mark: '7', colour: 'red', to: 'X1', through: 'switched' };
    const put = (phase: 'found' | 'left') => log.push(write('wire', { ...wire1, phase }));
    const decide = () =>
      log.push(write('decision', { part: 'Y1', fault: 'open', action: 'replace', why: '' }));
    const back = () => compareWires(reduceJob(log)).map(({ state }) => state);
    put('found');
    expect(back()).toEqual(['missing']);
    put('left');
    expect(back()).toEqual(['same']);
    // Words of a decision that are put right take nothing off.
    decide();
    put('left');
    expect(back()).toEqual(['same']);
    prove(machine, false);
    expect(back()).toEqual(['same']);
    decide();
    expect(back()).toEqual(['missing']);
    // It may be seen back before the work is written down, or after it.
    put('left');
    log.push(write('fix', fitted('Y1')));
    expect(back()).toEqual(['same']);
    // Two lines about one work are one work.
    log.push(write('fix', fitted('Y1')));
    expect(back()).toEqual(['same']);
  });

  it('was a slip of the finger where the same line is shown after all', () => {
    const { prove, weigh } = story();
    prove(sound, false);
    prove(sound, true);
    expect(weigh().state).toMatchObject({ failed: false, readings: [] });
  });
});

function faultKeyOf({ part, fault }: { part: string; fault: string }): string {
  return `${part}|${fault}`;
}
