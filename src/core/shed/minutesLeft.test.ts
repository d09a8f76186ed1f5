import { CircuitModel } from '../circuit/model';
import type { Reading } from '../circuit/schema';
import { Diagnoser } from '../diagnosis/diagnose';
import { faultByName } from '../diagnosis/faults';
import { bindTest, predict, predictedValue } from '../diagnosis/predict';
import { reduceJob } from '../job/reduceJob';
import { twoWayPair } from '../templates/electrical';
import { entryWriter, fitted } from '../testing/entryWriter';
import { minutesLeft } from './minutesLeft';

const circuit = twoWayPair();
const model = new CircuitModel(circuit);
const diagnoser = new Diagnoser(circuit);
const on = { controls: { lever: 'forward' } };
const dead: Reading = { kind: 'function', part: 'Y1', setup: on, value: 'dead' };
const left = (
  readings: Reading[],
  ...more: (readonly [Parameters<ReturnType<typeof entryWriter>>[0], object])[]
) => {
  const write = entryWriter();
  const state = reduceJob(more.map(([type, body]) => write(type, body)));
  return minutesLeft(model, state, diagnoser.diagnose(readings, { most: 1 }));
};
const decision = (more: object = {}) =>
  ['decision', { part: 'Y1', fault: 'open', action: 'replace', why: 'OL', ...more }] as const;

describe('minutes that a job still needs', () => {
  it('are fewer the less doubt is left, and never more at the least than at the most', () => {
    const begun = left([dead])!;
    expect(begun.least).toBeLessThan(begun.most);
    const { fault, severity } = faultByName(diagnoser.faults, 'Y1', 'open');
    const edits = fault.variants[0]!.edits(severity);
    const readings: Reading[] = [dead];
    for (let k = 0; k < 8; k++) {
      const { next, verdict } = diagnoser.diagnose(readings, { most: 1 });
      if (verdict.state === 'name' || !next[0]) break;
      const { test } = next[0];
      readings.push({
        ...test,
        value: predictedValue(test.kind, predict(bindTest(model, test), edits)),
      } as Reading);
    }
    const known = left(readings)!;
    expect(known.most).toBeLessThan(begun.most);
  });
  it('of a decision are what was estimated for it, and showing it', () => {
    const free = left([dead], decision())!;
    const estimated = left([dead], decision({ minutes: 200 }))!;
    expect(estimated.least - free.least).toBeGreaterThan(100);
    expect(left([dead], decision({ action: 'nothing' }))!.most).toBeLessThan(free.most);
  });
  it('after a work that did not mend it are those of the search again, until something is decided anew', () => {
    const done = [decision(), ['fix', fitted('Y1')] as const] as const;
    const wrong = ['proof', { proof: 'works Y1', done: false, found: 'dead' }] as const;
    const shown = left([dead], ...done)!;
    const again = left([dead], ...done, wrong)!;
    expect(again.most).toBeGreaterThan(2 * shown.most);
    const decided = left([dead], ...done, wrong, decision({ part: 'W1', minutes: 200 }))!;
    expect(decided.least).toBeGreaterThan(200);
  });
  it('after the work are the list that is still open; of a re-test the same; handed over none', () => {
    const fixed = left([dead], decision(), ['fix', fitted('Y1')])!;
    expect(fixed.least).toBeLessThan(left([dead], decision())!.least);
    expect(left([], ['retest', { tests: [] }])!.least).toBeGreaterThan(0);
    expect(left([dead], decision(), ['fix', fitted('Y1')], ['handOver', { note: '' }])).toBeNull();
  });
});
