import { demoCircuit } from '@/testing/demoCircuits';
import { CircuitModel } from '@/core/circuit/model';
import type { Reading, Test } from '@/core/circuit/schema';
import { Diagnoser } from '@/core/diagnosis/diagnose';
import type { FaultName } from '@/core/diagnosis/faultTypes';
import type { Outcome } from '@/core/diagnosis/outcomes';
import { findLanes } from '@/core/path/lanes';
import { partStandings } from '@/core/path/standing';
import { TEMPLATES } from '@/core/templates/templates';
import { bandWords, goesToWords, limitWords, reasonWords, thenWords, yardstickWords } from './answers';
import { clearWords, evidenceWords, faultWords, statementLines } from './findings';
import { gateWords, graveWords, holdWords, shutWords } from './holds';
import { setupSteps } from '@/words/en/setupSteps';
import {
  modeName,
  positionWords,
  figureWords,
  readingWords,
  testPlace,
  valueWords,
  type Speaker,
} from './readings';

const speakerOf = (model: CircuitModel): Speaker => ({
  model,
  lanes: findLanes(model),
  gaugeUnit: 'bar' as const,
});
const tilt = speakerOf(new CircuitModel(demoCircuit('groomer-blade-tilt')));
const template = (id: string) => speakerOf(new CircuitModel(TEMPLATES.find((one) => one.id === id)!.build()));
/** Between them every kind of test. */
const VARIED = [
  'air-clamp',
  'vacuum-vent',
  'three-wire-sensor',
  'twin-outputs',
  'level-control',
  'stop-solenoid',
];
const right = { controls: { key: 'on', tilt: 'right' } };
const outcome = (given: Partial<Outcome>): Outcome => ({
  reading: 0,
  share: 0.5,
  means: [],
  goes: [],
  faults: (given.means ?? []).map(({ fault, share }) => ({ fault, share })),
  sound: false,
  ...given,
});

describe('figures as a meter shows them', () => {
  it.each([
    ['volts', 27.404, '27.4 V'],
    ['volts', -0.5, '-0.5 V'],
    ['ohms', 7.4, '7.4 Ω'],
    ['ohms', 6800, '6.8 kΩ'],
    ['ohms', 3_300_000, '3.3 MΩ'],
    ['insulation', 2.2e9, '2.2 GΩ'],
    ['pressure', 620, '6.2 bar'],
    ['changes', 10.23, '0.102 bar'],
    ['changes', 620, '6.2 bar'],
  ] as const)('%s %d is %s', (kind, value, words) => {
    expect(figureWords(kind, value, 'bar')).toBe(words);
  });

  it.each([
    ['bar', '6.2 bar'],
    ['kPa', '620 kPa'],
    ['psi', '89.9 psi'],
  ] as const)('a pressure as a gauge marked in %s: %s', (unit, words) => {
    expect(valueWords('pressure', 620, unit)).toBe(words);
  });

  it('and answers that are no figures in words', () => {
    expect(valueWords('ohms', 'OL', 'bar')).toBe('OL');
    expect(valueWords('click', true, 'bar')).toBe('clicks');
    expect(valueWords('click', false, 'bar')).toBe('no click');
    expect(valueWords('code', [], 'bar')).toBe('no code');
    expect(valueWords('code', [5, 6], 'bar')).toBe('code 5, 6');
    expect(valueWords('function', 'weak', 'bar')).toBe('weak');
  });
});

describe('tests and readings by name', () => {
  it('go by the numbers of the points, and say the state they were taken in', () => {
    const point = (node: string) => tilt.lanes.pointOf.get(tilt.model.compiled.nodeIndex.get(node)!);
    const ohms: Reading = {
      kind: 'ohms',
      from: 'Y8:1',
      to: 'GND',
      setup: { pulled: ['F7'] },
      value: 'OL',
    };
    expect(readingWords(tilt, ohms)).toBe(`OL, ${point('Y8:1')} to ${point('GND')}, dead`);
    expect(readingWords(tilt, { ...ohms, setup: { pulled: ['F7'], unplugged: ['X8'] } })).toMatch(
      /unplugged$/,
    );
    const dead: Reading = { kind: 'function', part: 'Y8', setup: right, value: 'dead' };
    expect(readingWords(tilt, dead)).toBe('Y8 tilt right coil dead, key on, tilt right');
    // A cylinder is driven at rest as well, the other way.
    const clamp = speakerOf(new CircuitModel(demoCircuit('press-clamp')));
    const up = { kind: 'function', part: 'C1', value: 'weak', setup: { controls: { bit: '0' } } } as const;
    expect(readingWords(clamp, up)).toBe('C1 clamp cylinder weak, at rest');
    const amps: Test = { kind: 'amps', through: 'Y8', setup: right };
    expect(testPlace(tilt, amps)).toBe('through Y8');
    const controls = { key: ['off', 'on'], tilt: ['rest', 'left'], valve: ['open', 'off'] };
    expect(positionWords(controls, { controls: { key: 'off', tilt: 'rest' } })).toBe('');
    // Rest is the first position, whatever it is called: "off" may be where it works.
    expect(positionWords(controls, { controls: { key: 'on', valve: 'off' } })).toBe('key on, valve off');
  });

  it('call line volts by their kind', () => {
    const line = template('contactor-two-supplies');
    const { compiled } = line.model;
    const hot = compiled.nodeNames.find((_name, node) => compiled.alternating[node] === 1)!;
    const test: Test = { kind: 'volts', from: hot, to: compiled.circuit.frame, setup: {} };
    expect(modeName(line, test)).toBe('AC volts');
    expect(modeName(tilt, { kind: 'volts', from: 'Y8:1', to: 'GND', setup: {} })).toBe('DC volts');
    expect(modeName(tilt, { kind: 'insulation', from: 'Y8:1', to: 'GND', testVolts: 250, setup: {} })).toBe(
      'insulation, 250 V',
    );
  });
});

describe('the set-up in steps', () => {
  const volts = (setup: Test['setup']): Test => ({ kind: 'volts', from: 'Y8:1', to: 'GND', setup });

  it('says what to pull and prove, what to take apart, where the controls stand, where the leads go', () => {
    expect(
      setupSteps(tilt, {
        kind: 'ohms',
        from: 'Y8:1',
        to: 'GND',
        setup: { pulled: ['F7'], unplugged: ['X8'], controls: { tilt: 'right' } },
      }),
    ).toEqual([
      'Pull fuse F7, cab fuses, slot 7. Prove it dead.',
      expect.stringMatching(/^Unplug X8/),
      'Set tilt right.',
      expect.stringMatching(/^Red on \d+, black on \d+, bare frame\.$/),
    ]);
  });

  it('probes a live run from behind unless something is off', () => {
    expect(setupSteps(tilt, volts(right)).at(-1)).toMatch(/from behind, plugs on/);
    expect(setupSteps(tilt, volts({ ...right, unplugged: ['X8'] })).at(-1)).not.toMatch(/from behind/);
    expect(setupSteps(tilt, volts({})).at(0)).toBe('Power on, every control at rest.');
    expect(setupSteps(tilt, volts({ ...right, afterSeconds: 0.1 })).at(0)).toMatch(/read at once\.$/);
  });

  it('puts a held load first, and leaves no step out, least of all where the leads go', () => {
    const steps = setupSteps(tilt, {
      kind: 'insulation',
      from: 'Y8:1',
      to: 'GND',
      testVolts: 250,
      setup: {
        secured: ['Y8'],
        pulled: ['F7'],
        unplugged: ['X7', 'X8'],
        lifted: [{ part: 'Y8', node: 'Y8:1' }],
        jumpers: [['B+', 'S1:2']],
        removed: ['V8'],
      },
    });
    expect(steps[0]).toMatch(/^Block or lower the load/);
    expect(steps.filter((step) => step.startsWith('Unplug '))).toHaveLength(1);
    expect(steps.at(-1)).toMatch(/^Red on .*, black on /);
  });

  it('has words for every test offered, electrical and fluid', () => {
    for (const id of VARIED) {
      const speaker = template(id);
      const diagnoser = new Diagnoser(speaker.model.compiled.circuit);
      for (const ranked of diagnoser.diagnose([], { most: 30 }).next) {
        const steps = setupSteps(speaker, ranked.test);
        expect(steps.length).toBeGreaterThan(0);
        const said = [...steps, testPlace(speaker, ranked.test), modeName(speaker, ranked.test)];
        for (const each of ranked.outcomes)
          said.push(
            bandWords(ranked.test.kind, each, speaker.gaugeUnit),
            thenWords(ranked, each),
            goesToWords(each),
          );
        expect(said.filter((words) => /undefined|NaN|\[object|null/.test(words))).toEqual([]);
      }
    }
  });
});

describe('answers and what they mean', () => {
  it.each([
    ['volts', { low: 12.34, high: 13.02 }, '12.3–13.0 V'],
    ['volts', { low: -1, high: 0.3 }, '-1 to 0.3 V'],
    ['volts', { low: -Infinity, high: 0.3 }, 'under 0.3 V'],
    ['volts', { low: 25.9, high: Infinity }, 'over 25.9 V'],
    ['pressure', { low: -60, high: -40 }, '-0.6 to -0.4 bar'],
    ['ohms', { low: 38, high: Infinity }, 'over 38 Ω, OL'],
    ['ohms', { low: Infinity, high: Infinity }, 'OL'],
    ['ohms', { low: 60, high: 3200 }, '60 Ω–3.2 kΩ'],
    ['ohms', { low: 77, high: 103 }, '77–103 Ω'],
    ['ohms', { low: 103, high: 9300 }, '103 Ω–9.3 kΩ'],
    ['ohms', { low: -Infinity, high: 0.2 }, 'under 0.2 Ω'],
    ['amps', { low: -Infinity, high: 0.31 }, 'under 0.31 A'],
  ] as const)('%s %j is %s', (kind, band, words) => {
    expect(bandWords(kind, outcome({ reading: 0, ...band }), 'bar')).toBe(words);
  });

  it('say where the run is at fault', () => {
    const volts: Test = { kind: 'volts', from: 'Y8:1', to: 'GND', setup: right };
    expect(thenWords({ test: volts, expected: 25, across: [] }, outcome({ reading: 25, sound: true }))).toBe(
      'As drawn. Look elsewhere.',
    );
    expect(thenWords({ test: volts, expected: 25, across: [] }, outcome({ reading: 0.1 }))).toBe(
      'Feed lost before here.',
    );
    expect(thenWords({ test: volts, expected: 25, across: [] }, outcome({ reading: 14 }))).toBe(
      'Starved by a joint.',
    );
    expect(thenWords({ test: volts, expected: 25, across: [] }, outcome({ reading: 25.2 }))).toBe(
      'Too little draws on it.',
    );
    expect(thenWords({ test: volts, expected: 0.1, across: [] }, outcome({ reading: 12 }))).toBe(
      'The fall is here.',
    );
    const gauge: Test = { kind: 'pressure', at: 'C', setup: {} };
    const pressed = (kPa: number, fault: FaultName) =>
      thenWords(
        { test: gauge, expected: 600, across: [] },
        outcome({ reading: kPa, means: [{ part: 'Q1', fault, share: 0.9 }] }),
      );
    expect(pressed(500, 'leaking')).toBe('Pulled down: something leaks.');
    expect(pressed(500, 'lowPressure')).toBe('Pressure lost before here.');
    expect(pressed(500, 'stuckMidway')).toBe('Pulled down: something takes too much.');
    expect(pressed(0, 'stuckAtRest')).toBe('Pressure lost before here.');
    expect(pressed(700, 'stuckShifted')).toBe('Pressure that should not be here.');
    // Volts that a wrong way brings are no fall over what should lead.
    for (const fault of ['swapped', 'crossedPins', 'shortToSupply', 'stuckOn', 'welded'] as const)
      expect(
        thenWords(
          { test: volts, expected: 0.1, across: [] },
          outcome({ reading: 12, means: [{ part: 'X8.1', fault, share: 0.9 }] }),
        ),
      ).toBe('Live, and should be dead.');
    const ohms: Test = { kind: 'ohms', from: 'Y8:1', to: 'GND', setup: {} };
    expect(thenWords({ test: ohms, expected: 31, across: [] }, outcome({ reading: 'OL' }))).toBe(
      'The way is broken.',
    );
    expect(thenWords({ test: ohms, expected: 31, across: [] }, outcome({ reading: 2 }))).toBe(
      'Shorted, or leaking.',
    );
    expect(thenWords({ test: ohms, expected: 31, across: [] }, outcome({ reading: 90 }))).toBe(
      'A bad joint.',
    );
    const toFrame: Test = { kind: 'ohms', from: 'Y8:1', to: 'GND', setup: { unplugged: ['X8'] } };
    expect(thenWords({ test: toFrame, expected: 'OL', across: [] }, outcome({ reading: 2 }))).toBe(
      'Shorted, or leaking.',
    );
    const weak = outcome({
      reading: 'OL',
      sound: true,
      means: [{ part: 'W15', fault: 'weakInsulation', share: 0.7 }],
    });
    expect(thenWords({ test: toFrame, expected: 'OL', across: [] }, weak)).toBe(
      'As drawn. A few volts do not show weak insulation.',
    );
    const code: Test = { kind: 'code', part: 'DM2', setup: { unplugged: ['X31'] } };
    expect(thenWords({ test: code, expected: [5], across: [] }, outcome({ reading: [5] }))).toMatch(
      /They are working\.$/,
    );
    expect(thenWords({ test: code, expected: [5], across: [] }, outcome({ reading: [] }))).toBe(
      'The controller does not see X31 come off.',
    );
    expect(thenWords({ test: code, expected: [5], across: [] }, outcome({ reading: [6] }))).toMatch(
      /makes no odds/,
    );
  });

  it('count doubt in turns, the two heaviest', () => {
    const goes = [
      { part: 'X8.1', share: 0.45 },
      { part: 'Y8', share: 0.25 },
      { part: 'W15', share: 0.2 },
    ];
    expect(goesToWords(outcome({ goes }))).toBe('X8.1 9, Y8 5');
    expect(
      goesToWords(
        outcome({
          goes: [
            { part: null, share: 0.9 },
            { part: 'V8', share: 0.01 },
          ],
        }),
      ),
    ).toBe('none 18');
  });

  it('say why a test comes first', () => {
    const ranked = {
      outcomes: [outcome({ share: 0.6 }), outcome({ share: 0.4 })],
      proof: false,
    } as unknown as Parameters<typeof reasonWords>[0];
    const verdict = {
      state: 'keepTesting' as const,
      because: 'proofMissing' as const,
      part: 'Y8',
      proofs: { have: 1, need: 2 },
    };
    expect(reasonWords(ranked, verdict as never)).toBe('Splits the doubt 12 against 8');
    expect(reasonWords({ ...ranked, proof: true }, verdict as never)).toBe(
      'Second proof before Y8 is called bad',
    );
    expect(reasonWords({ ...ranked, again: true }, verdict as never)).toBe(
      'Once more, before Y8 is called bad',
    );
    expect(reasonWords({ ...ranked, again: true }, { state: 'unexplained' } as never)).toBe(
      'Once more, before anything else',
    );
  });

  it('are held against what is known, with its source', () => {
    expect(
      yardstickWords('ohms', { code: 'drawn', part: 'Y8', ohms: 31.5, tolerance: 0.08 }, 'UTC', 'bar'),
    ).toBe('Y8 is drawn with 31.5 Ω ± 8 % at 20 °C.');
    expect(yardstickWords('amps', { code: 'twin', part: 'Y7', value: 0.78 }, 'UTC', 'bar')).toBe(
      'Its twin Y7 read 0.78 A.',
    );
    const past = { code: 'past', value: 1.72, jobNumber: 398, at: '2026-02-03T23:30:00.000Z' } as const;
    expect(yardstickWords('amps', past, 'Europe/Vienna', 'bar')).toBe(
      'Proved good here: 1.72 A, 4 Feb 2026, job 398.',
    );
    const drop = { code: 'drop', place: 'joint', good: 0.05, repair: 0.1 } as const;
    expect(yardstickWords('volts', drop, 'UTC', 'bar')).toBe(
      'Shop rule: good up to 0.05 V, repair from 0.1 V.',
    );
    const insulation = { code: 'insulation', ohms: 1e6, by: { standard: 'IEC 60364-6' } } as const;
    expect(yardstickWords('insulation', insulation, 'UTC', 'bar')).toBe('At least 1 MΩ (IEC 60364-6).');
    expect(
      yardstickWords('insulation', { code: 'insulation', ohms: Infinity, by: 'overRange' }, 'UTC', 'bar'),
    ).toBe('Site policy, insulation passes from: over range only.');
  });

  it.each([
    [
      { code: 'parallelPath', parts: ['V8'], lift: null, expected: 4 },
      /^V8 lies across it: sound, it reads 4 Ω here\.$/,
    ],
    [{ code: 'leadsDominate', leadOhms: 0.2 }, /your leads/],
    [{ code: 'ghostVoltage', nodes: ['Y8:1'] }, /^Nothing ties \d+: what shows may be a ghost/],
    [{ code: 'unloaded', apart: ['X8'] }, /Nothing draws with X8 off/],
    [{ code: 'heavyContact', part: 'K1', amps: 90 }, /^K1 carries 90.0 A/],
    [{ code: 'insulationByOhms' }, /OL here does not clear it/],
    [
      { code: 'parallelPath', parts: ['T1', 'Y2'], lift: 'F2', expected: 1.6 },
      /^T1, Y2 lie across it: sound, it reads 1\.6\d* Ω here\. With F2 off it is read alone\.$/,
    ],
    [{ code: 'reactiveByOhms', part: 'K1' }, /alternating current its iron counts/],
  ] as const)('warn of %j', (limit, words) => {
    expect(limitWords(tilt, limit as never)).toMatch(words);
  });

  it('warn of what a meter reads less of at rest, each kind in its words', () => {
    expect(limitWords(template('change-over-relay'), { code: 'restsLower', part: 'H1' })).toMatch(
      /^H1 is drawn as it glows: cold, .* no short\.$/,
    );
    expect(limitWords(template('winch-pack'), { code: 'restsLower', part: 'M' })).toMatch(
      /^M is drawn as it runs: standing, /,
    );
  });
});

describe('holds', () => {
  it('say the worst first and are ticked where it can hurt', () => {
    expect(holdWords(['live', 'moves', 'unplug'])).toEqual({
      text: expect.stringMatching(/^The machine may move/),
      mustTick: true,
    });
    expect(holdWords(['moves', 'oil', 'live']).text).toMatch(/^The machine may move.*Oil under pressure/);
    expect(holdWords(['moves', 'refrigerant']).text).toMatch(/nothing is let out\.$/);
    expect(holdWords(['lineVolts', 'moves']).text).toMatch(/^Line volts kill/);
    expect(graveWords(new Set(['live', 'moves', 'lineVolts', 'testerVolts']))).toEqual([
      expect.stringMatching(/^The tester’s leads are live/),
      expect.stringMatching(/^Line volts kill/),
    ]);
    expect(holdWords(['powerOff']).mustTick).toBe(false);
    expect(holdWords([]).text).toMatch(/Name the energies/);
  });

  it('name the points that a test opens or wants closed', () => {
    expect(gateWords({ state: 'free' })).toBeNull();
    expect(gateWords({ state: 'open', points: ['G1', 'A1'] })).toMatch(/^Opens G1, A1 for this test/);
    expect(gateWords({ state: 'close', points: ['G1'] })).toBeNull();
    expect(shutWords({ state: 'close', points: ['G1'] })!.why).toMatch(/^Close it again/);
    expect(shutWords({ state: 'forbidden', guards: ['S1'] })!.why).toMatch(/S1 out of action/);
    expect(shutWords({ state: 'open', points: ['G1'] })).toBeNull();
  });
});

describe('what the readings mean so far', () => {
  const diagnoser = new Diagnoser(tilt.model.compiled.circuit);
  const statement = (readings: Reading[]) => {
    const diagnosis = diagnoser.diagnose(readings);
    const { parts } = partStandings(diagnoser.model, diagnoser.faults, diagnosis, readings);
    return {
      lines: statementLines(tilt, diagnosis.verdict, diagnosis.suspects, parts, readings, diagnosis.next[0]),
      diagnosis,
    };
  };
  const left: Reading = {
    kind: 'function',
    part: 'Y7',
    setup: { controls: { key: 'on', tilt: 'left' } },
    value: 'works',
  };
  const dead: Reading = { kind: 'function', part: 'Y8', setup: right, value: 'dead' };
  const open = (from: string, to: string): Reading => ({
    kind: 'ohms',
    from,
    to,
    setup: { pulled: ['F7'] },
    value: 'OL',
  });

  it('begins with the doubt spread evenly, and sends to what can be tried', () => {
    expect(statement([]).lines).toEqual([
      'The doubt is spread evenly.',
      'Nothing was tried yet: what works and what does not, under Complaint, moves most of it.',
    ]);
  });

  it('counts what has carried current and lists what is left', () => {
    const { lines } = statement([left, dead]);
    expect(lines).toHaveLength(3);
    expect(lines[0]).toMatch(/^The doubt is on S3R, X31\.2, W15, X8\.1 and \d+ more\.$/);
    expect(lines[2]).toMatch(/^\d+ parts have carried current and are spared\.$/);
  });

  it('names the part with its two readings, and says for and against', () => {
    const { compiled } = tilt.model;
    const pin = compiled.parts.find(({ part }) => part.ref === 'X8.1')!;
    const [a, b] = pin.nodes.map((node) => compiled.nodeNames[node]!) as [string, string];
    const readings = [
      left,
      dead,
      { kind: 'volts', from: a, to: 'GND', setup: dead.setup, value: 25.1 },
      open(a, 'GND'),
      { ...open(b, 'GND'), value: 31.5 },
      open(a, b),
    ] as Reading[];
    const { lines, diagnosis } = statement(readings);
    expect(diagnosis.verdict).toMatchObject({ state: 'name', part: 'X8.1' });
    expect(lines[0]).toMatch(/^X8\.1 coil plug pin 1 is proved bad: open\.$/);
    const [lead] = diagnosis.suspects;
    expect(evidenceWords(tilt, lead!.for, readings)).toMatch(/OL/);
    expect(evidenceWords(tilt, [], readings)).toBe('Nothing.');
  });

  it('says when nothing fits', () => {
    const impossible: Reading = { kind: 'volts', from: 'B+', to: 'GND', setup: right, value: 61 };
    const { lines, diagnosis } = statement([
      left,
      dead,
      impossible,
      { ...impossible, from: 'Y8:1', value: 60 },
    ]);
    if (diagnosis.verdict.state === 'unexplained')
      expect(lines[0]).toBe('The readings do not fit this drawing.');
    else expect(lines.join(' ')).toMatch(/Take it again|does not fit/);
  });

  it('has words for faults, sizes and partners', () => {
    expect(faultWords(tilt, { part: 'W15', fault: 'highResistance', severityOhms: 6.53 })).toBe(
      'bad joint, about 6.5 Ω',
    );
    expect(
      faultWords(tilt, {
        part: 'W15',
        fault: 'highResistance',
        severityOhms: 6.53,
        severityRange: [3, 40],
      }),
    ).toBe('bad joint, 3 Ω to 40 Ω');
    expect(faultWords(tilt, { part: 'W15', fault: 'highResistance', severityRange: [3, 40e3] })).toBe(
      'bad joint',
    );
    expect(faultWords(tilt, { part: 'W15', fault: 'open', intermittent: true })).toBe('open, comes and goes');
    expect(
      faultWords(tilt, { part: 'W15', fault: 'open', with: { part: 'V8', fault: 'short' } } as never),
    ).toBe('open, with V8 shorted');
    expect(faultWords(tilt, { part: 'S3R', fault: 'highResistance', severityOhms: 0.15 })).toBe(
      'contact makes badly, about 0.15 Ω',
    );
    expect(faultWords(tilt, { part: 'S3R', fault: 'highResistance', severityOhms: 0.00163 })).toBe(
      'contact makes badly, about 1.6 mΩ',
    );
    expect(clearWords({ part: 'V8', reason: 'suppressionDiode' })).toMatch(/^V8: shorted/);
    const named = new Set(
      TEMPLATES.flatMap(({ build }) => new Diagnoser(build()).faults.map(({ fault }) => fault)),
    );
    // A name of the program's own, such as "highResistance", is never shown.
    for (const fault of named) expect(faultWords(tilt, { part: 'W15', fault })).not.toMatch(/[A-Z]/);
  });
});
