import { CircuitModel } from '@/core/circuit/model';
import type { Circuit, Reading, Test } from '@/core/circuit/schema';
import { findLanes } from '@/core/path/lanes';
import { jobSheet } from '@/core/sheets/onCircuit/build';
import { JOB_SHEETS, type JobSheet, type JobSheetName } from '@/core/sheets/onCircuit/jobSheet';
import { follow, MARKS, template, verdicts } from '@/core/sheets/testing/followSheet';
import { MachineUnderTest } from '@/core/testing/machineUnderTest';
import { clutchInterlocks, multiOutput } from '@/core/templates/electrical';
import { hydraulicLift } from '@/core/templates/fluid';
import { demoCircuit, demoCircuits } from '@/testing/demoCircuits';
import { sheetFoundWords } from './sheetFound';
import { verdictTone } from './sheets';

type Fault = [part?: string, fault?: string, ohms?: number];

const say = (circuit: Circuit, sheet: JobSheet): string[] => {
  const model = new CircuitModel(circuit);
  return sheetFoundWords({ model, lanes: findLanes(model), gaugeUnit: 'bar' }, sheet);
};

/** A sheet with every cell read, as `value` has it; null is not read. */
function read(
  circuit: Circuit,
  name: JobSheetName,
  value: (test: Test, expected: Reading['value']) => Reading['value'] | null,
  more: Reading[] = [],
): JobSheet {
  const model = new CircuitModel(circuit);
  const cells = jobSheet(model, name, more, MARKS)!.rows.flatMap((row) => row.cells);
  const readings = cells.flatMap((cell) => {
    const shown = cell && value(cell.test, cell.expected);
    return cell && shown !== null ? [{ ...cell.test, value: shown } as Reading] : [];
  });
  return jobSheet(model, name, [...more, ...readings], MARKS)!;
}

/** The same, on a machine with something wrong. */
function filled(circuit: Circuit, name: JobSheetName, fault: Fault = []): JobSheet {
  const machine = new MachineUnderTest(circuit, ...fault);
  return read(circuit, name, (test) => machine.value(test) as Reading['value']);
}

const followed = (circuit: Circuit, name: JobSheetName, fault: Fault) => {
  const { sheet } = follow(circuit, name, fault);
  return { said: say(circuit, sheet), ...verdicts(sheet) };
};

it.each(demoCircuits())('$name: no sheet warns of a sound machine', ({ circuit }) => {
  const model = new CircuitModel(circuit);
  const warned = JOB_SHEETS.filter((name) => jobSheet(model, name, [], MARKS)).flatMap((name) =>
    filled(circuit, name)
      .rows.filter(({ verdict }) => ['bad', 'watch'].includes(verdictTone(verdict) ?? ''))
      .map((row) => [name, row.name, row.verdict]),
  );
  expect(warned).toEqual([]);
});

describe('a chain of interlocks', () => {
  const chains = demoCircuits().filter(({ circuit }) =>
    jobSheet(new CircuitModel(circuit), 'interlocks', [], MARKS),
  );

  it.each(chains)('$name: without a supply nothing of it is called fed', ({ circuit }) => {
    const dead = read(circuit, 'interlocks', () => 0);
    expect(say(circuit, dead)).toEqual(['No supply where the chain begins.']);
    expect(dead.rows.map(({ verdict }) => verdict)).not.toContain('good');
    expect(dead.next).toBeNull();
  });

  it('what is dead behind a point that nobody read accuses nobody', () => {
    const circuit = clutchInterlocks();
    const model = new CircuitModel(circuit);
    const [, first] = jobSheet(model, 'interlocks', [], MARKS)!.rows;
    const sheet = jobSheet(model, 'interlocks', [{ ...first!.cells[0]!.test, value: 0 } as Reading], MARKS)!;
    expect(sheet.rows.map(({ verdict }) => verdict)).not.toContain('bad');
    expect(sheet.next).toEqual([0, 0]);
    expect(say(circuit, sheet)[0]).toMatch(/^What stands where the chain begins is not read yet/);
  });

  it('a supply that is low is said, and the chain is judged by what there is', () => {
    const low = read(clutchInterlocks(), 'interlocks', (_test, sound) => 0.6 * Number(sound));
    expect(say(clutchInterlocks(), low)[0]).toMatch(/^The supply is low: 7\.\d+ V where 12\.\d+ V/);
    expect(low.rows.at(-1)!.verdict).toBe('good');
  });

  it('what floats behind an open contact is not called good, and one that waits for its pressure not bad', () => {
    const open = filled(clutchInterlocks(), 'interlocks', ['S2', 'stuckOpen']);
    const at = open.rows.findIndex(({ verdict }) => verdict === 'bad');
    expect(open.rows[at]!.name).toBe('S2');
    expect(open.rows.slice(at + 1).every(({ verdict }) => verdict === null)).toBe(true);
    const dryer = demoCircuit('dryer-air-switch');
    const without = filled(dryer, 'interlocks', ['P0', 'noOutput']);
    expect(verdicts(without)['B1']).toBe('doubt');
    expect(say(dryer, without).at(-1)).toBe('B1 closes at its pressure: read that before it is called bad.');
    expect(Object.values(verdicts(filled(dryer, 'terminals', ['P0', 'noOutput'])))).toContain('doubt');
  });
});

describe('volts lost on the way', () => {
  const circuit = demoCircuit('groomer-blade-float');
  const model = new CircuitModel(circuit);
  const { load, setup } = findLanes(model).lanes[0]!;
  const part = model.compiled.parts[load.part]!.part.ref;
  const works = (value: 'works' | 'dead') => ({ kind: 'function', part, setup, value }) as Reading;

  it('that nothing is lost where nothing flows proves nothing', () => {
    const still = read(circuit, 'drop', () => 0);
    expect(still.rows.every(({ verdict }) => verdict === null)).toBe(true);
    expect(say(circuit, still)).toEqual([expect.stringMatching(/^Next to nothing flows/)]);
  });

  it('little counts once the load is known to draw its current', () => {
    const little = (_test: Test, sound: Reading['value']) => (Number(sound) < 0.02 ? 0 : null);
    expect(say(circuit, read(circuit, 'drop', little))[0]).toMatch(/is not known: say whether it works/);
    const seen = read(circuit, 'drop', little, [works('works')]);
    expect(seen.rows.some(({ verdict }) => verdict === 'good')).toBe(true);
    expect(read(circuit, 'drop', little, [works('dead')]).rows.some((row) => row.verdict === 'good')).toBe(
      false,
    );
  });

  it('a joint that loses too much is told from an open place, and from too much current', () => {
    const joint = filled(circuit, 'drop', ['W12', 'highResistance', 3]);
    expect(verdicts(joint)).toMatchObject({ W12: 'high' });
    expect(say(circuit, joint)).toHaveLength(1);
    const vent = template('vacuum-vent');
    const shorted = filled(vent, 'drop', ['Y1', 'shortedTurns']);
    expect(verdicts(shorted)).toMatchObject({ W2: 'mayDrawMore', A1: 'mayDrawMore' });
    expect(say(vent, shorted).at(-1)).toMatch(/^More current than drawn would do the same/);
    // What no fuse would let through is the place itself.
    const button = jobSheet(model, 'drop', [], MARKS)!.rows.find(({ name }) => name === 'S5')!.cells[0]!.test;
    expect(say(circuit, jobSheet(model, 'drop', [{ ...button, value: 2 } as Reading], MARKS)!)).toEqual([
      'S5 float button: loses too much.',
    ]);
    expect(verdicts(filled(circuit, 'drop', ['W12', 'open']))).toMatchObject({ W12: 'open' });
    const loader = demoCircuit('loader-bucket-lock');
    // The relay is open for want of what feeds its coil.
    expect(verdicts(filled(loader, 'drop', ['S1', 'stuckOpen']))).toMatchObject({ K5: 'notMade' });
  });
});

describe('a part that is read as it stands', () => {
  const groomer = demoCircuit('groomer-blade-float');

  it('too few ohms are the winding’s own with one end of it bare', () => {
    expect(followed(groomer, 'coil', ['Y9', 'shortedTurns'])).toMatchObject({ Y9: 'low' });
    expect(followed(groomer, 'coil', ['V9', 'short'])).toMatchObject({
      Y9: 'across',
      said: ['Y9: right by itself: something lies across it.'],
    });
    const quick = read(groomer, 'coil', (test) => (test.kind === 'ohms' ? 0.3 : null));
    expect(verdicts(quick)).toEqual({ Y9: 'lowHere' });
    expect(quick.columns[quick.next![1]]).toBe('ohmsAlone');
  });

  it('right ohms feed nothing, and an armature that does not seat draws more', () => {
    expect(verdicts(filled(groomer, 'coil', ['W12', 'open']))).toEqual({ Y9: 'notFed' });
    const pump = demoCircuit('pump-fill-valve');
    const amps = (share: number) =>
      verdicts(read(pump, 'coil', (test, sound) => (test.kind === 'amps' ? share * Number(sound) : sound)));
    expect(amps(1)).toEqual({ Y4: 'good' });
    expect(amps(1.9)).toEqual({ Y4: 'notSeated' });
  });

  it('a diode is called shorted by itself', () => {
    expect(followed(groomer, 'diodes', ['V9', 'short'])).toMatchObject({ V9: 'shorted' });
    expect(followed(groomer, 'diodes', ['W21', 'shortToFrame', 0.2])).toMatchObject({ V9: 'across' });
  });

  it('contacts that lose what they are drawn with are not worn', () => {
    const winch = demoCircuit('winch-reversing');
    expect(new Set(Object.values(verdicts(filled(winch, 'contacts'))))).toEqual(new Set(['good']));
  });

  it('a pin is held against its own circuit, whatever else the drawing has', () => {
    const pump = demoCircuit('pump-fill-valve');
    const low = read(pump, 'survey', (test, sound) => (test.kind === 'volts' ? 0.6 * Number(sound) : sound));
    expect(Object.values(verdicts(low))).toContain('bad');
  });
});

describe('outputs, link by link', () => {
  const lift = hydraulicLift();
  const chain = (fault: Fault) => Object.values(verdicts(follow(lift, 'proofChain', fault).sheet));

  it('a low side without volts at rest is on, or nothing comes to it', () => {
    expect(chain(['A1', 'stuckOn'])).toEqual(['on']);
    expect(chain(['Y1', 'open'])).toEqual(['load']);
    expect(chain(['W1', 'open'])).toEqual(['unfed']);
    const quick = read(lift, 'proofChain', (test) => (test.setup.controls ? null : 0));
    expect(quick.rows[0]!.verdict).not.toBe('on');
  });

  it('what several do alike lies in what they share', () => {
    const flaps = demoCircuit('groomer-comb-flaps');
    const open = filled(flaps, 'proofChain', ['W50', 'open']);
    expect(say(flaps, open)[0]).toMatch(/^More than one is live at rest: look first at what they share/);
    const dead = filled(flaps, 'proofChain', ['F21', 'open']);
    expect(say(flaps, dead)[0]).toMatch(/look first at the supply that they share\.$/);
    expect(say(flaps, filled(flaps, 'proofChain', ['Y53', 'open']))).toEqual([
      'DQ3: the load takes too little.',
    ]);
    expect(verdicts(filled(flaps, 'proofChain', ['DQ2', 'leakyOutput']))['DQ2']).toBe('leaks');
  });

  it('outputs that do as told on a low supply are not called sound without a word of it', () => {
    const flaps = demoCircuit('groomer-comb-flaps');
    expect(say(flaps, filled(flaps, 'outputs', ['G1', 'lowVoltage']))).toEqual([
      'Every output does what it is told, and no other.',
      expect.stringMatching(/^The supply is low: .* Look ahead of it too\.$/),
    ]);
  });
});

it('what is seized fails in every command, and is left in doubt by all of them', () => {
  const flap = demoCircuit('heater-flap');
  const said = say(
    flap,
    read(flap, 'functions', () => 'dead'),
  );
  expect(said[0]).toBe('Left in doubt, each could stop all that fails: U1.');
});

it('what is left in doubt is told in the order that all readings give it, where they say', () => {
  const circuit = multiOutput();
  const sheet = read(circuit, 'functions', () => 'dead');
  const speaker = {
    model: new CircuitModel(circuit),
    lanes: findLanes(new CircuitModel(circuit)),
    gaugeUnit: 'bar' as const,
  };
  const partsOf = (words: string[]) => words[0]!.replace(/^.*: |\.$/g, '').split(', ');
  const usual = partsOf(sheetFoundWords(speaker, sheet));
  const last = usual.at(-1)!;
  const weighed = partsOf(
    sheetFoundWords(speaker, sheet, [
      { part: last, share: 0.4 },
      { part: last, share: 0.2 },
    ]),
  );
  expect(weighed).toEqual([last, ...usual.slice(0, -1)]);
});

it('of many bad rows the first are told, and how many there are besides', () => {
  const tilt = demoCircuit('groomer-blade-tilt');
  const leaks = read(tilt, 'insulation', () => 2e4);
  const said = say(tilt, leaks);
  const [line, ...others] = said.filter((one) => one.endsWith(': leaks.'));
  expect(others).toEqual([]);
  expect(line!.split('; ')).toHaveLength(6);
  expect(line).toContain(` and ${leaks.rows.length - 6} more: leaks.`);
});
