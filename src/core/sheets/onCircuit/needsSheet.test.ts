import { CircuitModel } from '../../circuit/model';
import type { Circuit } from '../../circuit/schema';
import { oilOpened } from '../../safety/pressedOil';
import { airClamp, gateValve, hydraulicLift } from '../../templates/fluid';
import type { NeedsAnswer } from '../needs/needs';
import { jobSheet } from './build';

import { follow, MARKS } from '../testing/followSheet';

describe('three needs of a valve, in a job', () => {
  it('needs of a valve: what is missing is what is wrong there, and what cannot be told is not said', () => {
    const missing = (circuit: Circuit, fault: [string, string, number?]) => {
      const { sheet } = follow(circuit, 'needs', fault);
      return (sheet.answers[0] as NeedsAnswer).missing;
    };
    const clamp = airClamp();
    expect(missing(clamp, ['Z2', 'lowPressure', 0.3])).toEqual(['air']);
    expect(missing(clamp, ['W1', 'open'])).toEqual(['electricity']);
    expect(missing(clamp, ['Y1', 'open'])).toEqual(['coil']);
    expect(missing(clamp, ['Q1', 'stuckMidway'])).toEqual(['valve']);
    expect(missing(clamp, ['Q1', 'stuckAtRest'])).toEqual(['valve']);
    expect(missing(clamp, ['U3', 'blocked'])).toEqual(['beyond']);
    // The piston lets air past: with its outlets plugged nothing pushes at the valve’s exhaust.
    expect(missing(clamp, ['C1', 'sealLeak'])).toEqual(['beyond']);
    // A choked line shows full pressure until something flows.
    expect(missing(clamp, ['H1', 'blocked'])).toEqual(['air']);
    // Where nobody can feel at an exhaust, an outlet that blows on command and not at rest clears the spool.
    expect(missing(gateValve(), ['C1', 'jammed'])).toEqual(['beyond']);
    expect(missing(gateValve(), ['Q1', 'stuckMidway'])).toEqual(['valve']);
    // The opposite button sticks: both coils are fed.
    expect(missing(gateValve(), ['S12', 'stuckClosed'])).toEqual(['electricity']);
  });
  it('needs of a valve on oil: gauge, hand lever and volts, and no hand at an open line', () => {
    const circuit = hydraulicLift();
    const model = new CircuitModel(circuit);
    const { rows } = jobSheet(model, 'needs', [], MARKS)!;
    expect(rows.map(({ check }) => check)).toEqual([
      'supply',
      'override',
      'clicks',
      'coil',
      'outletGauge',
      'commanded',
    ]);
    for (const { cells } of rows) expect(oilOpened(model, cells[0]!.test)).toEqual([]);
  });
  it('a valve of two coils is looked at by either', () => {
    const { sheet } = follow(gateValve(), 'needs', ['Y12', 'open']);
    const [by14, by12] = sheet.answers as NeedsAnswer[];
    expect(by14!.missing).toEqual([]);
    expect(by12!.missing).toEqual(['coil']);
    expect(new Set(sheet.rows.map(({ name }) => name))).toEqual(new Set(['Q1 Y14', 'Q1 Y12']));
  });
  it('on oil a gauge behind it tells the spool from what it moves', () => {
    const missing = (fault: [string, string]) =>
      (follow(hydraulicLift(), 'needs', fault).sheet.answers[0] as NeedsAnswer).missing;
    expect(missing(['Q1', 'stuckAtRest'])).toEqual(['valve']);
    expect(missing(['C1', 'jammed'])).toEqual(['beyond']);
  });
});
