import { demoCircuit } from '@/testing/demoCircuits';
import { CircuitModel } from '@/core/circuit/model';
import type { Reading, Test } from '@/core/circuit/schema';
import { Diagnoser } from '@/core/diagnosis/diagnose';
import { bandWords, goesToWords, thenWords } from './answers';
import { setupSteps } from '@/words/en/setupSteps';
import { modeName, positionWords, figureWords, readingWords, testPlace, valueWords } from './readings';
import { speakerOf, template, tilt } from './testing/speakers';

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
