import { CircuitModel } from '../../circuit/model';
import { parseCircuit } from '../../circuit/parse';
import { emptyDrawing, layChains } from '../../draw/layChain';
import { bindTest, predict, predictedValue } from '../../diagnosis/predict';
import { hydraulicLift } from '../../templates/fluid';
import { isolationPlan } from '../../safety/isolationPlan';
import { entryWriter, fitted } from '../../testing/entryWriter';
import type { Entry } from '../entries';
import { proofList, proofStanding } from '../proofList';
import { reduceJob } from '../reduceJob';
import { handOverStops } from './handOverStops';
import { ledgerStanding, safetyDefects } from './ledgerStanding';
import { mayAppend } from './mayAppend';
import { clockOff } from './writersClock';
import { signedAs, somebody } from '../../testing/signedAs';

const drawn = layChains(
  emptyDrawing('Fan'),
  'battery 24, fuse 5, seat switch, wire, key switch, plug X1, coil 30, ground',
).circuit;
const circuit = parseCircuit({
  ...drawn,
  parts: drawn.parts.map((part) =>
    part.ref === 'S1'
      ? { ...part, guards: 'person' }
      : part.ref === 'S2'
        ? { ...part, guards: 'none' }
        : part,
  ),
});
const model = new CircuitModel(circuit);
const plan = isolationPlan(model);
const nodes = (ref: string) => circuit.parts.find((one) => one.ref === ref)!.nodes as Record<string, string>;
const bridge: [string, string] = [nodes('S1')['1']!, nodes('S1')['2']!];
const running = { controls: { seat: 'taken', key: 'on' } };
const empty = { controls: { seat: 'empty', key: 'on' } };

const own = entryWriter('Tove');
const NOW = Date.parse('2026-02-04T08:30:00.000Z');
const volts = (value: number, typed = String(value)) => ({ value, unit: 'V' as const, typed });
const closing = (work = 0): Entry[] =>
  plan.map(({ point, energy, prove }) =>
    own('isolation', {
      point,
      energy,
      how: '',
      lock: '7',
      tag: '7',
      released: '',
      ...(prove.length > 0
        ? {
            proved: {
              knownBefore: volts(12),
              work: prove.map(({ from, to }) => ({ from, to, measured: volts(work) })),
              knownAfter: volts(12),
            },
          }
        : { tried: 'tried' }),
    }),
  );
/** An entry written when `seen` entries of the log were known. */
const against = (entry: Entry, seen: number, ids: string[] = []): Entry => ({
  ...entry,
  against: { number: seen, own: ids },
});
const judge = (entry: Entry, log: readonly Entry[], receivedMs = NOW, signing = signedAs()) =>
  mayAppend(entry, {
    model,
    log: () => log,
    after: (number) => log.slice(number),
    receivedMs,
    signing,
  });

describe('isolation and its signature', () => {
  it('a live place is refused whatever the screen let through', () => {
    for (const entry of closing()) expect(judge(entry, [])).toBeNull();
    const [live] = closing(12.6).filter(({ body }) => 'proved' in body);
    expect(judge(live!, [])).toMatchObject({ code: 'notProved', refusal: { code: 'alive' } });
    const bare = { ...live!, body: { ...live!.body, proved: undefined } } as unknown as Entry;
    expect(judge(bare, [])).toMatchObject({ code: 'notProved', refusal: { code: 'missing' } });
  });

  it('is signed only with every point closed, by somebody who saw them closed', () => {
    const locks = closing();
    const sign = own('madeSafe', { points: plan.map(({ point }) => point) });
    expect(judge(sign, locks)).toEqual({ code: 'noState', type: 'madeSafe' });
    expect(judge(against(sign, locks.length), locks)).toBeNull();
    expect(judge(against(sign, 0), [])).toMatchObject({ code: 'notClosed' });
    // Its own entries that waited with it were seen, others' were not.
    expect(
      judge(
        against(
          sign,
          0,
          locks.map(({ id }) => id),
        ),
        locks,
      ),
    ).toBeNull();
    expect(judge(against(sign, 0), locks)).toMatchObject({ code: 'moved', type: 'madeSafe' });
  });

  it('a lock that another tablet has taken off meanwhile is not signed for, whatever either clock says', () => {
    const locks = closing();
    const off = own('reopened', { point: plan[0]!.point, reason: 'needed it' });
    const fast = { ...own('madeSafe', { points: [] }), at: '2026-02-04T09:59:00.000Z' } as Entry;
    const log = [...locks, off];
    expect(judge(against(fast, locks.length), log)).toMatchObject({
      code: 'moved',
      missed: [{ id: off.id }],
    });
    // And in the log, order of arrival decides: signed, then opened, is open.
    const signed = { ...own('madeSafe', { points: [] }), at: '2026-02-04T09:59:00.000Z' } as Entry;
    const later = {
      ...own('reopened', { point: plan[0]!.point, reason: 'x' }),
      at: '2026-02-04T08:00:00.000Z',
    };
    expect(reduceJob([...locks, signed, later as Entry]).madeSafe).toBeNull();
    expect(reduceJob([...locks, later as Entry, signed]).madeSafe).not.toBeNull();
  });

  it('a clock outside reason is refused, one that is two minutes off is said', () => {
    const wrong = { ...own('complaint', { words: 'x' }), at: '1970-01-01T00:00:00.000Z' } as Entry;
    expect(judge(wrong, [])).toMatchObject({ code: 'clock' });
    expect(judge({ ...wrong, at: '2126-01-01T00:00:00.000Z' } as Entry, [])).toMatchObject({ code: 'clock' });
    expect(judge({ ...wrong, at: '2026-02-04T09:30:00.000Z' } as Entry, [])).toBeNull();
    expect([clockOff(null), clockOff(90_000), clockOff(-150_000)]).toEqual([null, null, -150_000]);
  });
});

describe('a hand on what moves', () => {
  const by = (check: string, finding: 'good' | 'bad' | 'notSeen') => own('looked', { check, finding });
  const signed = () => [...closing(), own('madeSafe', { points: plan.map(({ point }) => point) })];

  it('waits for the machine to stand made safe; that nobody put one there does not', () => {
    for (const check of ['rotor M1', 'rod C1'])
      expect(judge(by(check, 'bad'), [])).toEqual({ code: 'handNotSafe', part: check.split(' ')[1] });
    expect(judge(by('rotor M1', 'good'), closing())).toMatchObject({ code: 'handNotSafe' });
    expect(judge(by('rotor M1', 'good'), signed())).toBeNull();
    expect(judge(by('rotor M1', 'notSeen'), [])).toBeNull();
    expect(judge(by('plug X1', 'bad'), [])).toBeNull();
  });

  it('and goes away again where a lock is off', () => {
    const off = own('reopened', { point: plan[0]!.point, reason: 'needed it' });
    expect(judge(by('rotor M1', 'good'), [...signed(), off])).toMatchObject({ code: 'handNotSafe' });
  });
});

describe('a bridge', () => {
  const put = own('ledger', { item: 'Bridge S1', kind: 'jumper', puts: { jumpers: [bridge] }, found: true });
  const out = own('ledgerOut', { item: 'Bridge S1' });
  const reading = (setup: object, value: string) =>
    own('reading', {
      reading: { kind: 'function', part: 'Y1', setup, value },
      typed: value,
      phase: 'fixed',
    });

  it('across a guard: no reading with it is taken, and found there it is a safety defect', () => {
    const bridged = own('reading', {
      reading: { kind: 'function', part: 'Y1', setup: { ...running, jumpers: [bridge] }, value: 'works' },
      typed: 'works',
    });
    expect(judge(bridged, [])).toEqual({ code: 'defeatsGuard', guards: ['S1'] });
    expect(safetyDefects(model, reduceJob([put]))).toEqual([
      { item: 'Bridge S1', guards: ['S1'], bypass: null, found: true },
    ]);
  });

  it('past a part whose bypass does harm is a defect with its danger, past any other part is none', () => {
    const danger = 'The blower cannot be stopped from the seat.';
    const dangerous = new CircuitModel(
      parseCircuit({
        ...circuit,
        parts: circuit.parts.map((part) => (part.ref === 'Y1' ? { ...part, bypassDanger: danger } : part)),
      }),
    );
    const past = own('ledger', { item: 'Link at Y1', kind: 'other', bypasses: 'Y1', found: true });
    const state = reduceJob([past]);
    expect(safetyDefects(dangerous, state)).toEqual([
      { item: 'Link at Y1', guards: [], bypass: { part: 'Y1', danger }, found: true },
    ]);
    expect(safetyDefects(model, state)).toEqual([]);
    // Whatever it leads past, it comes out before the machine goes back.
    for (const one of [dangerous, model])
      expect(handOverStops(one, state)).toContainEqual(
        expect.objectContaining({ code: 'notShown', proof: expect.objectContaining({ kind: 'ledger' }) }),
      );
    const seen = [
      past,
      own('ledgerOut', { item: 'Link at Y1' }),
      own('ledgerSeen', { item: 'Link at Y1', second: 'Ilse' }),
    ];
    expect(safetyDefects(dangerous, reduceJob(seen))).toEqual([]);
  });

  it('a guard is shown to stop what it must, never left with a reason', () => {
    const proof = proofList(model, reduceJob([])).find(
      (one) => one.kind === 'interlock' && one.guards.length > 0,
    )!;
    const left = own('proof', { proof: proof.id, done: false, found: '', reason: 'no time' });
    expect(judge(against(left, 0), [])).toEqual({ code: 'guardUntried', guards: ['S1'] });
    expect(['open', 'wrong']).toContain(proofStanding(proof, reduceJob([left])).state);
    const works = proofList(model, reduceJob([])).find(({ kind }) => kind === 'works')!;
    expect(
      judge(against(own('proof', { proof: works.id, done: false, found: '', reason: 'no time' }), 0), []),
    ).toBeNull();
  });

  it('cannot be left with a reason, here or by anybody who sends it', () => {
    const left = own('proof', { proof: 'ledger Bridge S1', done: false, found: '', reason: 'no time' });
    expect(judge(against(left, 1), [put])).toMatchObject({ code: 'mayNotBeLeft' });
    const stops = handOverStops(model, reduceJob([put, left]));
    expect(stops).toContainEqual(
      expect.objectContaining({ code: 'notShown', proof: expect.objectContaining({ kind: 'ledger' }) }),
    );
  });

  it('is gone once a reading shows it that would have been another with it in, not because somebody says so', () => {
    const standing = (...log: Entry[]) => {
      const state = reduceJob(log);
      return ledgerStanding(model, state.ledger[0]!, state).state;
    };
    expect(standing(put)).toBe('in');
    expect(standing(put, out)).toBe('out');
    // Working with the seat taken says nothing: it would with the bridge in too.
    expect(standing(put, out, reading(running, 'works'))).toBe('out');
    expect(standing(put, out, reading(empty, 'dead'))).toBe('shown');
    // Taken before it came out it shows nothing, and put in again it is in again.
    expect(standing(put, reading(empty, 'dead'), out)).toBe('out');
    expect(standing(put, out, reading(empty, 'dead'), own('ledger', put.body))).toBe('in');
  });

  it('or once a second person has seen it, who is somebody else', () => {
    const seen = (second: string) => own('ledgerSeen', { item: 'Bridge S1', second });
    const state = reduceJob([put, out, seen('Ilse')]);
    expect(ledgerStanding(model, state.ledger[0]!, state)).toEqual({
      state: 'shown',
      by: { second: 'Ilse' },
    });
    const beside = signedAs(somebody(), { witness: somebody('Ilse') });
    expect(judge(against(seen('Ilse'), 2), [put, out], NOW, beside)).toBeNull();
    expect(judge(against(seen('Ilse'), 2), [put, out])).toMatchObject({ code: 'notWitnessed' });
    expect(judge(against(seen(' tove '), 2), [put, out])).toMatchObject({ code: 'sameEyes' });
    expect(judge(against(seen('Ilse'), 1), [put], NOW, beside)).toMatchObject({ code: 'notInLedger' });
    const mine = reduceJob([put, out, seen('TOVE')]);
    expect(ledgerStanding(model, mine.ledger[0]!, mine).state).toBe('out');
  });
});

describe('handing over', () => {
  const decided = own('decision', { part: '', fault: '', action: 'nothing', why: 'sound' });
  const proofs = (log: Entry[]) =>
    proofList(model, reduceJob(log)).flatMap((proof) =>
      'test' in proof
        ? [
            own('reading', {
              reading: {
                ...proof.test,
                value: predictedValue(proof.test.kind, predict(bindTest(model, proof.test), [])),
              },
              typed: '',
              phase: 'fixed',
              check: proof.id,
            }),
            own('proof', { proof: proof.id, done: true, found: '' }),
          ]
        : [],
    );
  const log = [decided, ...proofs([])];
  const hand = own('handOver', { note: '', left: [] });

  it('is taken with everything shown, and against the newest state only', () => {
    expect(judge(against(hand, log.length), log)).toBeNull();
    expect(judge(hand, log)).toMatchObject({ code: 'noState' });
    const put = own('ledger', { item: 'Plug', kind: 'plug' });
    expect(judge(against(hand, log.length), [...log, put])).toMatchObject({ code: 'moved' });
    expect(judge(against(hand, log.length + 1), [...log, put])).toMatchObject({ code: 'stops' });
    const picture = own('looked', { check: 'x', finding: 'good' });
    expect(judge(against(hand, log.length), [...log, picture])).toBeNull();
  });

  it('a proof shows the machine as it stands: not after a work that its writer had not seen', () => {
    const shown = own('proof', { proof: 'works Y1', done: true, found: 'works' });
    const fix = own('fix', fitted('Y1'));
    const picture = own('looked', { check: 'x', finding: 'good' });
    expect(judge(shown, [])).toEqual({ code: 'noState', type: 'proof' });
    expect(judge(against(shown, 0), [picture])).toBeNull();
    expect(judge(against(shown, 0), [fix])).toMatchObject({
      code: 'moved',
      type: 'proof',
      missed: [{ type: 'fix' }],
    });
    expect(judge(against(shown, 1), [fix])).toBeNull();
    // The fix waited on the same device: whoever wrote the proof had written it.
    expect(judge(against(shown, 0, [fix.id]), [fix])).toBeNull();
  });

  it('stays shut where a dead test was taken and nobody ever signed make safe', () => {
    const dead = own('reading', {
      reading: {
        kind: 'ohms',
        from: nodes('Y1')['1'],
        to: nodes('Y1')['2'],
        setup: { isolated: ['G1'] },
        value: 30,
      },
      typed: '30',
    });
    const taken = [...log, dead];
    expect(handOverStops(model, reduceJob(taken))).toEqual([{ code: 'neverMadeSafe' }]);
    const signed = [...taken, own('madeSafe', { points: [] })];
    expect(handOverStops(model, reduceJob(signed))).toEqual([]);
  });
});

describe('what no circuit knows', () => {
  it('is refused by its field, and never as a crash', () => {
    const wrong = own('reading', {
      reading: { kind: 'volts', from: 'X99', to: 'GND', setup: {}, value: 1 },
      typed: '1',
    });
    expect(judge(wrong, [])).toMatchObject({ code: 'input' });
    const puts = own('ledger', { item: 'x', kind: 'jumper', puts: { jumpers: [['X99', 'GND']] } });
    expect(judge(puts, [])).toMatchObject({ code: 'input' });
  });
});

describe('oil under pressure', () => {
  const lift = new CircuitModel(hydraulicLift());
  const reading = (setup: object) =>
    own('reading', {
      reading: { kind: 'flow', at: 'Q1:2', setup, value: 'weak' },
      typed: 'weak',
    } as never);
  const refusal = (setup: object) =>
    mayAppend(reading(setup), {
      model: lift,
      log: () => [],
      after: () => [],
      receivedMs: NOW,
      signing: signedAs(),
    });

  it('no reading is kept that opened it', () => {
    expect(refusal({ controls: { lever: 'lift' }, open: ['Q1:2'] })).toEqual({
      code: 'opensOil',
      at: ['Q1:2'],
    });
    expect(refusal({ isolated: ['P1'], open: ['Q1:2'] })).toBeNull();
  });

  it('no reading is kept that took a relief valve from it', () => {
    const { parts, ...rest } = hydraulicLift();
    const relieved = new CircuitModel({
      ...rest,
      parts: [...parts, { ref: 'RV1', kind: 'relief', nodes: { in: 'P' }, kPa: 17_000 }],
    });
    const entry = own('reading', {
      reading: {
        kind: 'pressure',
        at: 'P',
        setup: { lifted: [{ part: 'RV1', node: 'P' }], plugged: ['P'] },
        value: 16_000,
      },
      typed: '160 bar',
    } as never);
    const before = { log: () => [], after: () => [], receivedMs: NOW, signing: signedAs() };
    expect(mayAppend(entry, { ...before, model: relieved })).toEqual({
      code: 'cutsRelief',
      reliefs: ['RV1'],
    });
  });
});
