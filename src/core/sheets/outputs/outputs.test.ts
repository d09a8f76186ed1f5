import { codes, fill } from '../testing/fill';
import type { OutputsAnswer } from './outputs';

const OUT = ['1', '2', '3', '4'];
const base = { outputs: OUT, supplyVolts: 24, loads: 'on', sensorLoop: 'closed' };
const outputs = (fields: object) => fill<OutputsAnswer>('outputs', { ...base, ...fields });
type Table = Record<string, Record<string, number>>;

/** A grid by a rule, all of it or some rows. */
const grid = (volts: (commanded: string, measured: string) => number, rows = OUT, places = OUT): Table =>
  Object.fromEntries(rows.map((c) => [c, Object.fromEntries(places.map((m) => [m, volts(c, m)]))]));
const sound = (c: string, m: string) => (c === m ? 23.8 : 0.02);

describe('the output matrix', () => {
  it('sound, and only once every row says so', () => {
    expect(outputs({ matrix: grid(sound) })).toMatchObject({ cause: 'healthy', next: null });
    const half = outputs({ matrix: grid(sound, ['1', '2']) });
    expect(half.cause).toBeNull();
    expect(half.next).toMatchObject({ how: 'volts' });
  });
  it('a dead source, an open loop, a dead master', () => {
    expect(outputs({ supplyVolts: 0.3, matrix: grid(() => 0) })).toMatchObject({ cause: 'deadSource' });
    expect(outputs({ sensorLoop: 'open', matrix: grid(() => 0.01) })).toMatchObject({
      cause: 'openSensorLoop',
    });
    expect(outputs({ sensorLoop: undefined, matrix: grid(() => 0) }).cause).not.toBe('deadMaster');
    const places = [...OUT, 'M'];
    const dead = outputs({ master: 'M', matrix: grid((c, m) => (m === 'M' ? 0 : sound(c, m)), OUT, places) });
    expect(dead).toMatchObject({ cause: 'deadMaster', of: ['M'] });
    const live = outputs({
      master: 'M',
      matrix: grid((c, m) => (m === 'M' ? 24 : sound(c, m)), OUT, places),
    });
    expect(live.cause).toBe('healthy');
    expect(outputs({ supplyVolts: undefined, matrix: grid(() => 0) })).toMatchObject({
      cause: null,
      next: { ask: 'supplyVolts' },
    });
  });
  it('none live though the loop is closed is no open loop', () => {
    for (const sensorLoop of ['closed', 'bridged'])
      expect(outputs({ sensorLoop, matrix: grid(() => 0.02) }).cause).not.toBe('openSensorLoop');
  });
  it('a block, one output, two that are crossed or live together', () => {
    const modules = [
      ['1', '2'],
      ['3', '4'],
    ];
    const block = outputs({ modules, matrix: grid((c, m) => (['3', '4'].includes(m) ? 0 : sound(c, m))) });
    expect(block).toMatchObject({ cause: 'deadModule', of: ['3', '4'] });
    const single = outputs({ modules, matrix: grid((c, m) => (m === '3' ? 0 : sound(c, m))) });
    expect(single).toMatchObject({ cause: 'deadOutput', of: ['3'] });
    // A shorted load reads the same while it hangs on it.
    expect(codes(single)).toContain('loadMayHold');
    const off = outputs({ modules, loads: 'off', matrix: grid((c, m) => (m === '3' ? 0 : sound(c, m))) });
    expect(codes(off)).not.toContain('loadMayHold');
    const swap = (name: string) => ({ '2': '4', '4': '2' })[name] ?? name;
    expect(outputs({ matrix: grid((c, m) => sound(swap(c), m)) })).toMatchObject({
      cause: 'crossed',
      of: ['2', '4'],
    });
    const both = outputs({ matrix: grid((c, m) => (c === '1' && m === '3' ? 23.7 : sound(c, m))) });
    expect(both).toMatchObject({ cause: 'crossed', of: ['1', '3'] });
  });
  it('part volts are a leak or a ghost only once something has loaded them', () => {
    const part = (c: string, m: string) => (m === '2' && c !== '2' ? 11 : sound(c, m));
    const open = outputs({ loads: 'off', matrix: grid(part) });
    expect(open.cause).toBeNull();
    expect(open.next).toMatchObject({ measured: '2', how: 'lowImpedance' });
    const low = (volts: number) => ({ lowImpedance: { '1': { '2': volts } } });
    expect(outputs({ loads: 'off', matrix: grid(part), ...low(0.1) })).toMatchObject({
      cause: 'ghost',
      of: ['2'],
    });
    expect(outputs({ loads: 'off', matrix: grid(part), ...low(11) })).toMatchObject({
      cause: 'leaking',
      of: ['2'],
    });
    expect(outputs({ loads: 'on', matrix: grid(part) })).toMatchObject({ cause: 'leaking', of: ['2'] });
  });
  it('an open common shares its volts out (L03), a worn selector gives another output', () => {
    const three = ['1', '2', '3'];
    const common = grid((c, m) => (c === m ? 16 : 8), three, three);
    expect(outputs({ outputs: three, matrix: common })).toMatchObject({ cause: 'openCommon' });
    const worn = outputs({ matrix: grid((c, m) => sound(c === '2' ? '3' : c, m)) });
    expect(worn).toMatchObject({ cause: 'selector', of: ['2'] });
    const shifted = outputs({ matrix: grid((c, m) => sound(OUT[(OUT.indexOf(c) + 1) % 4]!, m)) });
    expect(shifted.cause).toBe('selector');
  });
  it('what fits nothing has no name', () => {
    const odd = outputs({ matrix: grid((c, m) => [3, 17, 9, 13][(Number(c) * 3 + Number(m)) % 4]!) });
    expect(odd).toMatchObject({ cause: null, share: null });
    expect(codes(odd)).toContain('fitsNothing');
    expect(() => outputs({ matrix: { '9': { '1': 3 } } })).toThrow(/matrix\.9: "9" is not on this sheet/);
  });
  it('following what is asked finds it in few cells', () => {
    const truth = (c: string, m: string) => (m === '3' ? 0 : sound(c, m));
    const matrix: Table = {};
    let cells = 0;
    let answer = outputs({ matrix });
    while (answer.cause === null && answer.next && 'how' in answer.next && cells < 16) {
      const { commanded, measured } = answer.next;
      (matrix[commanded] ??= {})[measured] = truth(commanded, measured);
      cells++;
      answer = outputs({ matrix });
    }
    expect(answer).toMatchObject({ cause: 'deadOutput', of: ['3'] });
    expect(cells).toBeLessThan(12);
  });
  it('read to the frame all of them stand up where the common of the loads is open; read across the loads they share', () => {
    const all = grid((c, m) => (c === m ? 23.8 : 23.6));
    expect(outputs({ against: 'frame', matrix: all })).toMatchObject({ cause: 'openCommon', of: [] });
    expect(outputs({ matrix: all }).cause).not.toBe('openCommon');
    // By one place alone it is not said: that place may leak.
    const one = grid((c, m) => (c === m || m === '3' ? 23.8 : 0.02), ['1'], ['1', '3']);
    expect(outputs({ against: 'frame', matrix: one }).cause).toBeNull();
  });
  it('of two outputs what stands at rest tells a leak from two that come on together', () => {
    const two = { outputs: ['1', '2'], against: 'frame', atRest: {} as Record<string, number> };
    const matrix = { '1': { '1': 23.8, '2': 0.02 }, '2': { '1': 23.7, '2': 23.8 } };
    expect(outputs({ ...two, matrix })).toMatchObject({ cause: null, next: { ask: 'atRest.1' } });
    expect(outputs({ ...two, matrix, atRest: { '1': 23.7 } })).toMatchObject({ cause: 'leaking', of: ['1'] });
    expect(outputs({ ...two, matrix, atRest: { '1': 0.01 } })).toMatchObject({
      cause: 'crossed',
      of: ['1', '2'],
    });
    expect(() => outputs({ ...two, atRest: { '7': 1 } })).toThrow(/atRest\.7: "7" is not on this sheet/);
  });
  it('one that gives part of its supply on its own command is not called sound, nor is a leak of a few volts everywhere', () => {
    const weak = grid((c, m) => (c === '2' && m === '2' ? 18.6 : sound(c, m)));
    expect(outputs({ against: 'frame', matrix: weak }).cause).toBeNull();
    const little = grid((c, m) => (c !== '3' && m === '3' ? 1.9 : sound(c, m)));
    expect(outputs({ against: 'frame', matrix: little })).toMatchObject({ cause: 'leaking', of: ['3'] });
  });
});
