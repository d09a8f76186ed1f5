import { readFileSync } from 'node:fs';
import { parseCircuit } from '@/core/circuit/parse';
import { CircuitModel } from '@/core/circuit/model';
import type { Reading } from '@/core/circuit/schema';
import { Diagnoser } from '@/core/diagnosis/diagnose';
import { findLanes } from '@/core/path/lanes';
import { partStandings } from '@/core/path/standing';
import { bandWords, goesToWords, reasonWords, thenWords } from './answerWords';
import { evidenceWords, statementLines } from './findingWords';
import { holdWords } from './holdWords';
import { readingWords, type Speaker } from './words';
import { setupSteps } from './setupSteps';

const circuit = parseCircuit(
  JSON.parse(readFileSync('demo/circuits/groomer-blade-tilt.circuit.json', 'utf8')),
);
const model = new CircuitModel(circuit);
const speaker: Speaker = { model, lanes: findLanes(model) };
const diagnoser = new Diagnoser(circuit);
const right = { controls: { key: 'on', tilt: 'right' } };
const complaint: Reading[] = [
  { kind: 'function', part: 'Y7', setup: { controls: { key: 'on', tilt: 'left' } }, value: 'works' },
  { kind: 'function', part: 'Y8', setup: right, value: 'dead' },
];

describe('wording', () => {
  it('says a reading in one breath', () => {
    expect(readingWords(speaker, complaint[1]!)).toBe('Y8 tilt right coil dead, key on, tilt right');
    expect(
      readingWords(speaker, {
        kind: 'ohms',
        from: 'X8:1',
        to: 'GND',
        setup: { pulled: ['F7'] },
        value: 'OL',
      }),
    ).toBe('OL, 15 to 12, dead');
    expect(readingWords(speaker, { kind: 'volts', from: 'B+', to: 'GND', setup: right, value: 25.18 })).toBe(
      '25.2 V, 1 to 12, key on, tilt right',
    );
  });

  it('writes the set-up in at most four lines, dead tests dead first', () => {
    const steps = setupSteps(speaker, {
      kind: 'ohms',
      from: 'Y8:1',
      to: 'Y8:2',
      setup: { pulled: ['F7'], unplugged: ['X8'] },
    });
    expect(steps.length).toBeLessThanOrEqual(4);
    expect(steps[0]).toMatch(/^Pull fuse F7, cab fuses, slot 7\. Prove it dead\.$/);
    expect(steps[1]).toBe('Unplug X8, valve block, right.');
  });

  it('puts the worst hold first and asks for a tick where something may move', () => {
    expect(holdWords(['powerOff', 'unplug'])).toMatchObject({ mustTick: false });
    expect(holdWords(['moves'])).toMatchObject({ mustTick: true, text: expect.stringContaining('may move') });
    expect(holdWords(['moves', 'lineVolts']).text).toMatch(/Line volts kill/);
  });

  it('gives every outcome of the best test its band, meaning and turns', () => {
    const { next, verdict } = diagnoser.diagnose(complaint);
    const [best] = next;
    for (const outcome of best!.outcomes) {
      expect(bandWords(best!.test.kind, outcome)).toMatch(/Ω|OL/);
      expect(thenWords(best!.test, outcome, best!.expected)).toMatch(/\.$/);
      expect(goesToWords(outcome)).toMatch(/^[A-Z]\d/);
    }
    expect(reasonWords(best!, verdict)).toMatch(/^Splits the doubt \d+ against \d+$/);
  });

  it('says what the readings mean in at most three lines, in words that never order a part', () => {
    const cases: Reading[][] = [
      [],
      complaint,
      [...complaint, { kind: 'ohms', from: 'X8:1', to: 'GND', setup: { pulled: ['F7'] }, value: 'OL' }],
    ];
    for (const readings of cases) {
      const diagnosis = diagnoser.diagnose(readings);
      const { parts } = partStandings(diagnoser.model, diagnoser.faults, diagnosis, readings);
      const lines = statementLines(
        speaker,
        diagnosis.verdict,
        diagnosis.suspects,
        parts,
        readings,
        diagnosis.next[0],
      );
      expect(lines.length).toBeGreaterThan(0);
      expect(lines.length).toBeLessThanOrEqual(3);
      expect(lines.join(' ')).not.toMatch(/replace|%|!/i);
    }
    const { suspects } = diagnoser.diagnose(complaint);
    expect(evidenceWords(speaker, suspects[0]!.for, complaint)).toContain('Y8 tilt right coil dead');
    expect(evidenceWords(speaker, [], complaint)).toBe('Nothing yet.');
  });
});

describe('the fluid side in words', () => {
  const gate = parseCircuit(JSON.parse(readFileSync('demo/circuits/compressor-gate.circuit.json', 'utf8')));
  const own: Speaker = { model: new CircuitModel(gate), lanes: findLanes(new CircuitModel(gate)) };
  const opening = { controls: { gate: 'open' } };

  it('reads gauges in bar, at places with names', () => {
    const reading: Reading = { kind: 'pressure', at: 'Regulator outlet', setup: opening, value: 212 };
    expect(readingWords(own, reading)).toBe('2.12 bar, Regulator outlet (c), gate open');
    expect(
      bandWords('pressure', { reading: 600, low: 572, high: 631, share: 1, means: [], sound: true }),
    ).toBe('5.72–6.31 bar');
  });

  it('says what to take off, stop, push and swap, in the order it is done', () => {
    const steps = setupSteps(own, {
      kind: 'pressure',
      at: 'Valve 4',
      setup: {
        ...opening,
        lifted: [{ part: 'H4', node: 'Valve 4' }],
        plugged: ['Valve 4'],
        override: ['Q1'],
      },
    });
    expect(steps).toHaveLength(4);
    expect(steps.join(' ')).toMatch(
      /Lift H4 off Valve 4 \(e\).*Stop the opening at Valve 4 \(e\).*Push the override of Q1/,
    );
    const swap = setupSteps(own, {
      kind: 'function',
      part: 'Y14',
      setup: { ...opening, swapped: [['Y14', 'Y12']] },
    });
    expect(swap[0]).toBe('Swap Y14 with its twin Y12.');
    const held = setupSteps(own, {
      kind: 'ohms',
      from: 'C',
      to: 'R',
      setup: { pulled: ['F1'], secured: ['Y14'] },
    });
    expect(held[0]).toBe('Block or lower the load that Y14, valve block holds.');
  });

  it('puts the worst that can happen first', () => {
    expect(holdWords(['pressure', 'heldLoad']).text).toMatch(/holds a load up/);
    expect(holdWords(['heldLoad']).mustTick).toBe(true);
    expect(holdWords(['pressure']).text).toMatch(/vent before a line comes off/);
    expect(holdWords(['jumper', 'live'])).toMatchObject({ mustTick: true });
  });
});
