import { CircuitModel } from '../../circuit/model';
import type { Circuit, Reading } from '../../circuit/schema';
import { changeOverRelay, multiOutput, winchPack } from '../../templates/electrical';
import { gateValve } from '../../templates/fluid';
import type { FunctionsAnswer } from '../functions/functions';
import { jobSheet } from './build';

import { follow, MARKS } from '../testing/followSheet';

const refs = (suspect: FunctionsAnswer['suspect']) => suspect.map(({ part }) => part);

describe('all functions of a job', () => {
  it('functions: what all that fails has in common and nothing that works needs, with as few tried as may be', () => {
    const { sheet, readings } = follow(multiOutput(), 'functions', ['Y2', 'open']);
    const { suspect } = sheet.answers[0] as FunctionsAnswer;
    expect(refs(suspect)).toContain('Y2');
    expect(refs(suspect)).not.toContain('G1');
    expect(readings.length).toBeLessThanOrEqual(sheet.rows.length);
    const { sheet: all } = follow(multiOutput(), 'functions', ['F1', 'open']);
    expect(refs((all.answers[0] as FunctionsAnswer).suspect)).toContain('F1');
    // What a relay switches needs the relay's own feed too.
    const model = new CircuitModel(changeOverRelay());
    const dead: Reading = {
      ...jobSheet(model, 'functions', [], MARKS)!.rows.find(({ name }) => name === 'H1')!.cells[0]!.test,
      value: 'dead',
    } as Reading;
    const found = jobSheet(model, 'functions', [dead], MARKS)!.answers[0] as FunctionsAnswer;
    expect(refs(found.suspect)).toEqual(expect.arrayContaining(['F1', 'F2', 'S1', 'K1', 'W3']));
  });
  it('functions: what a cylinder does one way says nothing of the other', () => {
    const model = new CircuitModel(gateValve());
    const [one, other] = jobSheet(model, 'functions', [], MARKS)!.rows.map(({ cells }) => cells[0]!.test);
    const readings = [
      { ...one, value: 'dead' },
      { ...other, value: 'works' },
    ] as Reading[];
    const sheet = jobSheet(model, 'functions', readings, MARKS)!;
    expect(sheet.rows.map(({ verdict }) => verdict)).toEqual(['dead', 'good']);
    // The valve that shifts one way may still stick the other; what feeds both ways is cleared.
    const { suspect, cleared } = sheet.answers[0] as FunctionsAnswer;
    const left = refs(suspect);
    const valve = model.compiled.circuit.parts.find(({ kind }) => kind === 'valve')!;
    const fuse = model.compiled.circuit.parts.find(({ kind }) => kind === 'fuse')!;
    expect(left).toContain(valve.ref);
    expect(left).not.toContain(fuse.ref);
    expect(cleared).toContain(fuse.ref);
  });
  it('what a motor needs one way round is not what it needs the other', () => {
    const { sheet } = follow(winchPack(), 'functions', ['K4', 'stuckOpen']);
    const { suspect, cleared } = sheet.answers[0] as FunctionsAnswer;
    expect(new Set(refs(suspect).slice(0, 4))).toEqual(new Set(['K3', 'K4', 'S2', 'W3']));
    // One that is welded, or stuck closed, runs well the one way, and shorts the other.
    expect(refs(suspect)).toEqual(expect.arrayContaining(['K1', 'K2', 'S1']));
    expect(refs(suspect)).not.toContain('G1');
    expect(cleared).toEqual(expect.arrayContaining(['F0']));
    expect(cleared).not.toContain('K1');
  });
  it('what a relay carries at rest clears nothing of what it does when it is called', () => {
    const { sheet } = follow(changeOverRelay(), 'functions', ['K1', 'open']);
    const { suspect, cleared } = sheet.answers[0] as FunctionsAnswer;
    expect(refs(suspect)).toContain('K1');
    expect(cleared).not.toContain('K1');
  });
  it('nor does it while nothing fails, and what has two ways is cleared once both of them work', () => {
    const cleared = (circuit: Circuit, works: (name: string) => boolean) => {
      const model = new CircuitModel(circuit);
      const readings = jobSheet(model, 'functions', [], MARKS)!
        .rows.filter(({ name }) => works(name))
        .map(({ cells }) => ({ ...cells[0]!.test, value: 'works' }) as Reading);
      return (jobSheet(model, 'functions', readings, MARKS)!.answers[0] as FunctionsAnswer).cleared;
    };
    // H2 hangs on the contact that is closed at rest.
    expect(cleared(changeOverRelay(), (name) => name === 'H2')).not.toContain('K1');
    expect(cleared(changeOverRelay(), () => true)).toContain('K1');
    const valve = gateValve().parts.find(({ kind }) => kind === 'valve')!.ref;
    const first = jobSheet(new CircuitModel(gateValve()), 'functions', [], MARKS)!.rows[0]!.name;
    expect(cleared(gateValve(), (name) => name === first)).not.toContain(valve);
    expect(cleared(gateValve(), () => true)).toContain(valve);
  });
});
