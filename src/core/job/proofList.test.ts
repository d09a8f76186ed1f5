import { CircuitModel } from '../circuit/model';
import type { Circuit } from '../circuit/schema';
import { levelControl } from '../templates/line';
import { clutchInterlocks, singleCoil, threeWireSensor, twoWayPair } from '../templates/electrical';
import { airClamp } from '../templates/fluid';
import { entryWriter, fitted } from '../testing/entryWriter';
import type { Entry } from './entries';
import { freeChecks } from './freeChecks';
import { mayBeLeft, proofList, proofStanding, proves } from './proofList';
import { demoCircuit } from '../../testing/demoCircuits';
import { reduceJob } from './reduceJob';
import { compareWires } from './restoreCheck';

const write = entryWriter();
const entry = ({ type, body, ...more }: { type: Entry['type']; body: object; supersedes?: string }) =>
  write(type, body, more);
const wire = (phase: 'found' | 'left', terminal: string, mark: string, more = {}) =>
  entry({
    type: 'wire',
    body: { part: 'K5', terminal, mark, colour: 'blue', to: 'X4', through: 'switched', phase, ...more },
  });

const decidedOn = (part: string, fault: string) =>
  entry({
    type: 'decision',
    body: { part, fault, action: 'replace', why: '', cleared: [], minutes: null, cost: null },
  });

describe('the proof list', () => {
  it('asks for every position, for current and drops of each load, and for every interlock', () => {
    const proofs = proofList(new CircuitModel(clutchInterlocks()), reduceJob([]));
    const { controls } = clutchInterlocks();
    const interlocks = proofs.filter((proof) => proof.kind === 'interlock');
    expect(new Set(interlocks.map((proof) => proof.kind === 'interlock' && proof.control))).toEqual(
      new Set(Object.keys(controls)),
    );
    expect(proofs.filter(({ kind }) => kind === 'current').length).toBeGreaterThan(0);
    expect(new Set(proofs.map(({ id }) => id)).size).toBe(proofs.length);
  });

  it('what a guarding pressure switch lets work stops with the supply shut, and that is not left out', () => {
    const dryer = demoCircuit('dryer-air-switch');
    const model = new CircuitModel(dryer);
    const shut = (one: CircuitModel) =>
      proofList(one, reduceJob([])).filter((proof) => proof.kind === 'withoutPressure');
    const [proof, ...more] = shut(model);
    expect(more).toEqual([]);
    expect(proof).toMatchObject({ part: 'Y1', supply: 'P0', guards: ['B1'] });
    expect(proof!.test.setup).toEqual({ controls: { heat: 'on' }, isolated: ['P0'] });
    expect(mayBeLeft(proof!)).toBe(false);
    expect(proves(proof!, 'dead')).toBe(true);
    expect(proves(proof!, 'works')).toBe(false);
    // One that guards nothing is no guard.
    const parts = dryer.parts.map((part) =>
      part.ref === 'B1' ? { ...part, guards: 'none' as const } : part,
    ) as Circuit['parts'];
    expect(shut(new CircuitModel({ ...dryer, parts }))).toEqual([]);
  });

  it('a limit that was changed is read on a hand pump, on refrigerant by who is licensed, and neither is left out', () => {
    const dryer = demoCircuit('dryer-air-switch');
    const limit = (more: object) =>
      new CircuitModel({
        ...dryer,
        parts: dryer.parts.map((part) =>
          part.ref === 'B1'
            ? { ...part, contact: 'NC', makeKPa: 3, breakKPa: 2, guards: 'limit', ...more }
            : 'kPa' in part || ('port' in part.nodes && part.kind !== 'pressureSwitch')
              ? { ...part, ...more }
              : part,
        ) as Circuit['parts'],
      });
    const changed = reduceJob([decidedOn('B1', 'stuckClosed')]);
    const of = (model: CircuitModel, kind: string) =>
      proofList(model, changed).filter((one) => one.kind === kind);
    const model = limit({});
    // It stays closed without air: that the heat goes on then says nothing of it.
    expect(of(model, 'withoutPressure')).toEqual([]);
    const [proof, ...more] = of(model, 'changesOver');
    expect(more).toEqual([]);
    expect(proof).toMatchObject({ part: 'B1', expected: 3, test: { kind: 'changes', edge: 'rising' } });
    expect(mayBeLeft(proof!)).toBe(false);
    expect([2.7, 3.4, 4, 'OL' as const].map((value) => proves(proof!, value))).toEqual([
      true,
      true,
      false,
      false,
    ]);
    // The one that opens without air is shown by that.
    expect(of(new CircuitModel(dryer), 'changesOver')).toEqual([]);
    expect(proofList(model, reduceJob([])).some(({ kind }) => kind === 'changesOver')).toBe(false);
    const cold = limit({ refrigerant: true });
    expect(of(cold, 'changesOver')).toEqual([]);
    // A work that did not mend it was one all the same.
    const since = reduceJob([
      decidedOn('B1', 'stuckClosed'),
      entry({ type: 'fix', body: fitted('B1') }),
      decidedOn('Y1', 'open'),
    ]);
    expect(proofList(model, since).some(({ kind }) => kind === 'changesOver')).toBe(true);
    expect(proofList(cold, since).some(({ kind }) => kind === 'care')).toBe(true);
    const trips = of(cold, 'care').find((one) => one.kind === 'care' && one.care === 'trips')!;
    expect(mayBeLeft(trips)).toBe(false);
  });

  it('a valve that moves nothing anybody sees is shown by the gauge that stood wrong', () => {
    const model = new CircuitModel(demoCircuit('cellar-liquid-valve'));
    const called = { controls: { call: 'on' } };
    const read = (at: string, value: number, setup: object = called) =>
      entry({
        type: 'reading',
        body: { reading: { kind: 'pressure', at, setup, value }, typed: String(value) },
      });
    const decided = decidedOn('Q1', 'stuckAtRest');
    const gauges = (...entries: Entry[]) =>
      proofList(model, reduceJob(entries)).filter((proof) => proof.kind === 'pressure');
    const [proof, ...more] = gauges(read('R1', 950), read('R2', 210), decided);
    expect(more).toEqual([]);
    expect(proof).toMatchObject({ part: 'Q1', test: { at: 'R2', setup: called } });
    expect(proves(proof!, 210)).toBe(false);
    expect(proves(proof!, proof!.expected)).toBe(true);
    // Nobody decided on a part that carries anything.
    expect(gauges(read('R2', 210))).toEqual([]);
    // Where none stood wrong with nothing put in, the one that the valve’s work changes most.
    const pushed = { override: ['Q1'] };
    for (const readings of [[], [read('R2', 210, pushed)], [read('R2', 210), read('R2', proof!.expected)]]) {
      const [own, ...others] = gauges(...readings, decided);
      expect(others).toEqual([]);
      expect(own).toMatchObject({ part: 'Q1', test: { at: 'R2', setup: called } });
    }
  });

  it('both ways of a pair, each with its own current', () => {
    const proofs = proofList(new CircuitModel(twoWayPair()), reduceJob([]));
    expect(proofs.filter(({ kind }) => kind === 'works')).toHaveLength(2);
    expect(proofs.filter(({ kind }) => kind === 'current')).toHaveLength(2);
  });

  it('a value proves within its limits only', () => {
    const proofs = proofList(new CircuitModel(singleCoil({ volts: 24, ohms: 24 })), reduceJob([]));
    const current = proofs.find(({ kind }) => kind === 'current')!;
    expect(proves(current, 1)).toBe(true);
    expect(proves(current, 0.6)).toBe(false);
    expect(proves(current, 'OL')).toBe(false);
    const drop = proofs.find(({ kind }) => kind === 'drop')!;
    expect(proves(drop, 0.2)).toBe(true);
    expect(proves(drop, 3)).toBe(false);
  });

  it('a tick alone shows nothing: the reading taken after the fix does, and the last of them counts', () => {
    const model = new CircuitModel(clutchInterlocks());
    const proof = proofList(model, reduceJob([])).find(({ kind }) => kind === 'interlock')!;
    if (proof.kind !== 'interlock') throw new Error('no interlock');
    const tick = entry({ type: 'proof', body: { proof: proof.id, done: true, found: 'stops' } });
    const read = (value: string, phase?: 'fixed') =>
      entry({
        type: 'reading',
        body: { reading: { ...proof.test, value }, typed: value, ...(phase ? { phase } : {}) },
      });
    const standing = (...log: Entry[]) => proofStanding(proof, reduceJob(log)).state;
    expect(standing(tick)).toBe('open');
    // One from before the fix says nothing of what was done since.
    expect(standing(read('dead'), tick)).toBe('open');
    expect(standing(read('dead', 'fixed'), tick)).toBe('done');
    expect(standing(read('dead', 'fixed'), tick, read('works', 'fixed'))).toBe('open');
  });

  it('stays open while a code, a jumper, a wire or a lock is left, and says so from the log alone', () => {
    const model = new CircuitModel(singleCoil());
    const code = { system: 'pair', component: 14, failureMode: 5, text: '', via: 'typed', present: true };
    const log = [
      entry({ type: 'code', body: code }),
      entry({ type: 'ledger', body: { item: 'Jumper S1', kind: 'jumper', minutes: 5 } }),
      entry({
        type: 'isolation',
        body: { point: 'G1', energy: 'battery', how: '', lock: '3', tag: '3', released: '' },
      }),
      wire('found', '86', '12'),
    ];
    const open = (entries: Entry[]) => {
      const state = reduceJob(entries);
      return proofList(model, state)
        .filter(({ kind }) => ['code', 'ledger', 'isolation', 'wire'].includes(kind))
        .filter((proof) => proofStanding(proof, state).state !== 'done')
        .map(({ id }) => id);
    };
    expect(open(log)).toEqual(['wire K5 86', 'ledger Jumper S1', 'isolation G1', 'code 14-5']);
    const cleared = [
      ...log,
      entry({ type: 'code', body: { ...code, present: false } }),
      entry({ type: 'ledgerOut', body: { item: 'Jumper S1' } }),
      entry({ type: 'ledgerSeen', body: { item: 'Jumper S1', second: 'Ilse' } }),
      entry({ type: 'reopened', body: { point: 'G1', reason: 'work done' } }),
      wire('left', '86', '12'),
    ];
    expect(open(cleared)).toEqual([]);
    const signed = reduceJob([
      ...log,
      entry({ type: 'proof', body: { proof: 'code 14-5', done: false, found: '', reason: 'needs a drive' } }),
    ]);
    const proof = proofList(model, signed).find(({ id }) => id === 'code 14-5')!;
    expect(proofStanding(proof, signed)).toEqual({ state: 'signedOff', reason: 'needs a drive' });
  });
});

describe('what the fault was', () => {
  const decided = (part: string, fault: string) =>
    entry({
      type: 'decision',
      body: { part, fault, action: 'repair', why: '', cleared: [], minutes: null, cost: null },
    });
  const proofs = (circuit: Circuit, ...log: Entry[]) => proofList(new CircuitModel(circuit), reduceJob(log));

  it('an insulation that was mended is read again first, and the fuse that went is shown to hold', () => {
    const list = proofs(twoWayPair(), decided('Y1', 'shortToFrame'));
    const [first] = list;
    expect(first).toMatchObject({ kind: 'insulation' });
    expect(proves(first!, 'OL')).toBe(true);
    expect(proves(first!, 2e5)).toBe(false);
    const holds = list.find(({ kind }) => kind === 'fuseHolds')!;
    expect(holds).toMatchObject({ minutes: 5 });
    // In the position in which the mended part carries current, not in the other that loads the fuse as much.
    const works = list.find((one) => one.kind === 'works' && one.part === 'Y1')!;
    expect(holds).toMatchObject({ test: { setup: works.kind === 'works' ? works.setup : null } });
    expect(proves(holds, 'holds')).toBe(true);
    expect(proves(holds, 'blows')).toBe(false);
  });
  it('the reading that leaked is the one that is taken again; one that is good by now is not', () => {
    const [asked] = proofs(twoWayPair(), decided('Y1', 'weakInsulation'));
    if (asked?.kind !== 'insulation') throw new Error('no insulation');
    const read = (value: number | 'OL') =>
      entry({ type: 'reading', body: { reading: { ...asked.test, value }, typed: String(value) } });
    expect(proofs(twoWayPair(), read(3e4))[0]).toMatchObject({ kind: 'insulation', test: asked.test });
    expect(proofs(twoWayPair(), read(3e4), read('OL')).some(({ kind }) => kind === 'insulation')).toBe(false);
  });
  it('what failed on bumps or in the wet is shown there again, once something was mended', () => {
    const model = new CircuitModel(singleCoil());
    const works = proofList(model, reduceJob([])).find(({ kind }) => kind === 'works')!;
    if (works.kind !== 'works') throw new Error('no function to show');
    const complaint = [
      entry({ type: 'complaint', body: { words: 'dies', when: ['bumps', 'onCommand', 'wet'] } }),
      entry({
        type: 'reading',
        body: { reading: { ...works.test, value: 'dead' }, typed: 'dead' },
      }),
    ];
    const again = (...more: Entry[]) =>
      proofs(singleCoil(), ...complaint, ...more).filter(({ kind }) => kind === 'asComplained');
    expect(again()).toEqual([]);
    const list = again(decided('Y1', 'open'));
    expect(list).toMatchObject([
      { part: works.part, when: 'bumps', test: works.test },
      { part: works.part, when: 'wet', test: works.test },
    ]);
    expect([proves(list[0]!, 'works'), proves(list[0]!, 'dead')]).toEqual([true, false]);
  });
  it('where air drives it, its pressure at the actuator is read in each position', () => {
    const decision = decided('H2', 'blocked');
    const model = new CircuitModel(airClamp());
    const pressures = proofList(model, reduceJob([decision])).filter(({ kind }) => kind === 'pressure');
    expect(pressures.length).toBeGreaterThan(0);
    for (const proof of pressures) {
      if (proof.kind !== 'pressure') continue;
      expect(proves(proof, proof.expected)).toBe(true);
      expect(proves(proof, 0.7 * proof.expected)).toBe(false);
    }
    // Where a wire was mended nobody opens a line for a gauge.
    expect(proofList(model, reduceJob([])).some(({ kind }) => kind === 'pressure')).toBe(false);
  });

  it('an air line that came off is shown to be tight, by a look', () => {
    const decision = decided('H2', 'blocked');
    const tight = proofs(airClamp(), decision).find(({ kind }) => kind === 'tight')!;
    expect(proofStanding(tight, reduceJob([decision]))).toEqual({ state: 'open' });
    const looked = entry({ type: 'proof', body: { proof: tight.id, done: true, found: 'tight' } });
    expect(proofStanding(tight, reduceJob([decision, looked]))).toMatchObject({ state: 'done' });
  });
  it('after a line was changed the function is shown, and no wire is measured that nobody touched', () => {
    const kindsOf = (...log: Entry[]) => proofs(airClamp(), ...log).map(({ kind }) => kind);
    const decision = decided('H2', 'blocked');
    expect(kindsOf(decision)).toContain('works');
    expect(kindsOf(decision)).not.toContain('current');
    expect(kindsOf(decision)).not.toContain('drop');
    expect(kindsOf()).toContain('current');
    // A valve's coil is no work that somebody sees where its cylinder moves.
    const model = new CircuitModel(airClamp());
    const coils = new Set(
      model.compiled.circuit.parts.filter(({ kind }) => kind === 'coil').map(({ ref }) => ref),
    );
    expect(proofs(airClamp()).some((one) => one.kind === 'works' && coils.has(one.part))).toBe(false);
  });
  it('after two works everything is shown that either of them asks for, whatever the first one was for', () => {
    const done = (part: string) => entry({ type: 'fix', body: fitted(part) });
    const kindsOf = (...log: Entry[]) => proofs(airClamp(), ...log).map(({ kind }) => kind);
    const [line, coil] = [decided('H2', 'blocked'), decided('Y1', 'shortToFrame')];
    for (const log of [
      [line, done('H2'), coil, done('Y1')],
      [coil, done('Y1'), line, done('H2')],
      // The second one is decided on, and not done yet; or it was thought better of.
      [line, done('H2'), coil],
    ])
      for (const kind of ['tight', 'current', 'insulation'])
        expect([log.length, kindsOf(...log).includes(kind as 'tight')]).toEqual([log.length, true]);
    const nothing = entry({
      type: 'decision',
      body: { ...line.body, part: '', fault: '', action: 'nothing' },
    });
    expect(kindsOf(line, done('H2'), nothing)).toContain('tight');
    expect(kindsOf(line, nothing)).not.toContain('tight');
    // What was decided and never done asks for nothing once something else is decided.
    expect(kindsOf(line, coil)).not.toContain('tight');
  });
  it('an open coil asks for neither', () => {
    const kinds = proofs(twoWayPair(), decided('Y1', 'open')).map(({ kind }) => kind);
    expect(kinds).not.toContain('insulation');
    expect(kinds).not.toContain('fuseHolds');
  });
  it('a load behind a transformer is proved by its own feed and return, and by the current on both sides', () => {
    const list = proofs(levelControl());
    const drops = list.flatMap((one) => (one.kind === 'drop' && one.part === 'Y1' ? [one] : []));
    expect(drops.map(({ side }) => side).sort()).toEqual(['feed', 'return']);
    // Three hundredths of the 24 V side, not of the line.
    for (const { most } of drops) expect(most).toBeLessThan(1.5);
    const currents = list.flatMap((one) => (one.kind === 'current' ? [one] : []));
    const own = currents.find(({ part }) => part === 'Y1')!;
    const line = currents.find(({ part }) => part !== 'Y1')!;
    expect(own.expected / line.expected).toBeGreaterThan(3);
  });
});

describe('the restore check', () => {
  it('tells a wire that is back from one that is not, and from two that changed places', () => {
    const found = [wire('found', '86', '12'), wire('found', '87', '13'), wire('found', '30', '14')];
    const state = (left: Entry[]) => compareWires(reduceJob([...found, ...left])).map((one) => one.state);
    expect(state([])).toEqual(['missing', 'missing', 'missing']);
    expect(state([wire('left', '86', '12'), wire('left', '87', '13', { colour: 'Blue ' })])).toEqual([
      'same',
      'same',
      'missing',
    ]);
    const mixed = compareWires(reduceJob([...found, wire('left', '86', '13'), wire('left', '87', '12')]));
    expect(mixed[0]).toMatchObject({ state: 'changed', differs: ['wire 12 is on terminal 87, was on 86'] });
    expect(mixed[1]!.state).toBe('changed');
    expect(
      compareWires(reduceJob([...found, wire('left', '86', '12', { colour: 'red' })]))[0]!.differs,
    ).toEqual(['colour red, was blue']);
  });
});

describe('what a log says of safety', () => {
  it('opening a point lifts the signature; opening it for one test does not', () => {
    const closed = entry({
      type: 'isolation',
      body: { point: 'G1', energy: 'battery', how: '', lock: '3', tag: '3', released: '' },
    });
    const signed = entry({ type: 'madeSafe', body: { points: ['G1'] } });
    expect(reduceJob([closed, signed]).madeSafe).not.toBeNull();
    const forTest = entry({ type: 'reopened', body: { point: 'G1', reason: 'volts at 4', setup: {} } });
    expect(reduceJob([closed, signed, forTest])).toMatchObject({ madeSafe: { id: signed.id } });
    expect(reduceJob([closed, signed, forTest]).isolated.size).toBe(0);
    const forGood = entry({ type: 'reopened', body: { point: 'G1', reason: 'work done' } });
    expect(reduceJob([closed, signed, forGood]).madeSafe).toBeNull();
  });
  it('a reading after the fix proves the repair and says nothing about the fault', () => {
    const reading = { kind: 'ohms' as const, from: 'A', to: 'B', setup: {}, value: 31 };
    const state = reduceJob([
      entry({ type: 'reading', body: { reading, typed: '31' } }),
      entry({ type: 'reading', body: { reading, typed: '31', phase: 'fixed' } }),
    ]);
    expect([state.readings.length, state.after.length]).toEqual([1, 1]);
  });
});

describe('free checks', () => {
  it('come from the circuit: gauges and overrides where there is air, clicks and plugs where there are', () => {
    const kinds = (checks: ReturnType<typeof freeChecks>) => new Set(checks.map(({ kind }) => kind));
    const air = freeChecks(new CircuitModel(airClamp()));
    expect([...kinds(air)]).toEqual(expect.arrayContaining(['gauge', 'click', 'override', 'water']));
    expect(kinds(freeChecks(new CircuitModel(singleCoil()))).has('gauge')).toBe(false);
    expect(air.findIndex(({ kind }) => kind === 'gauge')).toBe(0);
  });
});

describe('a three-wire sensor', () => {
  const model = new CircuitModel(threeWireSensor());
  const proofs = proofList(model, reduceJob([])).flatMap((proof) => (proof.kind === 'signal' ? [proof] : []));

  it('is proved at every place of what turns it, its signal rising from return to supply', () => {
    const [control] = Object.keys(model.compiled.circuit.controls);
    expect(proofs.map(({ position }) => position)).toEqual(model.compiled.circuit.controls[control!]);
    const volts = proofs.map(({ expected }) => expected);
    expect(volts).toEqual(volts.toSorted((a, b) => a - b));
    expect(volts.at(-1)! - volts[0]!).toBeGreaterThan(2);
  });

  it('by a signal near what it should be, and not by that of the next place', () => {
    const [low, high] = [proofs[0]!, proofs.at(-1)!];
    expect(proves(low, low.expected + 0.5 * low.within)).toBe(true);
    expect(proves(low, high.expected)).toBe(false);
    expect(proves(high, low.expected)).toBe(false);
    expect(proves(low, 'OL')).toBe(false);
  });
});
