import { demoCircuit } from '@/testing/demoCircuits';
import { CircuitModel } from '../../circuit/model';
import type { Circuit } from '../../circuit/schema';
import { hydraulicLift } from '../../templates/fluid';
import type { NeedsAnswer } from '../needs/needs';
import { jobSheet } from './build';

import { follow, MARKS, verdicts } from '../testing/followSheet';

describe('outputs of a job, link by link', () => {
  it('outputs link by link: a fuse or an output that does not bear what hangs on it is said', () => {
    const cellar = demoCircuit('cellar-liquid-valve');
    const bearing = (change: object, more: object = {}) => {
      const parts = cellar.parts.map((part) => ({
        ...part,
        ...(part.ref === 'Y1' ? change : part.ref in more ? (more as Record<string, object>)[part.ref] : {}),
      }));
      return jobSheet(new CircuitModel({ ...cellar, parts } as Circuit), 'proofChain', [], MARKS)!.bearing!;
    };
    expect(bearing({})).toEqual([{ code: 'inrushNotKnown', part: 'Y1' }]);
    expect(bearing({ inrushAmps: 1.8 })).toEqual([]);
    expect(bearing({ inrushAmps: 9 })).toMatchObject([{ code: 'fuseAtInrush', part: 'F1', rated: 2 }]);
    expect(bearing({ inrushAmps: 0.8 }, { F1: { amps: 0.5 } })).toMatchObject([
      { code: 'fuseTooSmall', part: 'F1', rated: 0.5 },
    ]);
    expect(bearing({ inrushAmps: 1.8 }, { A1: { limitAmps: 1 } })).toMatchObject([
      { code: 'limitTooSmall', part: 'A1', amps: 1.8, rated: 1 },
    ]);
    expect(
      jobSheet(new CircuitModel(demoCircuit('groomer-comb-flaps')), 'proofChain', [], MARKS)!.bearing,
    ).toEqual([]);
  });
  it('outputs link by link: a program that does not ask is told from its card, where its page shows it', () => {
    const press = demoCircuit('press-clamp');
    const said = (fault: string) => verdicts(follow(press, 'proofChain', ['A1', fault]).sheet);
    expect(said('noCommand')).toEqual({ A1: 'program' });
    expect(said('noOutput')).toEqual({ A1: 'output' });
    const { columns } = jobSheet(new CircuitModel(press), 'proofChain', [], MARKS)!;
    expect(columns).toContain('commandBit');
    expect(
      jobSheet(new CircuitModel(demoCircuit('groomer-comb-flaps')), 'proofChain', [], MARKS)!.columns,
    ).not.toContain('commandBit');
    // The same bit stands on the valve's own sheet, and the command is lost there.
    const needs = follow(press, 'needs', ['A1', 'noCommand']).sheet.answers[0] as NeedsAnswer;
    expect(needs).toMatchObject({ missing: ['electricity'], firstLoss: 'bit' });
  });
  it('outputs link by link: where on its way a command is lost', () => {
    const flaps = demoCircuit('groomer-comb-flaps');
    const of = (fault?: [string, string, number?]) =>
      verdicts(follow(flaps, 'proofChain', fault).sheet)['DQ3'];
    expect(of()).toBe('good');
    expect(of(['DQ3', 'noOutput'])).toBe('output');
    expect(of(['W213', 'open'])).toBe('way');
    expect(of(['W213', 'highResistance', 30])).toBe('way');
    expect(of(['Y53', 'open'])).toBe('load');
    expect(of(['DQ3', 'stuckOn'])).toBe('on');
    // A low side stands at its supply until it is commanded.
    const lift = (fault?: [string, string]) =>
      Object.values(verdicts(follow(hydraulicLift(), 'proofChain', fault).sheet));
    expect(lift()).toEqual(['good']);
    expect(lift(['Y1', 'open'])).not.toEqual(['good']);
    expect(lift(['A1', 'noOutput'])).toEqual(['output']);
  });

  it('what the card reads back says nothing of what the program asks', () => {
    const model = new CircuitModel(demoCircuit('cellar-liquid-valve'));
    const setup = { controls: { call: 'on' } };
    const bit = (which: 'command' | 'feedback') =>
      jobSheet(model, 'proofChain', [{ kind: 'bit', part: 'A1', which, setup, value: '1' }], MARKS)!.rows[0]!
        .cells[1]!.value;
    expect(bit('command')).toBe('1');
    expect(bit('feedback')).toBeNull();
  });
});
