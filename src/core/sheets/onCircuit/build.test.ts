import { demoCircuit, demoCircuits } from '@/testing/demoCircuits';
import { shopMarks } from '../../tables/marks';
import { CircuitModel } from '../../circuit/model';
import { parseCircuit } from '../../circuit/parse';
import { emptyDrawing, layChains } from '../../draw/layChain';
import type { Reading } from '../../circuit/schema';
import { listFaults } from '../../diagnosis/faults';
import { guardsDefeated } from '../../safety/guards';
import {
  changeOverRelay,
  clutchInterlocks,
  heaterSelector,
  singleCoil,
  twoWayPair,
} from '../../templates/electrical';
import { airClamp, hydraulicLift } from '../../templates/fluid';
import { TEMPLATES } from '../../templates/templates';
import { jobSheet } from './build';
import type { TimelineAnswer } from './timelineSheet';
import { follow, MARKS, verdicts } from '../testing/followSheet';
import { JOB_SHEETS, type JobSheet } from './jobSheet';

describe('sheets that a circuit fills in', () => {
  it('coils: an open one, and one with shorted turns, beside its twin', () => {
    expect(verdicts(follow(twoWayPair(), 'coil', ['Y1', 'open']).sheet)).toEqual({ Y1: 'open', Y2: 'good' });
    expect(verdicts(follow(twoWayPair(), 'coil', ['Y2', 'shortedTurns', 4]).sheet)).toEqual({
      Y1: 'good',
      Y2: 'low',
    });
    expect(verdicts(follow(twoWayPair(), 'coil').sheet)).toEqual({ Y1: 'good', Y2: 'good' });
  });
  it('coils: a display that wanders judges neither that winding nor its twin by it', () => {
    const circuit = twoWayPair();
    const model = new CircuitModel(circuit);
    const cells = jobSheet(model, 'coil', [], MARKS)!.rows.map(({ cells }) => cells[0]!);
    const sound = cells[0]!.expected as number;
    const wandering = [0.97, 1.4, 0.8].map(
      (share) => ({ ...cells[0]!.test, value: sound * share, unsteady: true }) as Reading,
    );
    const steady = { ...cells[1]!.test, value: sound } as Reading;
    const sheet = jobSheet(model, 'coil', [...wandering, steady], MARKS)!;
    expect(verdicts(sheet)).toEqual({ Y1: 'wandering', Y2: 'good' });
    expect(sheet.rows[0]!.cells[0]).toMatchObject({
      value: sound * 0.97,
      wandered: wandering.map(({ value }) => value),
    });
    expect(sheet.coils![1]!.document.twins).toEqual([]);
    // Read again, and steady: that is what it reads.
    const again = jobSheet(
      model,
      'coil',
      [...wandering, { ...steady, ...cells[0]!.test } as Reading],
      MARKS,
    )!;
    expect(verdicts(again)).toMatchObject({ Y1: 'good' });
    expect(again.rows[0]!.cells[0]!.wandered).toBeUndefined();
  });
  it('interlocks: half-split to the first contact that loses the volts', () => {
    const { sheet, readings } = follow(clutchInterlocks(), 'interlocks', ['S2', 'stuckOpen']);
    expect(verdicts(sheet)['S2']).toBe('bad');
    expect(readings.length).toBeLessThan(5);
  });
  it('interlocks: what lies between two contacts loses volts in a place of its own', () => {
    const circuit = demoCircuit('groomer-blade-float');
    const { sheet } = follow(circuit, 'interlocks', ['W12', 'open']);
    expect(verdicts(sheet)).toMatchObject({ W12: 'bad', S1: 'good' });
    expect(verdicts(follow(circuit, 'interlocks', ['S5', 'stuckOpen']).sheet)).toMatchObject({
      S5: 'bad',
      W12: 'good',
    });
  });
  it('plugs: the pin that does not stand as drawn, then what tells why; the side of the loom is read', () => {
    const circuit = demoCircuit('groomer-comb-flaps');
    const { sheet, readings } = follow(circuit, 'survey', ['W212', 'open']);
    expect(verdicts(sheet)['X50.2']).toBe('bad');
    expect(Object.values(verdicts(sheet)).filter((one) => one === 'bad')).toHaveLength(1);
    expect(readings.length).toBeLessThanOrEqual(6);
    const sound = follow(circuit, 'survey');
    expect(new Set(Object.values(verdicts(sound.sheet)))).toEqual(new Set(['good']));
    const shorted = follow(circuit, 'survey', ['W213', 'shortToFrame', 0.4]).sheet;
    expect(verdicts(shorted)['X50.3']).toBe('bad');
    // A pin that leads home is read where it leads home, with its plug off.
    const tilt = jobSheet(new CircuitModel(demoCircuit('groomer-blade-tilt')), 'survey', [], MARKS)!;
    const back = tilt.rows.find(({ name }) => name === 'X7.2')!.cells;
    expect(back[1]).toBeNull();
    expect(back[2]!.test).toMatchObject({ from: 'X7:2', setup: { unplugged: ['X7'] } });
  });
  it('volts lost: each place against its own row, the shop’s own figure before the table’s', () => {
    const model = new CircuitModel(demoCircuit('groomer-blade-float'));
    const rules = { 'contact-drops|One crimp, lug or bolted joint|good': 0.02 };
    const { held } = jobSheet(model, 'drop', [], shopMarks(rules))!;
    const joint = held!.find(({ row }) => row.startsWith('One crimp'))!;
    expect(joint.figures[0]).toMatchObject({ value: 0.02, own: 'shop' });
    expect(joint.figures[1]).toMatchObject({ value: 0.1, own: 'table' });
    expect(new Set(held!.map(({ row }) => row)).size).toBe(held!.length);
  });
  it.each(demoCircuits())('insulation of $name: whatever leaks is narrowed down to it', ({ circuit }) => {
    const leaks = listFaults(new CircuitModel(circuit)).filter(
      ({ fault }) => fault === 'weakInsulation' || fault === 'shortToFrame',
    );
    expect(leaks.length).toBeGreaterThan(0);
    for (const { ref, fault } of leaks) {
      const { sheet } = follow(circuit, 'insulation', [ref, fault, 2e5]);
      expect(sheet.liesOn).toContain(ref);
      expect(sheet.liesOn!.length).toBeLessThanOrEqual(3);
    }
  });

  it('diodes: each alone, both ways; one that is in the wrong way round, shorted or open', () => {
    const circuit = demoCircuit('groomer-blade-tilt');
    const said = (fault: string) => verdicts(follow(circuit, 'diodes', ['V7', fault]).sheet);
    expect(said('reversed')).toEqual({ V7: 'reversed', V8: 'good' });
    expect(said('short')).toEqual({ V7: 'shorted', V8: 'good' });
    expect(said('open')).toEqual({ V7: 'open', V8: 'good' });
    // The coil is out of the way in every set-up: what lies across a diode would hide it.
    for (const { cells } of jobSheet(new CircuitModel(circuit), 'diodes', [], MARKS)!.rows)
      for (const cell of cells) expect(cell!.test.setup.lifted).toHaveLength(1);
  });

  it('contacts both ways: welded, not making, and a film, each as what it is', () => {
    const relay = changeOverRelay();
    const of = (fault?: [string, string, number?]) => verdicts(follow(relay, 'terminals', fault).sheet);
    expect(new Set(Object.values(of()))).toEqual(new Set(['good']));
    expect(Object.values(of(['K1', 'welded']))).toContain('welded');
    expect(Object.values(of(['K1', 'stuckOpen']))).toContain('open');
    const chain = verdicts(follow(clutchInterlocks(), 'terminals', ['S2', 'highResistance', 4000]).sheet);
    expect(Object.entries(chain).filter(([, verdict]) => verdict !== 'good')).toEqual([
      [expect.stringMatching(/^S2 /), 'weak'],
    ]);
  });
  it('contacts both ways: few ohms round about over two loads make no closed contact, nor a sound one of an open one', () => {
    const broken = follow(heaterSelector(), 'terminals', ['S2', 'stuckOpen']).sheet;
    expect(Object.entries(verdicts(broken)).map(([name, verdict]) => [name.split(' ')[0], verdict])).toEqual([
      ['S1', 'good'],
      ['S2', 'elsewhere'],
    ]);
    const other = follow(heaterSelector(), 'terminals', ['S1', 'stuckOpen']).sheet;
    expect(Object.values(verdicts(other))[0]).not.toBe('good');
    expect(Object.values(verdicts(other))[1]).not.toBe('open');
  });
  it('contacts both ways: some ohms over one that should be open condemn nothing, they may come round about', () => {
    const run = (name: string) => `after W1, "${name}"=on switch S${name}, coil Y${name} 60, @R`;
    const text = ['battery 12.6, fuse F1 10, wire W1', run('1'), run('2'), '@R, wire W2, ground'];
    const model = new CircuitModel(parseCircuit(layChains(emptyDrawing('two'), text.join('; ')).circuit));
    const [open, closed] = jobSheet(model, 'terminals', [], MARKS)!.rows[0]!.cells;
    const read = (of: typeof open, value: number, before: Reading[] = []) =>
      jobSheet(model, 'terminals', [...before, { ...of!.test, value } as Reading], MARKS)!;
    const said = (sheet: JobSheet) => sheet.rows[0]!.verdict;
    expect(said(read(open, 30))).toBe('elsewhere');
    expect(said(read(closed, 30))).toBe('weak');
    // As few as a weld has: with an end bare it is known whether they are its own.
    const few = read(open, 0.1);
    expect(said(few)).toBe('elsewhere');
    expect(few.columns[few.next![1]]).toBe('openAlone');
    const bare = few.rows[0]!.cells[few.next![1]]!;
    const before = [{ ...open!.test, value: 0.1 } as Reading];
    expect(said(read(bare, 0.1, before))).toBe('welded');
    expect(said(read(bare, 1e9, before))).not.toBe('welded');
  });
  it('cylinders: a piston that lets air past, at the ends where it does', () => {
    const clamp = airClamp();
    const tight = follow(clamp, 'cylinders').sheet;
    expect(tight.rows.map(({ name, check, verdict }) => [name, check, verdict])).toEqual([
      ['C1', 'retracted', 'good'],
      ['C1', 'extended', 'good'],
    ]);
    expect(tight.answers).toMatchObject([{ cylinder: 'C1', seal: 'tight' }]);
    expect(follow(clamp, 'cylinders', ['C1', 'sealLeak']).sheet.answers).toMatchObject([{ seal: 'failed' }]);
    // Nobody puts a hand, or water, to oil.
    expect(jobSheet(new CircuitModel(hydraulicLift()), 'cylinders', [], MARKS)).toBeNull();
  });
  it('a reading with the plug on is none with the plug off, though the sound machine shows the same', () => {
    const circuit = demoCircuit('groomer-comb-flaps');
    const model = new CircuitModel(circuit);
    const [row] = jobSheet(model, 'survey', [], MARKS)!.rows;
    const on = { ...row!.cells[0]!.test, value: row!.cells[0]!.expected } as Reading;
    const [read] = jobSheet(model, 'survey', [on], MARKS)!.rows;
    expect(read!.cells.map((cell) => cell?.value)).toEqual([on.value, null, null]);
  });
  it('drop: halved to the part that loses too much, by the shop’s own figures', () => {
    const fault = ['X1.1', 'highResistance', 3] as const;
    const { sheet, readings } = follow(singleCoil(), 'drop', [...fault]);
    expect(verdicts(sheet)['X1.1']).toBe('high');
    expect(readings.length).toBeLessThan(sheet.rows.length);
    expect(Object.values(verdicts(follow(singleCoil(), 'drop').sheet))).not.toContain('high');
    const model = new CircuitModel(singleCoil());
    const lenient = { ...MARKS, drops: { ...MARKS.drops, joint: { good: 5, repair: 9 } } };
    expect(verdicts(jobSheet(model, 'drop', readings, lenient)!)['X1.1']).toBe('good');
  });
  it('what was read already stands in its cell, in another set-up that means the same too', () => {
    const model = new CircuitModel(twoWayPair());
    const cell = jobSheet(model, 'coil', [], MARKS)!.rows[0]!.cells[0]!;
    const reading = { ...cell.test, value: 31.4 } as Reading;
    expect(jobSheet(model, 'coil', [reading], MARKS)!.rows[0]!.cells[0]).toMatchObject({
      value: 31.4,
      reading: 0,
    });
  });
  it.each(TEMPLATES.map(({ id, build }) => [id, build] as const))(
    '%s: no cell defeats a guard or makes up a value',
    (_id, build) => {
      const model = new CircuitModel(build());
      for (const name of JOB_SHEETS) {
        const sheet = jobSheet(model, name, [], MARKS);
        for (const { cells, verdict } of sheet?.rows ?? []) {
          expect(verdict).toBeNull();
          for (const cell of cells) {
            if (!cell) continue;
            expect(guardsDefeated(model, cell.test.setup)).toEqual([]);
            expect(cell.value).toBeNull();
          }
        }
      }
    },
  );
});

describe('wires in sequence', () => {
  const stop = () => demoCircuit('tractor-blower-stop');
  const words = (sheet: JobSheet) => (sheet.answers[0] as TimelineAnswer).first;

  it('go through the controls one after the other, at once where a timer runs, and back again', () => {
    const sheet = jobSheet(new CircuitModel(stop()), 'timeline', [], MARKS)!;
    expect(sheet.columns.map((one) => JSON.parse(one) as unknown)).toEqual([
      [null, false],
      [['key', 'on'], true],
      [['key', 'on'], false],
      [['seat', 'taken'], false],
      [['seat', 'empty'], false],
    ]);
    const carries = (name: string) =>
      sheet.rows.find((row) => row.name === name)!.cells.map((cell) => Number(cell!.expected) > 6);
    // The pull-in wire is live for its seconds only, the hold-in wire as long as the seat is taken.
    expect(carries('Y5:P')).toEqual([false, true, false, false, false]);
    expect(carries('Y5:H')).toEqual([false, false, false, true, false]);
  });
  it('of a sound machine say that every wire carries what it should', () => {
    const { sheet, readings } = follow(stop(), 'timeline');
    expect(words(sheet)).toBeNull();
    expect(sheet.next).toBeNull();
    expect(readings.length).toBeGreaterThan(10);
    expect(new Set(Object.values(verdicts(sheet)))).toEqual(new Set(['good']));
  });
  it('name the first that differs, and the moment: a seat switch that does not make', () => {
    const { sheet } = follow(stop(), 'timeline', ['S6', 'stuckOpen']);
    const first = words(sheet)!;
    expect(JSON.parse(sheet.columns[first.column]!)).toEqual([['seat', 'taken'], false]);
    expect(sheet.rows[first.row]!.name).toBe('S6:2');
    // A wire behind it: what feeds that is as it should be.
    const lost = follow(stop(), 'timeline', ['X9.1', 'open']).sheet;
    expect(lost.rows[words(lost)!.row]!.name).toBe('Y5:H');
  });
  it('are not asked of a circuit in which nothing follows on anything', () => {
    expect(jobSheet(new CircuitModel(singleCoil()), 'timeline', [], MARKS)).toBeNull();
  });
});
