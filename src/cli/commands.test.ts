import { spawnSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { parseCase, parseCircuit } from '../core/circuit/parse';
import { runCommand } from './commands';

const CASE = 'demo/cases/tilt-right-dead.case.json';
const load = (path: string) => parseCase(JSON.parse(readFileSync(path, 'utf8')));

function spiraxis(args: string[], input = '') {
  return spawnSync('npm', ['run', '-s', 'spiraxis', '--', ...args], { input, encoding: 'utf8' });
}

describe('the command line', () => {
  it('reads what a technician types, also after "--"', () => {
    expect(runCommand(['reading', '4k7'], load)).toMatchObject({ value: 4700, overRange: false });
    expect(runCommand(['reading', '--', '-0.55'], load)).toMatchObject({ value: -0.55 });
    expect(runCommand(['reading', '12,6', 'V'], load)).toMatchObject({ value: 12.6, unit: 'V' });
  });

  it('diagnoses a case as the contract prints it', () => {
    const result = runCommand(['diagnose', CASE], load) as {
      suspects: { part: string; fault: string; share: number }[];
      noFault: number;
      unexplained: number;
      verdict: { state: string; proofs: { have: number; need: number } };
      next: { test: object; bits: number; minutes: number; cautions: string[]; outcomes: object[] }[];
    };
    expect(result.suspects.length).toBeGreaterThanOrEqual(10);
    expect(result.suspects.reduce((sum, { share }) => sum + share, result.noFault)).toBeCloseTo(1, 9);
    expect(result.verdict).toMatchObject({
      state: 'keepTesting',
      proofs: { have: 0, need: 2 },
      why: expect.stringMatching(/% is needed\.$/),
    });
    expect(result.next[0]).toMatchObject({ bits: expect.any(Number), minutes: expect.any(Number) });
    expect(result.next[0]!.test).not.toHaveProperty('value');
    expect(JSON.stringify(result)).not.toContain('null,null');
  });

  it('weighs a coil’s trace, and refuses what draws none', () => {
    const pieces = (path: string) => [readFileSync(path, 'utf8')];
    const circuit = (path: string) => parseCircuit(JSON.parse(readFileSync(path, 'utf8')));
    const trace = (...more: string[]) =>
      runCommand(
        [
          'trace',
          'demo/circuits/groomer-tiller-float.circuit.json',
          'demo/traces/tiller-float-sticky.csv',
          ...more,
        ],
        load,
        pieces,
        circuit,
      ) as { named: string | null; why: string; expectedAmps: number; features: { settledAmps: number } };
    const found = trace('--part', 'Y14', '--sound', 'demo/traces/tiller-float-sound.csv');
    expect(found.named).toBe('slow');
    expect(found.why).toMatch(/moves later than it did/);
    expect(found.features.settledAmps).toBeCloseTo(found.expectedAmps, 1);
    expect(() => trace('--part', 'F12')).toThrow(/"F12" is a fuse/);
    expect(() => trace()).toThrow(/--part: missing/);
  });

  it('ranks the tests it is given', () => {
    const given = load(CASE);
    const tests = [
      { kind: 'volts', from: 'X8:1', to: 'GND', setup: { controls: { key: 'on', tilt: 'right' } } },
      { kind: 'volts', from: 'B+', to: 'GND', setup: {} },
    ] as const;
    const result = runCommand(['diagnose', 'x'], () => ({ ...given, tests: [...tests] })) as {
      next: { test: unknown }[];
    };
    expect(result.next[0]!.test).toEqual(tests[0]);
  });

  it('predicts readings, sound and with a fault', () => {
    const given = load(CASE);
    const ohms = { kind: 'ohms' as const, from: 'X8:1', to: 'GND', setup: { pulled: ['F7'] }, value: 0 };
    const with_ = { ...given, readings: [...given.readings, ohms] };
    const predict = (...args: string[]) =>
      (runCommand(['predict', 'x', ...args], () => with_) as { readings: unknown[] }).readings;
    expect(predict()).toEqual(['works', 'works', expect.closeTo(31.5, 1)]);
    expect(predict('--fault', 'X8.1:open')).toEqual(['works', 'dead', 'OL']);
    expect(predict('--fault', 'X8.1:highResistance=68.5')[2]).toBeCloseTo(100, 0);
    // The wire's own 0.07 ohm lies between the probe and the leak.
    expect(predict('--fault=W15:shortToFrame=0.5')[2]).toBeCloseTo(0.56, 1);
  });

  it('names what floats and says what chatters, beside the predicted readings', () => {
    const given = load(CASE);
    const volts = {
      kind: 'volts' as const,
      from: 'Y8:1',
      to: 'X8:2',
      setup: { unplugged: ['X8'] },
      value: 0,
    };
    const result = runCommand(['predict', 'x', '--fault', 'X8.1:open'], () => ({
      ...given,
      readings: [volts],
    }));
    expect(result).toEqual({ readings: [0], floating: [['Y8:1']], chatters: [false] });
  });

  it('decodes a code in any notation, and a bus log', () => {
    expect(runCommand(['decode', 'SPN 523 FMI 31'], load)).toMatchObject({
      codes: [{ system: 'J1939', component: 523, failureMode: 31, text: expect.any(String) }],
    });
    expect(runCommand(['decode', 'P0201-87'], load)).toMatchObject({
      codes: [{ component: 'P0201', failureMode: '87' }],
    });
    expect(runCommand(['decode', 'nothing', 'here'], load)).toEqual({ codes: [] });
    const lines = [
      '(10.0) can0 1CECFF00#200E0002FFCAFE00',
      '(10.1) can0 1CEBFF00#0114FF640001026E',
      '(10.2) can0 1CEBFF00#020000016CF0E507',
    ];
    expect(runCommand(['decode', '--log', 'x'], load, () => [lines.join('\n')])).toMatchObject({
      codes: [
        { component: 100, failureMode: 1, sourceAddress: 0, count: 1, first: 10.2, last: 10.2 },
        { component: 110, failureMode: 0 },
        { component: 520_300, failureMode: 5 },
      ],
      bad: 0,
    });
  });

  it.each([
    [['reading', 'bananas'], /no reading/],
    [['predict', CASE, '--fault', 'Z9:open'], /no part "Z9"/],
    [['predict', CASE, '--fault', 'Y8:melted'], /no fault "melted"; it can have open/],
    [['predict', CASE, '--fault', 'Y8:open=lots'], /number of ohms/],
    [['dance'], /unknown command "dance"/],
    [['diagnose'], /CASE: missing/],
  ])('refuses %j in one line', (args, message) => {
    expect(() => runCommand(args, load)).toThrow(message);
  });

  it('prints one JSON document, reads standard input, and ends bad input with status 2 and one line', () => {
    const good = spiraxis(['diagnose', '-'], readFileSync(CASE, 'utf8'));
    expect(good.status).toBe(0);
    expect(good.stderr.replace(/^npm warn.*\n/gm, '')).toBe('');
    expect(JSON.parse(good.stdout)).toHaveProperty('suspects');

    const wrong = JSON.parse(readFileSync(CASE, 'utf8')) as { circuit: { parts: { ohms?: unknown }[] } };
    wrong.circuit.parts[11]!.ohms = 'lots';
    const bad = spiraxis(['diagnose', '-'], JSON.stringify(wrong));
    expect(bad.status).toBe(2);
    expect(bad.stdout).toBe('');
    const lines = bad.stderr
      .replace(/^npm warn.*\n/gm, '')
      .trim()
      .split('\n');
    expect(lines).toHaveLength(1);
    expect(lines[0]).toMatch(/circuit\.parts\[11\]\.ohms.*given "lots"/);
  });
});

describe('circuits on the command line', () => {
  const TILT = 'demo/circuits/groomer-blade-tilt.circuit.json';
  const circuit = () => parseCircuit(JSON.parse(readFileSync(TILT, 'utf8')));
  const run = (...args: string[]) => runCommand(args, load, undefined, circuit);

  it('draws a typed chain, checks a file, and writes its wires and its netlist', () => {
    const drawn = run('draw', 'battery 12.6, fuse 5, key switch, plug, coil 9, ground') as {
      parts: object[];
    };
    expect(drawn.parts).toHaveLength(5);
    expect(run('check', TILT)).toEqual({ findings: [] });
    expect((run('wires', TILT) as { csv: string }).csv).toMatch(/^ref,from,to,mark,colour,gauge,length/);
    expect((run('netlist', TILT) as { netlist: string }).netlist).toMatch(/\nVG1 G1_i 0 DC 25\.2/);
    expect(() => run('draw', 'gizmo 4')).toThrow(/"gizmo 4" names no part/);
  });

  it('refuses a bad file by its field, with status 2', () => {
    const { status, stderr, stdout } = spiraxis(['check', '-'], '{"format":"spiraxis-circuit"}');
    expect([status, stdout]).toEqual([2, '']);
    expect(stderr).toMatch(/^spiraxis: version: /);
  });
});
