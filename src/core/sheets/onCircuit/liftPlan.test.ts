import { demoCircuit } from '@/testing/demoCircuits';
import { CircuitModel } from '../../circuit/model';
import { shopMarks } from '../../tables/marks';
import { jobSheet } from './build';
import { liftPlan } from './liftPlan';

const MARKS = shopMarks({});
const sheetOf = (name: string) => {
  const model = new CircuitModel(demoCircuit(name));
  return { model, sheet: jobSheet(model, 'insulation', [], MARKS)! };
};

describe('what comes off before a tester', () => {
  it('each thing once, what most places need first; as things come off places are ready', () => {
    const { model, sheet } = sheetOf('pump-fill-valve');
    const plan = liftPlan(model, sheet, new Set())!;
    const items = plan.off.map(({ body }) => body.item);
    expect(new Set(items).size).toBe(items.length);
    expect(items).toContain('Plug X2 off');
    const places = plan.off.map((line) => line.places);
    expect(places).toEqual([...places].sort((a, b) => b - a));
    expect(plan.open).toBe(sheet.rows.length);
    const all = liftPlan(model, sheet, new Set(items))!;
    expect(all.ready).toBe(all.open);
    expect(plan.ready).toBeLessThan(plan.open);
  });
  it('names what no test volts may reach, and every open place keeps clear of it', () => {
    const { model, sheet } = sheetOf('groomer-comb-flaps');
    const { electronic, off } = liftPlan(model, sheet, new Set())!;
    expect(electronic).toEqual(expect.arrayContaining(['DQ1', 'DQ2', 'DQ3', 'DQ4']));
    expect(off.length).toBeGreaterThan(0);
    expect(off.every(({ body }) => body.kind === 'lifted')).toBe(true);
  });
  it('of places that were read nothing comes off any more', () => {
    const { model, sheet } = sheetOf('pump-fill-valve');
    const readings = sheet.rows.map(({ cells: [cell] }) => ({ ...cell!.test, value: 'OL' }) as never);
    expect(liftPlan(model, jobSheet(model, 'insulation', readings, MARKS)!, new Set())).toBeNull();
  });
});
