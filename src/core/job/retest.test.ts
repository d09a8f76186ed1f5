import { CircuitModel } from '../circuit/model';
import type { Test } from '../circuit/schema';
import { testKey } from '../diagnosis/observations';
import { Diagnoser } from '../diagnosis/diagnose';
import { twoWayPair } from '../templates/electrical';
import { entryWriter, fitted } from '../testing/entryWriter';
import { proofList, proofStanding, type Proof } from './proofList';
import { provedMeasures } from './provedMeasures';
import { reduceJob } from './reduceJob';
import { handOverStops } from './rules/handOverStops';
import { mayAppend } from './rules/mayAppend';
import { nextStep } from './rules/nextStep';
import { stepsDone } from './rules/stepsDone';
import { signedAs } from '../testing/signedAs';

const circuit = twoWayPair();
const model = new CircuitModel(circuit);
const on = { controls: { lever: 'forward' } };
const supply: Test = { kind: 'volts', from: 'B+', to: 'GND', setup: on };
const plain = proofList(model, reduceJob([]));
const current = plain.find(
  (proof): proof is Extract<Proof, { kind: 'current' }> => proof.kind === 'current',
)!;
const diagnosis = new Diagnoser(circuit).diagnose([], { most: 1 });

function log(...more: (readonly [Parameters<ReturnType<typeof entryWriter>>[0], object])[]) {
  const write = entryWriter();
  return [
    write('retest', { tests: [supply, current.test] }),
    ...more.map(([type, body]) => write(type, body)),
  ];
}

describe('a look at a sound machine', () => {
  it('reads its places again, beside what is shown anyway, and nothing twice', () => {
    const proofs = proofList(model, reduceJob(log()));
    const followed = proofs.filter(({ kind }) => kind === 'followed');
    expect(followed).toEqual([{ id: 'followed 1', kind: 'followed', test: supply, dead: false }]);
    const keys = proofs.flatMap((proof) =>
      'test' in proof && proof.kind !== 'interlock' ? [testKey(proof.test)] : [],
    );
    expect(new Set(keys).size).toBe(keys.length);
    expect(plain.some(({ kind }) => kind === 'followed')).toBe(false);
  });

  it('goes straight to its list, decides nothing, and is handed over once all is shown', () => {
    const state = reduceJob(log());
    expect(nextStep(state, diagnosis)).toEqual({ step: 'prove' });
    expect(stepsDone(state, null)).toEqual(['complaint']);
    const named = { verdict: { state: 'name', part: 'Y1' }, next: [] } as never;
    expect(nextStep(state, named)).toEqual({ step: 'decide', part: 'Y1' });
    const stops = handOverStops(model, state);
    expect(stops.every(({ code }) => code === 'notShown')).toBe(true);
    expect(stops).toHaveLength(proofList(model, state).length);
  });

  it('counts what it reads as evidence until something is mended, and only the rest as proof of that', () => {
    const read = (value: number) =>
      ['reading', { reading: { ...current.test, value }, typed: '', phase: 'fixed' }] as const;
    const state = reduceJob(log(read(1), ['fix', fitted('Y1')], read(2)));
    expect(state.readings.map(({ reading }) => reading.value)).toEqual([1]);
    expect(state.after.map(({ reading }) => reading.value)).toEqual([1, 2]);
    expect(state.mended).toEqual([{ part: 'Y1', from: 1 }]);
    // In a job with a complaint what is read last proves the work, whatever it is.
    const write = entryWriter();
    expect(reduceJob([write('complaint', { words: 'dead', when: [] }), write(...read(1))]).readings).toEqual(
      [],
    );
  });

  it('has everything to show again once something was mended in it: nothing that was shown before counts', () => {
    const { test, id } = plain.find(({ kind }) => kind === 'works') as Extract<Proof, { kind: 'works' }>;
    const shown = [
      ['reading', { reading: { ...test, value: 'works' }, typed: 'works', phase: 'fixed', check: id }],
      ['proof', { proof: id, done: true, found: 'works' }],
    ] as const;
    const left = ['proof', { proof: current.id, done: false, found: '', reason: 'no clamp here' }] as const;
    const standing = (...more: Parameters<typeof log>) => {
      const state = reduceJob(log(...more));
      return proofList(model, state)
        .filter((proof) => proof.id === id || proof.id === current.id)
        .map((proof) => proofStanding(proof, state).state)
        .sort();
    };
    const fix = ['fix', fitted('Y1')] as const;
    expect(standing(...shown, left)).toEqual(['done', 'signedOff']);
    expect(standing(...shown, left, fix)).toEqual(['open', 'open']);
    expect(standing(...shown, left, fix, ...shown, left)).toEqual(['done', 'signedOff']);
    // A tick alone does not lift the reading of before over the work.
    expect(standing(...shown, fix, shown[1])).toEqual(['open', 'open']);
  });

  it('that was worked on is a job like any other', () => {
    expect(handOverStops(model, reduceJob(log(['fix', fitted('Y1')]))).map(({ code }) => code)).toContain(
      'undecided',
    );
    const decision = { part: 'Y1', fault: 'open', action: 'replace', why: 'OL' };
    expect(nextStep(reduceJob(log(['decision', decision])), diagnosis)).toMatchObject({
      step: 'fix',
      part: 'Y1',
    });
  });

  it('a place is read whatever it reads: its figure is what was wanted', () => {
    const reading = { reading: { ...supply, value: 3.3 }, typed: '3.3', phase: 'fixed', check: 'followed 1' };
    const state = reduceJob(
      log(['reading', reading], ['proof', { proof: 'followed 1', done: true, found: '3.3 V' }]),
    );
    const [followed] = proofList(model, state).filter(({ kind }) => kind === 'followed');
    expect(proofStanding(followed!, state)).toMatchObject({ state: 'done', found: '3.3 V' });
    // A tick without its reading shows nothing.
    const ticked = reduceJob(log(['proof', { proof: 'followed 1', done: true, found: '' }]));
    expect(proofStanding(followed!, ticked).state).toBe('open');
  });

  it('leaves its figures proved, but none from before its own work', () => {
    const reading = (value: number) => ({
      reading: { ...supply, value },
      typed: '',
      phase: 'fixed',
      check: 'a',
    });
    const measured = (...more: Parameters<typeof log>) =>
      provedMeasures(model, reduceJob(log(...more, ['handOver', { note: '' }]))).map(({ value }) => value);
    expect(measured(['reading', reading(12.4)])).toEqual([12.4]);
    expect(measured(['reading', reading(9)], ['fix', fitted('W1')])).toEqual([]);
    expect(measured(['reading', reading(9)], ['fix', fitted('W1')], ['reading', reading(12.4)])).toEqual([
      12.4,
    ]);
  });

  it('asks for nothing that this drawing cannot answer', () => {
    const write = entryWriter();
    const before = {
      model,
      log: () => [],
      after: () => [],
      receivedMs: Date.UTC(2026, 1, 4, 8, 30),
      signing: signedAs(),
    };
    expect(mayAppend(write('retest', { tests: [supply] }), before)).toBeNull();
    const gone = { ...supply, from: 'X99' };
    expect(mayAppend(write('retest', { tests: [gone] }), before)).toMatchObject({ code: 'input' });
    // One of an earlier drawing is left out where the list is made.
    expect(
      proofList(model, reduceJob([write('retest', { tests: [gone] })])).some(
        ({ kind }) => kind === 'followed',
      ),
    ).toBe(false);
  });
});
