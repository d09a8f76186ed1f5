import { shopMarks } from '@/core/tables/marks';
import { demoCircuit } from '@/testing/demoCircuits';
import { CircuitModel } from '@/core/circuit/model';
import type { Reading } from '@/core/circuit/schema';
import type { Entry } from '@/core/job/entries';
import { proofList } from '@/core/job/proofList';
import { reduceJob } from '@/core/job/reduceJob';
import { findLanes } from '@/core/path/lanes';
import { jobSheet } from '@/core/sheets/onCircuit/build';
import { NO_PAST } from '@/core/sheets/onCircuit/jobSheet';
import { entryWriter, fitted } from '@/core/testing/entryWriter';
import { makeDiagnosisService } from '@/workers/diagnosisService';
import { justDrawn } from '@/workers/protocol';
import type { Speaker } from '@/words/en/readings';
import { buildReport } from './reportModel';
import { NOTICE, type Report } from './report';

const model = new CircuitModel(demoCircuit('groomer-blade-tilt'));
const speaker: Speaker = { model, lanes: findLanes(model), gaugeUnit: 'bar' as const };
const service = makeDiagnosisService(1);
const job = {
  number: 398,
  title: 'Blade tilts left, not right',
  machineCode: 'G-2',
  machineName: 'Groomer OR-202',
  functionName: 'Blade tilt, both ways',
  person: null,
  openedAt: '2026-02-03T23:30:00.000Z',
};

const entry = entryWriter();
const reading = (one: object, more: object = {}) =>
  entry('reading', { reading: one, typed: 'as read', ...more });
const pin = model.compiled.parts.find(({ part }) => part.ref === 'X8.1')!;
const [before, behind] = pin.nodes.map((node) => model.compiled.nodeNames[node]!) as [string, string];
const right = { controls: { key: 'on', tilt: 'right' } };
const FOUND: Entry[] = [
  entry('complaint', { words: 'Since the night shift.' }),
  reading({ kind: 'function', part: 'Y7', setup: { controls: { key: 'on', tilt: 'left' } }, value: 'works' }),
  reading({ kind: 'function', part: 'Y8', setup: right, value: 'dead' }),
  reading({ kind: 'volts', from: before, to: 'GND', setup: right, value: 25.1 }),
  reading({ kind: 'ohms', from: before, to: 'GND', setup: { pulled: ['F7'] }, value: 'OL' }),
  reading({ kind: 'ohms', from: behind, to: 'GND', setup: { pulled: ['F7'] }, value: 31.5 }),
  reading({ kind: 'ohms', from: before, to: behind, setup: { pulled: ['F7'] }, value: 'OL' }),
];

function report(entries: readonly Entry[], timeZone = 'UTC'): Report {
  const state = reduceJob(entries);
  const answer = service.weigh(
    justDrawn(model.compiled.circuit),
    state.readings.map((one) => one.reading as Reading),
    { most: 1 },
  );
  if (!answer.ok) throw new Error(answer.message);
  return buildReport(speaker, job, state, answer.value, { timeZone, marks: shopMarks({}), past: NO_PAST });
}

describe('the report of a job', () => {
  it('of a job just opened says what is not there yet', () => {
    const early = report([]);
    expect(early).toMatchObject({
      person: 'nobody yet',
      complaint: 'No words were written down.',
      closed: null,
      codes: [],
      decision: [],
      parts: [],
      left: [],
      baselines: [],
      retest: null,
    });
    expect(early.verdict.share).toBeNull();
    expect(NOTICE).toMatch(/Local codes, the machine’s own manual and licensed practice come first/);
  });

  it('names the part with its evidence, on the path that it broke', () => {
    const named = report(FOUND);
    expect(named.verdict.headline).toBe('X8.1 coil plug pin 1 proved bad: open');
    expect(named.verdict.share).toMatch(/^(over )?9\d %$/);
    expect(named.verdict.why[0]).toMatch(/^For: .*OL/);
    expect(named.path.find(({ name }) => name === 'X8.1')).toMatchObject({ state: 'bad' });
    expect(named.path.find(({ name }) => name === 'F7')).toMatchObject({ state: 'spared' });
    expect(named.path.filter(({ load }) => load).map(({ name }) => name)).toEqual(['Y8']);
    expect(named.evidence).toHaveLength(6);
    expect(named.evidence[0]!.beside).toBe('2026-02-04 08:02, Tove');
  });

  it('keeps what was taken back, and says so', () => {
    const wrong = reading({ kind: 'ohms', from: 'Y8:1', to: 'GND', setup: { pulled: ['F7'] }, value: 3 });
    const back = entry('withdrawal', {}, { supersedes: wrong.id });
    const line = report([...FOUND, wrong, back]).evidence.at(-1)!;
    expect(line.beside).toMatch(/, taken back$/);
    expect(line.tone).toBe('left');
  });

  it('stands on the clock of the site', () => {
    expect(report(FOUND).opened).toBe('2026-02-03 23:30');
    expect(report(FOUND, 'Europe/Vienna').opened).toBe('2026-02-04 00:30');
  });

  it('tells the whole story once it is closed: locks, decision, spare, proofs, what is left', () => {
    const decision = entry('decision', {
      part: 'X8.1',
      fault: 'open',
      action: 'repair',
      why: 'pin pushed back',
      cleared: ['V8 reads one way only'],
      minutes: 25,
      cost: 4,
      against: 'the plug is replaced whole',
    });
    const fixed = { phase: 'fixed' };
    const state = reduceJob(FOUND);
    const [works] = proofList(model, state).filter(({ kind }) => kind === 'works');
    const closed = report([
      ...FOUND,
      entry('code', {
        system: 'pair',
        component: 14,
        failureMode: 5,
        text: 'current too low',
        via: 'typed',
        present: true,
      }),
      entry('isolation', {
        point: 'G1',
        energy: 'battery',
        how: 'switch off and locked',
        lock: '21',
        tag: '',
        released: '',
        proved: {
          meter: 'Shed meter 3',
          knownBefore: { value: 12.6, unit: 'V', typed: '12.6' },
          work: [{ from: 'F7:2', to: 'GND', measured: { value: 0.02, unit: 'V', typed: '0.02' } }],
          knownAfter: { value: 12.6, unit: 'V', typed: '12.6' },
        },
      }),
      decision,
      entry('opinion', { decision: decision.id, says: 'approve', note: 'go on' }),
      entry('spareTest', { part: 'X8.1', measure: 'pin to pin', typed: '0.1', good: true }),
      entry('fix', {
        part: 'X8.1',
        work: 'Pin renewed',
        spare: 'P-11',
        serial: '',
        dated: '2026-02-04',
        torque: '',
        seals: 'new',
      }),
      entry('proof', { proof: works!.id, done: false, found: '', reason: 'blade is off' }),
      entry('proof', { proof: 'current Y8', done: true, found: '0.79 A' }),
      reading({ kind: 'amps', through: 'Y8', setup: right, value: 0.79 }, { ...fixed, check: 'current Y8' }),
      reading({ kind: 'function', part: 'Y8', setup: right, value: 'works' }, fixed),
      entry('isolation', { point: 'X9', energy: 'oil', how: '', lock: '8', tag: '', released: '' }),
      entry('reopened', { point: 'X9', reason: 'gone home', owner: 'Tove', second: 'Ilse' }),
      entry('reopened', { point: 'X9', reason: 'volts at 4', setup: {} }),
      entry('reopened', { point: 'X9', reason: 'work done' }),
      entry('handOver', { note: 'Try it gently first.', left: ['left lamp is dim'], retest: '2026-08-04' }),
    ]);
    expect(closed.madeSafe).toEqual([
      {
        text: 'G1: switch off and locked, lock 21, Tove, 2026-02-04 08:12',
        beside: 'proved dead: F7:2 to GND 0.02 V, Shed meter 3',
      },
      expect.objectContaining({ text: expect.stringMatching(/^X9, lock 8/) }),
      {
        text: 'Lock of Tove on X9 taken off: gone home',
        beside: expect.stringMatching(/^Tove beside Ilse, /),
        tone: 'left',
      },
      {
        text: 'X9 opened for a test: volts at 4',
        beside: expect.stringMatching(/^Tove, /),
        tone: 'left',
      },
      { text: 'The plan was not signed.', tone: 'bad' },
    ]);
    expect(closed.toDriver).toBe('Try it gently first.');
    expect(closed.safety).toEqual([{ text: 'G1, lock 21', beside: 'Tove', tone: 'left' }]);
    expect(closed.decision.map(({ text }) => text)).toEqual([
      'Repair X8.1 coil plug pin 1: pin pushed back',
      'Cleared first: V8 reads one way only',
      'Against the count: the plug is replaced whole',
      'Approved: go on',
    ]);
    expect(closed.decision[0]!.beside).toBe('Tove, 25 min, parts 4');
    expect(closed.parts.map(({ text }) => text)).toEqual([
      'Spare for X8.1, pin to pin: 0.1',
      'X8.1 coil plug pin 1: Pin renewed, spare P-11, dated 2026-02-04, seals new',
    ]);
    const signed = closed.proofs.filter(({ beside }) => beside === 'left: blade is off');
    expect(signed).toHaveLength(1);
    expect(closed.proofs.filter(({ tone }) => tone === 'good').map(({ beside }) => beside)).toEqual([
      expect.stringMatching(/^0\.79 A, 2026-\d\d-\d\d \d\d:\d\d, Tove$/),
    ]);
    expect(closed.proofs.some(({ beside }) => beside === 'not shown')).toBe(true);
    expect(closed.left.map(({ text }) => text)).toEqual([
      'left lamp is dim',
      'Code 14-5 remains: current too low',
    ]);
    // Figures are kept as this machine's own; what only works is no figure.
    expect(closed.baselines).toEqual([{ text: '0.79 A, through Y8, key on, tilt right' }]);
    expect(closed.retest).toBe('4 Aug 2026');
    expect(closed.closed).toMatch(/^2026-02-04/);
    // What was read after the fix is no evidence of the fault.
    expect(closed.verdict.headline).toBe('X8.1 coil plug pin 1 proved bad: open');
  });

  it('tells what did not mend it: what failed to be proved stands as evidence, what proved the last work does not', () => {
    const [works] = proofList(model, reduceJob([])).filter(({ id }) => id.startsWith('works Y8'));
    const watched = (value: 'works' | 'dead') => [
      reading({ kind: 'function', part: 'Y8', setup: right, value }, { phase: 'fixed', check: works!.id }),
      entry('proof', { proof: works!.id, done: value === 'works', found: value }),
    ];
    const { evidence } = report([
      ...FOUND,
      entry('fix', fitted('Y8')),
      ...watched('dead'),
      entry('fix', fitted('X8.1')),
      ...watched('works'),
    ]);
    const seen = evidence.filter(({ text }) => text.includes('tilt right') && /dead|works/.test(text));
    expect(seen.map(({ text }) => text.split(',')[0])).toEqual([
      expect.stringMatching(/dead$/),
      expect.stringMatching(/dead$/),
    ]);
    expect(seen.map(({ beside }) => beside!.endsWith('after the fix'))).toEqual([false, true]);
  });

  it('says what was seen, what was put in and how it came out, and what the points are called', () => {
    const lifted = reading({
      kind: 'ohms',
      from: before,
      to: 'GND',
      setup: { pulled: ['F7'], lifted: [{ part: 'W15', node: before }] },
      value: 'OL',
    });
    const item = `W15 off ${before}`;
    const proved = { kind: 'volts', from: before, to: 'GND', setup: right, value: 25.1 };
    const told = report([
      ...FOUND,
      entry('complaint', { words: 'Blade does not tilt', when: ['wet', 'onCommand'] }),
      entry('looked', { check: 'plug X8', finding: 'bad' }),
      entry('looked', { check: 'plug X7', finding: 'good' }),
      lifted,
      entry('ledgerOut', { item }),
      entry('ledgerSeen', { item, second: 'Ilse' }),
      reading(proved, { phase: 'fixed', check: 'drop feed Y8' }),
    ]);
    expect(told.complaint).toBe('Blade does not tilt. In the wet. On command.');
    expect(told.found).toMatchObject([{ text: expect.stringMatching(/^Plug X8, not good/), tone: 'bad' }]);
    expect(told.putIn).toEqual([{ text: item, beside: 'back on: Tove, seen by Ilse', tone: 'good' }]);
    expect(told.points).toContain(` is ${before}`);
    // What was read for a proof stands with the proofs.
    expect(told.evidence).toHaveLength(FOUND.length - 1 + 1);
    expect(report([...FOUND, lifted]).putIn).toEqual([{ text: item, beside: 'still off', tone: 'bad' }]);
  });

  it('prints the sheets that were worked on, what was found first', () => {
    const sheet = jobSheet(model, 'coil', [], shopMarks({}))!;
    const [y7, y8] = ['Y7', 'Y8'].map((ref) => sheet.rows.find(({ name }) => name.startsWith(ref))!);
    const ohmsAt = sheet.columns.indexOf('ohms');
    const cells = [y7, y8].flatMap((row) => row!.cells.flatMap((cell) => (cell ? [cell] : [])));
    const bad = y8!.cells[ohmsAt]!;
    const read = cells.map((cell) => ({ ...cell.test, value: cell === bad ? 12 : cell.expected }) as Reading);
    const pinned = read.map((one) => reading(one));
    expect(pinned.length).toBeGreaterThan(2);
    const told = (entries: typeof pinned) => report(entries).sheets.find(({ title }) => title === 'Coils');
    expect(told(pinned)!.found.join(' ')).toMatch(/^Y8: too low as it stands/);
    // With an end of it bare nothing else can be meant.
    const { rows, next } = jobSheet(model, 'coil', read, shopMarks({}))!;
    const alone = rows[next![0]]!.cells[next![1]]!;
    const coils = told([...pinned, reading({ ...alone.test, value: 12 })]);
    expect(coils!.found.join(' ')).toMatch(/^Y8.*turns shorted/);
    expect(coils!.lines).toHaveLength(2);
    expect(coils!.lines.find(({ text }) => text.startsWith('Y8'))).toMatchObject({
      text: expect.stringMatching(/ohms 12(\.0)? Ω/),
      tone: 'bad',
    });
    // One reading that happens to lie in a sheet is not a sheet.
    expect(report(pinned.slice(0, 1)).sheets).toEqual([]);
  });

  it('tells each decision that was carried out, and which work did not mend it', () => {
    const decide = (part: string, why: string) =>
      entry('decision', { part, fault: '', action: 'repair', why, cleared: [], minutes: null, cost: null });
    const [guess, changed, found] = [
      decide('X8.2', 'It was green'),
      decide('X8.1', ''),
      decide('X8.1', 'Read open'),
    ];
    const wrong = entry('proof', { proof: 'works|Y8', done: false, found: 'dead' });
    const log = [
      guess,
      entry('opinion', { decision: guess.id, says: 'approve', note: 'try it' }, { person: 'Henrike' }),
      entry('fix', fitted('X8.2', { work: 'crimped' })),
      wrong,
      changed,
      found,
      entry('fix', fitted('X8.1', { work: 'renewed', torque: '4 Nm' })),
    ];
    const { decision, parts } = report(log);
    expect(decision.map(({ text }) => text)).toEqual([
      'Repair X8.2 coil plug pin 2: It was green',
      'Approved: try it',
      // One that was thought better of before anything was done is none.
      'Repair X8.1 coil plug pin 1: Read open',
    ]);
    expect(parts).toEqual([
      {
        text: 'X8.2 coil plug pin 2: crimped',
        beside: expect.stringMatching(/; something was still wrong after it$/),
        tone: 'left',
      },
      { text: 'X8.1 coil plug pin 1: renewed, torque 4 Nm', beside: expect.not.stringContaining(';') },
    ]);
    // In other words it is the same decision.
    const again = report([...log, decide('X8.1', 'Read open twice')]).decision;
    expect(again.map(({ text }) => text)).toEqual([
      'Repair X8.2 coil plug pin 2: It was green',
      'Approved: try it',
      'Repair X8.1 coil plug pin 1: Read open twice',
    ]);
  });
});
