import { CircuitModel } from '../circuit/model';
import { parseCircuit } from '../circuit/parse';
import type { Circuit } from '../circuit/schema';
import { Diagnoser } from '../diagnosis/diagnose';
import { emptyDrawing, layChains } from '../draw/layChain';
import { clutchInterlocks } from '../templates/electrical';
import { countsAsGuard, guardOf, guardsDefeated, guardsWithin } from './guards';

const draw = (text: string) => parseCircuit(layChains(emptyDrawing('Test'), text).circuit);
const answer = (circuit: Circuit, ref: string, guards: string): Circuit =>
  parseCircuit({
    ...circuit,
    parts: circuit.parts.map((part) => (part.ref === ref ? { ...part, guards } : part)),
  });
const part = (circuit: Circuit, ref: string) => circuit.parts.find((one) => one.ref === ref)!;
const RUN = 'battery 24, fuse 5, operator presence switch, wire, key switch, plug X1, coil 30, ground';

describe('whom a contact protects', () => {
  it('is what the file says, and a guard until it says so, whatever the contact is called', () => {
    const circuit = draw(RUN);
    expect(guardOf(part(circuit, 'S1'))).toBe('unanswered');
    expect(countsAsGuard(part(circuit, 'S1'))).toBe(true);
    expect(countsAsGuard(part(answer(circuit, 'S2', 'none'), 'S2'))).toBe(false);
    // A word cannot free it either.
    const renamed = { ...part(circuit, 'S1'), label: 'Plain lamp switch' };
    expect(countsAsGuard(renamed)).toBe(true);
    expect(guardOf(part(circuit, 'F1'))).toBeNull();
  });

  it('of an older file: its "no" is an answer, its "yes" leaves open who', () => {
    const old = part(draw(RUN), 'S1');
    expect(guardOf({ ...old, safety: false } as typeof old)).toBe('none');
    expect(guardOf({ ...old, safety: true } as typeof old)).toBe('unanswered');
  });

  it.each(['operator presence switch', 'tether switch', 'key switch'])(
    'no test offers to bridge a %s that nobody has answered for',
    (name) => {
      const circuit = draw(`battery 24, fuse 5, ${name}, plug X1, coil 30, ground`);
      const control = Object.keys(circuit.controls)[0]!;
      const on = { controls: { [control]: circuit.controls[control]!.at(-1)! } };
      const dead = { kind: 'function', part: 'Y1', setup: on, value: 'dead' } as const;
      const bridges = (of: Circuit) =>
        new Diagnoser(of)
          .diagnose([dead], { preferences: { noJumpers: false }, most: 400 })
          .next.flatMap(({ test }) => test.setup.jumpers ?? []);
      expect(bridges(circuit)).toEqual([]);
      expect(bridges(answer(circuit, 'S1', 'none')).length).toBeGreaterThan(0);
      expect(bridges(answer(circuit, 'S1', 'person'))).toEqual([]);
    },
  );
});

describe('a bridge', () => {
  const model = new CircuitModel(answer(draw(RUN), 'S2', 'none'));
  const nodes = (ref: string) => part(model.compiled.circuit, ref).nodes as Record<string, string>;

  it('from far outside takes in every guard on the way, from either side', () => {
    const [from, to] = [nodes('G1')['+']!, nodes('Y1')['1']!];
    expect(guardsWithin(model, [from, to])).toEqual(['S1']);
    expect(guardsWithin(model, [to, from])).toEqual(['S1']);
    expect(guardsDefeated(model, { jumpers: [[from, to]] })).toEqual(['S1']);
  });

  it('around what lies beside the guard leaves it alone', () => {
    expect(guardsWithin(model, [nodes('S2')['1']!, nodes('S2')['2']!])).toEqual([]);
    expect(guardsWithin(model, [nodes('Y1')['1']!, 'GND'])).toEqual([]);
    expect(guardsWithin(model, [nodes('S1')['1']!, 'no such place'])).toEqual([]);
  });

  it('around a guard with another contact beside it still takes the guard out', () => {
    const circuit = clutchInterlocks();
    const own = new CircuitModel(circuit);
    for (const guard of circuit.parts.filter(countsAsGuard)) {
      const { '1': from, '2': to } = guard.nodes as Record<'1' | '2', string>;
      expect(guardsWithin(own, [from, to])).toContain(guard.ref);
    }
  });

  it('a guarding relay held in by hand is out of action while a supply is on', () => {
    const relay = parseCircuit({
      format: 'spiraxis-circuit',
      version: 1,
      name: 'Relay',
      frame: 'GND',
      controls: { key: ['off', 'on'] },
      parts: [
        { ref: 'G1', kind: 'source', nodes: { '+': 'B+', '-': 'GND' }, volts: 24 },
        {
          ref: 'S1',
          kind: 'switch',
          nodes: { '1': 'B+', '2': 'A1' },
          closedWhen: { key: ['on'] },
          guards: 'none',
        },
        {
          ref: 'K1',
          kind: 'relay',
          nodes: { a1: 'A1', a2: 'GND', com: 'B+', no: 'L' },
          ohms: 300,
          guards: 'person',
        },
        { ref: 'M1', kind: 'motor', nodes: { '1': 'L', '2': 'GND' }, ohms: 4 },
      ],
    });
    const held = new CircuitModel(relay);
    expect(guardsDefeated(held, { energised: ['K1'] })).toEqual(['K1']);
    expect(guardsDefeated(held, { energised: ['K1'], isolated: ['G1'] })).toEqual([]);
    expect(guardsDefeated(held, { jumpers: [['B+', 'L']] })).toEqual(['K1']);
    expect(guardsDefeated(held, { jumpers: [['B+', 'A1']] })).toEqual([]);
  });
});
