import { CircuitModel } from '../../circuit/model';
import { parseCircuit } from '../../circuit/parse';
import { emptyDrawing, layChains } from '../../draw/layChain';
import { isolationPlan } from '../../safety/isolationPlan';
import { entryWriter, fitted } from '../../testing/entryWriter';
import { signedAs, somebody } from '../../testing/signedAs';
import type { Entry } from '../entries';
import { reduceJob } from '../reduceJob';
import { handOverStops } from './handOverStops';
import { maySign, type Signing } from './signing';

const drawn = (text: string) => new CircuitModel(parseCircuit(layChains(emptyDrawing('Fan'), text).circuit));
const model = drawn('battery 24, fuse 5, key switch, coil 30, ground');
const line = drawn('battery 230, fuse 5, key switch, coil 900, ground');
const [point] = isolationPlan(model).map((one) => one.point);
const tove = somebody('Tove', { licences: [] });
const ilse = somebody('Ilse', { licences: [] });
const lead = somebody('Henrike', { role: 'lead', licences: [] });
const learner = somebody('Jorin', { role: 'learner', licences: [] });
const of = Object.fromEntries(
  ['Tove', 'Ilse', 'Henrike', 'Jorin'].map((name) => [name, entryWriter(name)] as const),
);
let count = 0;
/** Each with an id of its own, whoever writes it. */
const write = (name: string, type: Entry['type'], body: object, more: object = {}): Entry => ({
  ...of[name]!(type, body, more),
  id: `01900000-0000-7000-8000-${String(500 + ++count).padStart(12, '0')}`,
});
const lock = (name: string) =>
  write(name, 'isolation', { point, energy: 'battery', how: '', lock: '7', tag: '', released: '' });
const off = (name: string, more: object = {}) =>
  write(name, 'reopened', { point, reason: 'work done', ...more });
const judge = (entry: Entry, signing: Signing, log: readonly Entry[] = [], on = model) =>
  maySign(entry, signing, { model: on, plan: () => isolationPlan(on), log: () => log });
const decided = (name: string, more: object = {}) =>
  write(name, 'decision', { part: 'F1', fault: 'open', action: 'replace', why: '', ...more });

describe('a signature is one’s own', () => {
  it('an entry in another name is refused, however near the name', () => {
    expect(judge(lock('Tove'), signedAs(tove))).toBeNull();
    expect(judge(lock('Tove'), signedAs(ilse))).toEqual({ code: 'notYourName', person: 'Tove', by: 'Ilse' });
    expect(judge({ ...lock('Tove'), person: 'tove' }, signedAs(tove))).toMatchObject({ code: 'notYourName' });
  });

  it('a second person counts who signed too, or who writes it', () => {
    const seen = (name: string, second: string) => write(name, 'ledgerSeen', { item: 'plug', second });
    expect(judge(seen('Tove', 'Ilse'), signedAs(tove))).toEqual({ code: 'notWitnessed', second: 'Ilse' });
    expect(judge(seen('Tove', 'Ilse'), signedAs(tove, { witness: lead }))).toMatchObject({ second: 'Ilse' });
    expect(judge(seen('Tove', 'ilse'), signedAs(tove, { witness: ilse }))).toBeNull();
    expect(judge(seen('Ilse', 'Ilse'), signedAs(ilse))).toBeNull();
  });
});

describe('a lock', () => {
  it('comes off by its owner, and by nobody else who is no lead', () => {
    const log = [lock('Tove')];
    expect(judge(off('Tove'), signedAs(tove), log)).toBeNull();
    expect(judge(off('Ilse'), signedAs(ilse), log)).toEqual({ code: 'notYourLock', point, owners: ['Tove'] });
    // Naming its owner does not make it one's own, with whoever beside.
    const forced = off('Ilse', { owner: 'Tove', second: 'Jorin' });
    expect(judge(forced, signedAs(ilse, { witness: learner }), log)).toMatchObject({ code: 'notYourLock' });
    expect(judge(off('Henrike'), signedAs(lead), log)).toMatchObject({ code: 'notYourLock' });
  });

  it('of somebody who is gone comes off by a lead, beside a second person who is no learner', () => {
    const log = [lock('Tove')];
    const forced = off('Henrike', { owner: 'Tove', second: 'Ilse' });
    expect(judge(forced, signedAs(lead), log)).toEqual({ code: 'lockNeedsSecond', point, owner: 'Tove' });
    expect(judge(forced, signedAs(lead, { witness: ilse }), log)).toBeNull();
    const named = (second: string) => off('Henrike', { owner: 'Tove', second });
    expect(judge(named('Jorin'), signedAs(lead, { witness: learner }), log)).toMatchObject({
      code: 'lockNeedsSecond',
    });
    expect(judge(named('Henrike'), signedAs(lead, { witness: lead }), log)).toMatchObject({
      code: 'lockNeedsSecond',
    });
    // One named and another beside is neither.
    expect(judge(named('Rasmus'), signedAs(lead, { witness: ilse }), log)).toMatchObject({
      code: 'lockNeedsSecond',
    });
    const nobodys = off('Henrike', { owner: 'Maike', second: 'Ilse' });
    expect(judge(nobodys, signedAs(lead, { witness: ilse }), log)).toMatchObject({ code: 'notYourLock' });
  });

  it('is not got round by taking its entry back or writing another over it', () => {
    const own = lock('Tove');
    const back = (name: string) => write(name, 'withdrawal', {}, { supersedes: own.id });
    expect(judge(back('Ilse'), signedAs(ilse), [own])).toMatchObject({
      code: 'notYourLock',
      owners: ['Tove'],
    });
    expect(judge(back('Henrike'), signedAs(lead), [own])).toMatchObject({ code: 'notYourLock' });
    expect(judge(back('Tove'), signedAs(tove), [own])).toBeNull();
    const over = { ...lock('Ilse'), supersedes: own.id } as Entry;
    expect(judge(over, signedAs(ilse), [own])).toMatchObject({ code: 'notYourLock' });
  });

  it('each has their own: a point is closed while one is left on it', () => {
    const both = [lock('Tove'), lock('Ilse')];
    expect(
      reduceJob(both)
        .locks.get(point!)!
        .map(({ person }) => person),
    ).toEqual(['Tove', 'Ilse']);
    const one = reduceJob([...both, off('Ilse')]);
    expect(one.isolated.get(point!)!.person).toBe('Tove');
    expect(reduceJob([...both, off('Ilse'), off('Tove')]).isolated.size).toBe(0);
    // Closed anew by its owner it is still one lock.
    expect(reduceJob([...both, lock('Ilse'), off('Ilse')]).isolated.size).toBe(1);
    const forced = reduceJob([...both, off('Henrike', { owner: 'Tove', second: 'Ilse' })]);
    expect(forced.locks.get(point!)!.map(({ person }) => person)).toEqual(['Ilse']);
    // Before locks had owners there was one, and whoever opened the point took it off.
    expect(reduceJob([lock('Tove'), off('Ilse')]).isolated.size).toBe(0);
  });

  it('the signature under the plan stands while the point does', () => {
    const sign = write('Tove', 'madeSafe', { points: [point] });
    const log = [lock('Tove'), lock('Ilse'), sign];
    expect(reduceJob([...log, off('Ilse')]).madeSafe).not.toBeNull();
    expect(reduceJob([...log, off('Ilse'), off('Tove')]).madeSafe).toBeNull();
  });
});

describe('line voltage', () => {
  const volts = (on: CircuitModel) =>
    write('Tove', 'reading', {
      reading: { kind: 'volts', from: 'B+', to: on.compiled.circuit.frame, setup: {}, value: 24 },
      typed: '24',
    });
  it('is read and locked by who is licensed for it; ordinary volts by anybody', () => {
    const licensed = somebody('Tove', { licences: ['lineVolts'] });
    expect(judge(volts(model), signedAs(tove))).toBeNull();
    expect(judge(volts(line), signedAs(tove), [], line)).toEqual({
      code: 'notLicensed',
      person: 'Tove',
      licence: 'lineVolts',
    });
    expect(judge(volts(line), signedAs(licensed), [], line)).toBeNull();
    // By what the drawing says, whatever energy the entry names.
    const [mains] = isolationPlan(line).filter(({ prove }) => prove.length > 0);
    const closing = write('Tove', 'isolation', {
      point: mains!.point,
      energy: 'spring',
      how: '',
      lock: '1',
      tag: '',
      released: '',
    });
    expect(judge(closing, signedAs(tove), [], line)).toMatchObject({ licence: 'lineVolts' });
    expect(judge(closing, signedAs(licensed), [], line)).toBeNull();
    // What is seen from where one stands needs none.
    const works = write('Tove', 'reading', {
      reading: { kind: 'function', part: 'Y1', setup: {}, value: 'works' },
      typed: 'works',
    });
    expect(judge(works, signedAs(tove), [], line)).toBeNull();
  });
});

describe('a learner', () => {
  const sign = write('Jorin', 'madeSafe', { points: [] });
  it('signs the plan beside somebody who is none', () => {
    expect(judge(sign, signedAs(learner))).toEqual({ code: 'learnerAlone', type: 'madeSafe' });
    expect(judge(sign, signedAs(learner, { witness: learner }))).toMatchObject({ code: 'learnerAlone' });
    expect(judge(sign, signedAs(learner, { witness: tove }))).toBeNull();
    expect(judge(sign, signedAs(learner, { learnersSeen: false }))).toBeNull();
  });

  it('decides, and nothing is fitted or handed over before somebody else has looked', () => {
    expect(judge(decided('Jorin'), signedAs(learner))).toEqual({ code: 'learnerUnsaid' });
    const own = decided('Jorin', { learner: true });
    expect(judge(own, signedAs(learner))).toBeNull();
    const fix = write('Tove', 'fix', fitted('F1'));
    expect(judge(fix, signedAs(tove), [own])).toEqual({ code: 'decisionUnseen', by: 'Jorin' });
    expect(handOverStops(model, reduceJob([own]))).toContainEqual({ code: 'unseen', by: 'Jorin' });
    const opinion = (name: string, says = 'approve') =>
      write(name, 'opinion', { decision: own.id, says, note: '' });
    expect(judge(opinion('Jorin'), signedAs(learner), [own])).toEqual({
      code: 'opinionOwn',
      person: 'Jorin',
    });
    // Also where they have become a technician since: it is still their own.
    expect(judge(opinion('Jorin'), signedAs(somebody('Jorin')), [own])).toMatchObject({ code: 'opinionOwn' });
    expect(judge(opinion('Tove'), signedAs(tove), [own])).toBeNull();
    expect(judge(fix, signedAs(tove), [own, opinion('Tove')])).toBeNull();
    expect(judge(fix, signedAs(tove), [own, opinion('Tove', 'sendBack')])).toMatchObject({
      code: 'decisionUnseen',
    });
  });
});
