import { CircuitModel } from '../../circuit/model';
import { contactorTwoSupplies } from '../../templates/line';
import { TEMPLATES } from '../../templates/templates';
import { entryWriter, fitted } from '../../testing/entryWriter';
import type { Entry } from '../entries';
import { mayAppend } from './mayAppend';
import { benchChecks, soundSpare } from './spareOnBench';
import { signedAs } from '../../testing/signedAs';

const write = entryWriter();
const circuit = TEMPLATES.find(({ id }) => id === 'single-coil')!.build();
const model = new CircuitModel(circuit);
const decided = (part: string, action = 'replace') =>
  write('decision', { part, fault: 'open', action, why: '', cleared: [], minutes: null, cost: null });
const spare = (value: number | 'OL', bench = 'winding', good = false) =>
  write('spareTest', { part: 'Y1', measure: 'ohms', typed: String(value), good, bench, value });
const fix = (more: object = {}) => write('fix', fitted('Y1', more));
const refusal = (entry: Entry, ...log: Entry[]) =>
  mayAppend(entry, {
    model,
    log: () => log,
    after: () => [],
    receivedMs: Date.parse(entry.at),
    signing: signedAs(),
  });
const coil = circuit.parts.find(({ ref }) => ref === 'Y1');
const ohms = coil?.kind === 'coil' ? coil.ohms! : NaN;

describe('a spare on the bench', () => {
  it('is fitted after its reading, and the last one counts', () => {
    expect(refusal(fix(), decided('Y1'))).toMatchObject({ code: 'spareUnread', measures: ['winding'] });
    expect(refusal(fix(), decided('Y1'), spare(ohms))).toBeNull();
    expect(refusal(fix(), decided('Y1'), spare(ohms), spare('OL'))).toMatchObject({ code: 'spareUnread' });
    expect(refusal(fix(), decided('Y1'), spare('OL'), spare(ohms))).toBeNull();
  });
  it('that follows one that did not mend it is read by itself: what the one before it read is of that one', () => {
    const first = [decided('Y1'), spare(ohms), fix()];
    expect(refusal(fix(), ...first, decided('Y1'))).toMatchObject({ code: 'spareUnread' });
    expect(refusal(fix(), ...first, decided('Y1'), spare(ohms))).toBeNull();
    // Another part that was fitted since takes nothing from a spare that lies read on the bench.
    const other = write('fix', fitted('W1'));
    expect(refusal(fix(), spare(ohms), decided('W1'), other, decided('Y1'))).toBeNull();
  });
  it('that is a lamp or a motor reads less than it has at work, and is refused only where it is open or reads more', () => {
    const build = (id: string) => TEMPLATES.find((one) => one.id === id)!.build();
    for (const [id, ref, drawn] of [
      ['change-over-relay', 'H1', 6],
      ['winch-pack', 'M', 0.09],
    ] as const) {
      const lit = new CircuitModel(build(id));
      const [check] = benchChecks(lit, ref);
      for (const sound of [drawn / 12, drawn / 4, drawn]) expect(soundSpare(sound, check!)).toBe(true);
      for (const bad of ['OL', 2 * drawn] as const) expect(soundSpare(bad, check!)).toBe(false);
      // What somebody said that a meter reads is held against as any winding is.
      const parts = build(id).parts.map((part) =>
        part.ref === ref ? { ...part, restOhms: drawn / 10 } : part,
      );
      const [said] = benchChecks(new CircuitModel({ ...build(id), parts: parts as never }), ref);
      expect(soundSpare(drawn / 10, said!)).toBe(true);
      expect(soundSpare(drawn, said!)).toBe(false);
    }
  });
  it('counts by what it read, not by what was said of it', () => {
    expect(refusal(fix(), decided('Y1'), spare('OL', 'winding', true))).toMatchObject({
      code: 'spareUnread',
    });
    expect(refusal(spare('OL', 'winding', true))).toMatchObject({ code: 'input', field: 'good' });
    expect(refusal(spare(ohms, 'winding', true))).toBeNull();
  });
  it('is asked for by nothing but a replacement, and may be left with a reason', () => {
    expect(refusal(fix(), decided('Y1', 'repair'))).toBeNull();
    expect(refusal(fix(), decided('W1'))).toBeNull();
    expect(refusal(fix({ untested: 'sealed unit' }), decided('Y1'))).toBeNull();
  });
  it('of a switch reads both ways, of a fuse end to end, and what nobody knows the ohms of is only not open', () => {
    const line = new CircuitModel(contactorTwoSupplies());
    const kinds = line.compiled.circuit.parts.map(({ ref, kind }) => ({
      kind,
      checks: benchChecks(line, ref),
    }));
    expect(kinds.find(({ kind }) => kind === 'switch')!.checks.map(({ measure }) => measure)).toEqual([
      'closed',
      'open',
    ]);
    const [fuse] = kinds.find(({ kind }) => kind === 'fuse' || kind === 'breaker')!.checks;
    expect([soundSpare(0.2, fuse!), soundSpare('OL', fuse!)]).toEqual([true, false]);
    const bare = circuit.parts.map((part) => (part.ref === 'Y1' ? { ...part, ohms: undefined } : part));
    const unknown = new CircuitModel({ ...circuit, parts: bare as typeof circuit.parts });
    const [winding] = benchChecks(unknown, 'Y1');
    expect(winding!.about).toBeNull();
    expect([soundSpare(7, winding!), soundSpare('OL', winding!)]).toEqual([true, false]);
  });
});
