import { entryWriter, fitted } from '../../testing/entryWriter';
import type { Entry } from '../entries';
import { reduceJob } from '../reduceJob';
import { missedBy } from './newestState';
import { nextStep } from './nextStep';
import { stepsDone } from './stepsDone';

const write = entryWriter();
const handOver = () => write('handOver', { note: '' });
const lock = { point: 'G1', energy: 'control', how: 'Fuse out', lock: '4', tag: '', released: '' };
const wire = { part: 'Y1', terminal: '1', mark: '7', colour: '', to: '', through: 'unknown' };
const read = { kind: 'function', part: 'Y1', setup: {}, value: 'dead' };
const code = { system: 'ECU 3', component: 5, text: '', via: 'typed' };

/** What whoever handed over would have had to know. */
const STIRS: [Entry['type'], object][] = [
  ['ledger', { item: 'jumper across K1', kind: 'jumper' }],
  ['isolation', lock],
  ['reading', { reading: read, typed: 'dead' }],
  ['fix', fitted('Y1')],
  ['proof', { proof: 'works Y1', done: false, found: 'dead' }],
  ['decision', { part: 'Y1', fault: 'open', action: 'replace', why: '' }],
  ['wire', { ...wire, phase: 'found' }],
  ['code', { ...code, present: true }],
  ['complaint', { words: 'It jerks as well.' }],
  ['redrawn', { version: 4 }],
];
const RESTS: [Entry['type'], object][] = [
  ['ledgerOut', { item: 'jumper across K1' }],
  ['proof', { proof: 'works Y1', done: true, found: 'works' }],
  ['wire', { ...wire, phase: 'left' }],
  ['code', { ...code, present: false }],
  ['looked', { check: 'water', finding: 'good' }],
  ['noReach', { node: 'X4:2' }],
];

describe('what a hand-over did not know', () => {
  it.each(STIRS)('takes the machine back in hand: %s', (type, body) => {
    const late = write(type, body);
    const before = handOver();
    const state = reduceJob([before, late]);
    expect(state).toMatchObject({ handOver: null, overtaken: { handOver: before, by: late } });
    expect(stepsDone(state, null)).not.toContain('hand-over');
    const keepTesting = { verdict: { state: 'keepTesting', because: 'noReading' }, next: [] } as const;
    expect(nextStep(state, { ...keepTesting, next: [] })).toEqual({ step: 'overtaken' });
    // Where it came first, the hand-over is refused by the same rule.
    expect(missedBy(handOver(), [late])).toEqual([late]);
    // Whoever knows it hands over anew.
    const anew = handOver();
    expect(reduceJob([before, late, anew])).toMatchObject({ handOver: anew, overtaken: null });
  });

  it.each(RESTS)('and what changes nothing of it: %s', (type, body) => {
    const late = write(type, body);
    const before = handOver();
    expect(reduceJob([before, late])).toMatchObject({ handOver: before, overtaken: null });
    expect(missedBy(handOver(), [late])).toEqual([]);
  });

  it('what was taken back of the machine’s own record takes it back too', () => {
    const shown = write('proof', { proof: 'works Y1', done: true, found: 'works' });
    const before = handOver();
    const back = write('withdrawal', {}, { supersedes: shown.id });
    expect(reduceJob([shown, before, back])).toMatchObject({ handOver: null, overtaken: { by: back } });
    // A hand-over that was itself taken back is none that anything overtakes.
    const own = write('withdrawal', {}, { supersedes: before.id });
    expect(reduceJob([shown, before, own])).toMatchObject({ handOver: null, overtaken: null });
  });
});
