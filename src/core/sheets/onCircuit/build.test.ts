import { demoCircuit, demoCircuits } from '@/testing/demoCircuits';
import { shopMarks } from '../../tables/marks';
import { CircuitModel } from '../../circuit/model';
import { parseCircuit } from '../../circuit/parse';
import { emptyDrawing, layChains } from '../../draw/layChain';
import type { Circuit, Reading } from '../../circuit/schema';
import { Diagnoser } from '../../diagnosis/diagnose';
import { listFaults } from '../../diagnosis/faults';
import { guardsDefeated } from '../../safety/guards';
import {
  changeOverRelay,
  clutchInterlocks,
  multiOutput,
  singleCoil,
  twoWayPair,
  winchPack,
} from '../../templates/electrical';
import { oilOpened } from '../../safety/pressedOil';
import { airClamp, gateValve, hydraulicLift } from '../../templates/fluid';
import { TEMPLATES } from '../../templates/templates';
import { MachineUnderTest } from '../../testing/machineUnderTest';
import type { InsulationAnswer } from '../insulation/insulation';
import type { NeedsAnswer } from '../needs/needs';
import type { OutputsAnswer } from '../outputs/outputs';
import type { FunctionsAnswer } from '../functions/functions';
import { jobSheet, sheetsOfCircuit } from './build';
import type { TimelineAnswer } from './timelineSheet';
import { refOfKey } from './functionsSheet';
import { JOB_SHEETS, type JobSheet, type JobSheetName } from './jobSheet';

const MARKS = shopMarks({});

/** Fills a sheet in as it asks, on a machine with something wrong; gives it as it stands at the end, and how much was read. */
function follow(
  circuit: Circuit,
  name: JobSheetName,
  fault: [part?: string, fault?: string, ohms?: number] = [],
) {
  const model = new CircuitModel(circuit);
  const machine = new MachineUnderTest(circuit, ...fault);
  const readings: Reading[] = [];
  for (;;) {
    const sheet = jobSheet(model, name, readings, MARKS)!;
    if (!sheet.next || readings.length > 60) return { sheet, readings };
    const { test } = sheet.rows[sheet.next[0]]!.cells[sheet.next[1]]!;
    readings.push({ ...test, value: machine.value(test) } as Reading);
  }
}
const verdicts = ({ rows }: JobSheet) => Object.fromEntries(rows.map(({ name, verdict }) => [name, verdict]));

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
  it('two windings: which wire is which, an open one, and one whose ohms are not the drawing’s', () => {
    const circuit = demoCircuit('tractor-blower-stop');
    const sound = follow(circuit, 'windings').sheet;
    expect(sound.rows[0]).toMatchObject({ name: 'Y5P', with: 'Y5H', verdict: 'good' });
    expect(sound.answers[0]).toMatchObject({ common: 'Y5:C', pullIn: 'Y5:P', holdIn: 'Y5:H', off: [] });
    const open = follow(circuit, 'windings', ['Y5H', 'open']).sheet;
    expect(open.rows[0]!.verdict).toBe('open');
    expect(open.answers[0]!.findings).toEqual([{ code: 'nothingAt', wire: 'Y5:H' }]);
    const shorted = follow(circuit, 'windings', ['Y5H', 'shortedTurns', 8]).sheet;
    expect(shorted.rows[0]!.verdict).toBe('off');
    expect(shorted.answers[0]).toMatchObject({ off: ['Y5H'] });
  });
  it('two windings: a solenoid whose wires are exchanged accuses no winding', () => {
    const circuit = demoCircuit('tractor-blower-stop');
    const model = new CircuitModel(circuit);
    const { rows } = jobSheet(model, 'windings', [], MARKS)!;
    // Its common lies where the hold-in is drawn.
    const values = [14.56, 14.2, 0.36];
    const readings = rows[0]!.cells.map((cell, at) => ({ ...cell!.test, value: values[at]! }) as Reading);
    const told = jobSheet(model, 'windings', readings, MARKS)!;
    expect(told.rows[0]!.verdict).toBe('exchanged');
    expect(told.answers[0]).toMatchObject({ common: 'Y5:H', pullIn: 'Y5:P', holdIn: 'Y5:C', off: [] });
  });
  it('two windings: two valves on one return are no pair', () => {
    expect(jobSheet(new CircuitModel(twoWayPair()), 'windings', [], MARKS)).toBeNull();
  });
  it('contacts: one that clicks and does not make, and all sound ones only after their drop under load', () => {
    const bad = verdicts(follow(winchPack(), 'contacts', ['K3', 'stuckOpen']).sheet);
    expect(bad['K3 P–M2']).toBe('open');
    const { sheet } = follow(winchPack(), 'contacts');
    expect(new Set(Object.values(verdicts(sheet)))).toEqual(new Set(['good']));
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
  it('insulation: the conductor that leaks', () => {
    const { sheet } = follow(twoWayPair(), 'insulation', ['Y1', 'weakInsulation', 2e5]);
    expect(Object.values(verdicts(sheet))).toContain('bad');
    expect(Object.values(verdicts(follow(singleCoil(), 'insulation').sheet))).not.toContain('bad');
    expect(follow(twoWayPair(), 'insulation').sheet.held).toMatchObject([{ source: 'IEC 60364-6' }]);
    // A leaking wire reads bad at both its ends, and the wire alone lies on both.
    const { sheet: pump } = follow(demoCircuit('pump-fill-valve'), 'insulation', [
      'W41',
      'weakInsulation',
      3e5,
    ]);
    expect(pump.liesOn).toEqual(['W41']);
    const { nodeIndex } = new CircuitModel(demoCircuit('pump-fill-valve')).compiled;
    const order = pump.rows.flatMap(({ name, cut, between }) =>
      cut || between ? [] : [nodeIndex.get(name)!],
    );
    expect(order).toEqual([...order].sort((a, b) => a - b));
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
  it('insulation: a plug in the middle of what leaks is taken off, and one side of it read', () => {
    const { sheet } = follow(demoCircuit('groomer-blade-tilt'), 'insulation', ['W14', 'weakInsulation', 2e5]);
    const cuts = sheet.rows.filter(({ cut }) => cut);
    expect(cuts.map(({ cut, verdict }) => [cut, verdict])).toEqual([['X31', 'bad']]);
    expect(cuts[0]!.cells[0]!.test.setup.unplugged).toContain('X31');
  });
  it('insulation: of a timed run the longest counts, here and for the engine; the early ones are no other opinion', () => {
    const circuit = demoCircuit('pump-fill-valve');
    const model = new CircuitModel(circuit);
    const { test } = jobSheet(model, 'insulation', [], MARKS)!.rows[0]!.cells[0]!;
    const run = ([30, 60] as const).map(
      (seconds, k) => ({ ...test, value: [4e8, 9e8][k], seconds }) as Reading,
    );
    const sheet = jobSheet(model, 'insulation', run, MARKS)!;
    expect(sheet.rows[0]!.cells[0]!.value).toBe(9e8);
    const cells = sheet.answers.flatMap((answer) => (answer as InsulationAnswer).cells);
    expect(cells.find(({ ratio }) => ratio !== null)!.ratio).toBeCloseTo(2.25, 6);
    const shares = (readings: Reading[]) =>
      new Diagnoser(circuit).diagnose(readings).suspects.map(({ share }) => share);
    expect(shares(run)).toEqual(shares([{ ...test, value: 9e8 } as Reading]));
    expect(shares(run.toReversed())).toEqual(shares(run));
  });

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

  it('conductors: each pair by itself; two that touch leak to each other and to nothing else', () => {
    const circuit = demoCircuit('groomer-blade-tilt');
    const { sheet, readings } = follow(circuit, 'conductors', ['W14+W15', 'shortBetween', 3e4]);
    const { conductors, bad } = pairsOf(sheet);
    expect(bad).toEqual(['W15 W14']);
    // To the frame and to each other, each once.
    expect(readings).toHaveLength((conductors * (conductors + 1)) / 2);
    expect(
      readings.slice(0, conductors).every(({ kind, ...one }) => kind === 'insulation' && 'to' in one),
    ).toBe(true);
    const first = readings.findIndex(({ value }) => value !== 'OL');
    // What runs beside each other is read before what does not.
    expect(first).toBeLessThan(conductors + 3);
    const { sheet: leaking } = follow(circuit, 'conductors', ['W14', 'weakInsulation', 2e5]);
    expect(pairsOf(leaking).bad).toEqual(['W14 GND']);
    expect(pairsOf(follow(circuit, 'conductors').sheet).bad).toEqual([]);
    expect(jobSheet(new CircuitModel(airClamp()), 'conductors', [], MARKS)?.name ?? null).toBe(
      sheetsOfCircuit(new CircuitModel(airClamp())).includes('conductors') ? 'conductors' : null,
    );

    function pairsOf({ rows, columns, verdicts: said }: JobSheet) {
      return {
        conductors: rows.length,
        bad: rows.flatMap(({ name }, r) =>
          said![r]!.flatMap((one, c) => (one === 'bad' ? [`${name} ${columns[c]!}`] : [])),
        ),
      };
    }
  });

  it('insulation: two wires of a loom against each other, and the engine names both', () => {
    const circuit = demoCircuit('groomer-blade-tilt');
    const { sheet, readings } = follow(circuit, 'insulation', ['W14+W15', 'shortBetween', 0.5]);
    const bad = sheet.rows.filter(({ verdict }) => verdict === 'bad');
    expect(bad.map(({ between }) => between)).toEqual([['X31:1', 'X31:2']]);
    expect(sheet.liesOn).toEqual([]);
    const complaint = follow(circuit, 'functions', ['W14+W15', 'shortBetween', 0.5]).readings;
    const [first] = new Diagnoser(circuit).diagnose([...complaint, ...readings]).suspects;
    expect(first).toMatchObject({ part: 'W14', fault: 'shortBetween', other: 'W15' });
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
  it('contacts both ways: some ohms over one that should be open condemn nothing, they may come round about', () => {
    const run = (name: string) => `after W1, "${name}"=on switch S${name}, coil Y${name} 60, @R`;
    const text = ['battery 12.6, fuse F1 10, wire W1', run('1'), run('2'), '@R, wire W2, ground'];
    const model = new CircuitModel(parseCircuit(layChains(emptyDrawing('two'), text.join('; ')).circuit));
    const [open, closed] = jobSheet(model, 'terminals', [], MARKS)!.rows[0]!.cells;
    const said = (of: typeof open, value: number) =>
      jobSheet(model, 'terminals', [{ ...of!.test, value } as Reading], MARKS)!.rows[0]!.verdict;
    expect(said(open, 30)).toBe('elsewhere');
    expect(said(open, 0.1)).toBe('welded');
    expect(said(closed, 30)).toBe('weak');
  });
  it('outputs: every command by every output, and a dead one once more with its load off', () => {
    const { sheet } = follow(demoCircuit('groomer-comb-flaps'), 'outputs', ['DQ3', 'noOutput']);
    expect(verdicts(sheet)).toMatchObject({ DQ3: 'bad', DQ1: null });
    const [answer] = sheet.answers as OutputsAnswer[];
    expect(answer!.findings).toEqual([]);
    expect(answer!.mend.map(({ way }) => way)).toEqual(['freeOutput', 'module', 'controller']);
    const [loadOff] = sheet.rows.find(({ name }) => name === 'DQ3')!.cells.slice(-1);
    expect(loadOff!.test.setup.lifted).toEqual([{ part: 'W213', node: 'DQ3:out' }]);
    expect(loadOff!.value).not.toBeNull();
  });
  it('outputs: what a short behind it holds down gives once its load is off, and is not to be replaced', () => {
    const { sheet } = follow(demoCircuit('groomer-comb-flaps'), 'outputs', ['W213', 'shortToFrame', 0.02]);
    const [answer] = sheet.answers as OutputsAnswer[];
    expect(answer).toMatchObject({ cause: null, findings: [{ code: 'heldDown', output: 'DQ3' }], mend: [] });
    expect(verdicts(sheet)).toMatchObject({ DQ3: 'heldDown' });
  });
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
    // Where nobody can feel at an exhaust a spool that stands mid-way is not told from what hangs behind it.
    expect(missing(gateValve(), ['C1', 'jammed'])).toEqual([]);
    // The opposite button sticks: both coils are fed.
    expect(missing(gateValve(), ['S12', 'stuckClosed'])).toEqual(['electricity']);
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
  it('needs of a valve on oil: gauge, hand lever and volts, and no hand at an open line', () => {
    const circuit = hydraulicLift();
    const model = new CircuitModel(circuit);
    const { rows } = jobSheet(model, 'needs', [], MARKS)!;
    expect(rows.map(({ check }) => check)).toEqual(['supply', 'override', 'clicks', 'coil', 'commanded']);
    for (const { cells } of rows) expect(oilOpened(model, cells[0]!.test)).toEqual([]);
  });
  it('a reading with the plug on is none with the plug off, though the sound machine shows the same', () => {
    const circuit = demoCircuit('groomer-comb-flaps');
    const model = new CircuitModel(circuit);
    const [row] = jobSheet(model, 'survey', [], MARKS)!.rows;
    const on = { ...row!.cells[0]!.test, value: row!.cells[0]!.expected } as Reading;
    const [read] = jobSheet(model, 'survey', [on], MARKS)!.rows;
    expect(read!.cells.map((cell) => cell?.value)).toEqual([on.value, null, null]);
  });
  it('functions: what all that fails has in common and nothing that works needs, with as few tried as may be', () => {
    const { sheet, readings } = follow(multiOutput(), 'functions', ['Y2', 'open']);
    const { suspect } = sheet.answers[0] as FunctionsAnswer;
    expect(suspect.map(({ part }) => part)).toContain('Y2');
    expect(suspect.map(({ part }) => part)).not.toContain('G1');
    expect(readings.length).toBeLessThanOrEqual(sheet.rows.length);
    const { sheet: all } = follow(multiOutput(), 'functions', ['F1', 'open']);
    expect((all.answers[0] as FunctionsAnswer).suspect.map(({ part }) => part)).toContain('F1');
    // What a relay switches needs the relay's own feed too.
    const model = new CircuitModel(changeOverRelay());
    const dead: Reading = {
      ...jobSheet(model, 'functions', [], MARKS)!.rows.find(({ name }) => name === 'H1')!.cells[0]!.test,
      value: 'dead',
    } as Reading;
    const found = jobSheet(model, 'functions', [dead], MARKS)!.answers[0] as FunctionsAnswer;
    expect(found.suspect.map(({ part }) => part)).toEqual(
      expect.arrayContaining(['F1', 'F2', 'S1', 'K1', 'W3']),
    );
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
    const left = suspect.map(({ part }) => refOfKey(part));
    const valve = model.compiled.circuit.parts.find(({ kind }) => kind === 'valve')!;
    const fuse = model.compiled.circuit.parts.find(({ kind }) => kind === 'fuse')!;
    expect(left).toContain(valve.ref);
    expect(left).not.toContain(fuse.ref);
    expect(cleared).toContain(fuse.ref);
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
