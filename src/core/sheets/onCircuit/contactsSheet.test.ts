import { demoCircuit } from '@/testing/demoCircuits';
import { testKey } from '../../diagnosis/observations';
import { CircuitModel } from '../../circuit/model';
import { changeOverRelay, winchPack } from '../../templates/electrical';
import { jobSheet } from './build';

import { cellAt, follow, MARKS, template, verdicts } from '../testing/followSheet';

describe('contact bank of a job', () => {
  it('contacts: one that clicks and does not make, and all sound ones only after their drop under load', () => {
    const bad = verdicts(follow(winchPack(), 'contacts', ['K3', 'stuckOpen']).sheet);
    expect(bad['K3 P–M2']).toBe('open');
    const { sheet } = follow(winchPack(), 'contacts');
    expect(new Set(Object.values(verdicts(sheet)))).toEqual(new Set(['good']));
  });
  it('one that has welded is found though its drop is good, and is not called good before that', () => {
    const { sheet } = follow(winchPack(), 'contacts', ['K3', 'welded']);
    expect(verdicts(sheet)).toMatchObject({ 'K3 P–M2': 'welded', 'K1 P–M1': 'needsLoad' });
    // Round about over the motor and the welded one the sound one reads closed, too: with its end bare it does not.
    expect(cellAt(sheet, 'K1 P–M1', 'openOhms')!.value).toBeLessThan(1);
    expect(cellAt(sheet, 'K1 P–M1', 'openAlone')!.value).toBe('OL');
    const open = cellAt(sheet, 'K1 P–M1', 'openOhms')!;
    const model = new CircuitModel(winchPack());
    const { readings } = follow(winchPack(), 'contacts');
    const before = readings.filter((one) => testKey(one) !== testKey(open.test));
    expect(verdicts(jobSheet(model, 'contacts', before, MARKS)!)['K1 P–M1']).toBe('carries');
  });
  it('what gets nothing at its coil is not stuck, and nothing is said of its contact', () => {
    const { sheet } = follow(winchPack(), 'contacts', ['W2', 'open']);
    expect(verdicts(sheet)).toMatchObject({
      'K1 P–M1': 'notFed',
      'K2 M2–GND': 'notFed',
      'K3 P–M2': 'carries',
    });
  });
  it('of two alike coils on one feed the one that is open is named: its neighbour’s ohms are not its own', () => {
    const { sheet } = follow(winchPack(), 'contacts', ['K2', 'open']);
    expect(verdicts(sheet)).toMatchObject({
      'K1 P–M1': 'needsLoad',
      'K2 M2–GND': 'coil',
      'K3 P–M2': 'carries',
    });
    expect(cellAt(sheet, 'K2 M2–GND', 'coilOhms')!.value).toBe('OL');
  });
  it('a drop of nothing clears no contact while its load does not run', () => {
    const { sheet } = follow(winchPack(), 'contacts', ['W4', 'open']);
    const said = Object.values(verdicts(sheet));
    expect(said).not.toContain('good');
    expect(said.filter((verdict) => verdict !== null && verdict !== 'needsLoad')).toEqual([]);
  });
  it('nobody is called stuck whom another’s weld makes drop out: that one is read first', () => {
    const { sheet } = follow(demoCircuit('winch-reversing'), 'contacts', ['K2', 'welded']);
    const said = Object.entries(verdicts(sheet));
    expect(said.filter(([, verdict]) => verdict === 'welded').every(([name]) => name.startsWith('K2 '))).toBe(
      true,
    );
    expect(said.map(([, verdict]) => verdict)).toContain('welded');
    expect(said.map(([, verdict]) => verdict)).not.toContain('mechanical');
  });
  it('nor whom another keeps out that is fed while nobody commands it, by a button that sticks', () => {
    for (const fault of ['stuckClosed', 'bridged']) {
      const { sheet } = follow(demoCircuit('winch-reversing'), 'contacts', ['S2I', fault]);
      const said = verdicts(sheet);
      expect(said).toMatchObject({ 'K2 B+–M1:B': 'heldOff', 'K2 M1:A–GND': 'heldOff' });
      expect(cellAt(sheet, 'K2 B+–M1:B', 'rivalAtRest')!.test).toMatchObject({
        kind: 'volts',
        setup: { controls: { pendant: 'rest' } },
      });
    }
    // One that is stuck itself is asked for no longer than that takes.
    const { sheet } = follow(demoCircuit('winch-reversing'), 'contacts', ['K2', 'jammed']);
    expect(verdicts(sheet)).toMatchObject({ 'K2 B+–M1:B': 'mechanical', 'K2 M1:A–GND': 'mechanical' });
  });
  it('a load that draws too much makes no contact bad: a clamp tells the two apart', () => {
    const shorted = follow(demoCircuit('winch-reversing'), 'contacts', ['M1', 'short']);
    expect(new Set(Object.values(verdicts(shorted.sheet)))).toEqual(new Set(['moreDrawn']));
    const leaking = follow(template('compressor-control'), 'contacts', ['W3', 'weakInsulation']);
    expect(Object.values(verdicts(leaking.sheet))).toEqual(['moreDrawn']);
    const before = shorted.readings.filter(({ kind }) => kind !== 'amps');
    const model = new CircuitModel(demoCircuit('winch-reversing'));
    const unknown = jobSheet(model, 'contacts', before, MARKS)!;
    expect(new Set(Object.values(verdicts(unknown)))).toEqual(new Set(['mayDrawMore']));
    expect(unknown.columns[unknown.next![1]]).toBe('amps');
  });
  it('a bad contact is bad once a clamp shows that no more flows, or where no fuse would let so much through', () => {
    const { sheet, readings } = follow(demoCircuit('winch-reversing'), 'contacts', [
      'K1',
      'highResistance',
      0.0035,
    ]);
    expect(Object.values(verdicts(sheet)).sort()).toEqual(['bad', 'carries', 'carries', 'carries']);
    expect(readings.some(({ kind }) => kind === 'amps')).toBe(true);
    // Twenty times the drop would take more than a battery gives.
    const burnt = follow(demoCircuit('winch-reversing'), 'contacts', ['K1', 'highResistance', 0.016]);
    expect(Object.values(verdicts(burnt.sheet))).toContain('bad');
    expect(burnt.readings.some(({ kind }) => kind === 'amps')).toBe(false);
    const worn = follow(template('compressor-control'), 'contacts', ['K1', 'highResistance', 0.03]);
    expect(Object.values(verdicts(worn.sheet))).toEqual(['bad']);
    expect(worn.readings.some(({ kind }) => kind === 'amps')).toBe(true);
    const fused = follow(changeOverRelay(), 'contacts', ['K1', 'highResistance', 1]);
    expect(Object.values(verdicts(fused.sheet))).toContain('bad');
    expect(fused.readings.some(({ kind }) => kind === 'amps')).toBe(false);
  });
});
