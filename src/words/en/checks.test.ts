import { demoCircuit } from '@/testing/demoCircuits';
import { CircuitModel } from '@/core/circuit/model';
import { freeChecks } from '@/core/job/freeChecks';
import { findLanes } from '@/core/path/lanes';
import { putInBy } from '@/core/safety/putIn';
import type { Reading } from '@/core/circuit/schema';
import { checkWords } from './checks';
import { causeWords } from './findings';
import { readingWords, type Speaker } from './readings';
import { setupSteps } from './setupSteps';

const speakerOf = (circuit: string): Speaker => {
  const model = new CircuitModel(demoCircuit(circuit));
  return { model, lanes: findLanes(model), gaugeUnit: 'bar' };
};
const float = speakerOf('groomer-tiller-float');
const gate = speakerOf('compressor-gate');

describe('a ground stud', () => {
  it('is looked at for what it is, beside a plug', () => {
    const said = freeChecks(float.model).map((check) => checkWords(float, check).join(': '));
    expect(said).toContain('R2 rear ground stud: tight, clean, bare metal under it');
    expect(said).toContain('Plug X31: seated, pins straight, dry');
    expect(said.join()).not.toContain('Plug R2');
  });

  it('has its lead taken off where a file asks for it unplugged', () => {
    const steps = setupSteps(float, {
      kind: 'ohms',
      from: 'R2',
      to: 'GND',
      setup: { isolated: ['G1'], unplugged: ['X31', 'R2'] },
    });
    expect(steps).toContain('Unplug X31, left cover.');
    expect(steps).toContain('Take the lead off R2, rear frame, left. Mark it first.');
  });
});

describe('the steps of an air test', () => {
  const OPEN = { controls: { gate: 'open' } };
  const gauge = { kind: 'pressure', at: 'Valve 4' } as const;

  it('vent before a gauge or a plug goes in; a wire’s steps are not said of a line', () => {
    const off = { ...OPEN, lifted: [{ part: 'H4', node: 'Valve 4' }], plugged: ['Valve 4'] };
    const steps = setupSteps(gate, { ...gauge, setup: off }).join(' ');
    expect(steps).toMatch(
      /^Shut the supply and vent, then take H4 off Valve 4.* Plug the open end at Valve 4/,
    );
    expect(steps).toMatch(/vent before one goes in\.$/);
    expect(steps).not.toMatch(/Mark the wires/);
  });

  it('of oil is let down to the tank by what presses it, never vented, and its end is capped', () => {
    const lift = speakerOf('groomer-tiller-lift');
    const at = 'Pump outlet';
    const off = { lifted: [{ part: 'H1', node: at }], plugged: [at] };
    const steps = setupSteps(lift, { kind: 'pressure', at, setup: off }).join(' ');
    expect(steps).toMatch(
      /^Stop the pump and let all of it down to the tank, gauge at zero, then take H1 off .* Close the open end at .* with a cap for its full pressure/,
    );
    expect(steps).not.toMatch(/vent|air/);
  });

  it('a hand pump goes where a line was taken off, with nothing running', () => {
    const speaker = speakerOf('heater-flap');
    const { model } = speaker;
    const { port } = model.compiled.circuit.parts.find(({ ref }) => ref === 'U1')!.nodes as { port: string };
    const line = model.compiled.circuit.parts.find(
      ({ kind, nodes }) => kind === 'hose' && Object.values(nodes).includes(port),
    )!.ref;
    const setup = { lifted: [{ part: line, node: port }], plugged: [port] };
    const steps = setupSteps(speaker, { kind: 'hold', at: port, setup });
    expect(steps).toHaveLength(3);
    expect(steps.join(' ')).toMatch(
      /let air in, then take .* Hand pump on the open end .* watch the pump’s gauge for a minute\.$/,
    );
  });

  it('what is said of it names no plug, and the ledger wants none out', () => {
    const reading = {
      kind: 'hold',
      at: 'V3',
      setup: { lifted: [{ part: 'Z1', node: 'V3' }], plugged: ['V3'] },
      value: 'falls',
    } as const;
    const said = readingWords(speakerOf('heater-flap'), reading as unknown as Reading);
    expect(said).toMatch(/^falls, .*Z1 off V3$/);
    expect(putInBy(reading as unknown as Reading).map(({ item }) => item)).toEqual(['Z1 off V3']);
  });

  it('an exhaust is stopped where no line is off', () => {
    const steps = setupSteps(gate, { ...gauge, setup: { ...OPEN, plugged: ['Valve 2'] } });
    expect(steps[0]).toMatch(/^Stop the exhaust of Valve 2/);
  });
});

describe('what to look for before a new part goes in', () => {
  it('is another thing for a hose than for a wire', () => {
    expect(causeWords(gate, 'H4')).toMatch(/fitting\.$/);
    expect(causeWords(gate, 'W14')).toMatch(/terminal\.$/);
    expect(causeWords(gate, 'X14.1', 'swapped')).toMatch(/^Whoever worked here before/);
  });
});

describe('what an earlier test left otherwise', () => {
  const clamp = { kind: 'function', part: 'C1', setup: { controls: { bit: '1' } } } as const;
  const speaker = speakerOf('press-clamp');

  it('goes back in the first line, its air let go before a line is touched', () => {
    expect(setupSteps(speaker, clamp, { open: ['C:B'], plugged: ['C:A'] })[0]).toMatch(
      /^Shut the supply and vent, then back as it was: the line on C:B \(\w\), the plug out of C:A \(\w\)\.$/,
    );
    expect(
      setupSteps(speaker, clamp, {
        pulled: ['F1'],
        unplugged: ['X1'],
        lifted: [{ part: 'W1', node: 'X1.1:2' }],
        jumpers: [['S+', 'A1:O']],
      })[0],
    ).toMatch(/^Back as it was: F1 in, X1 on, W1 on \d+, the bridge \d+ to \d+ out\.$/);
    expect(setupSteps(speaker, clamp)).toEqual(setupSteps(speaker, clamp, {}));
  });
});
