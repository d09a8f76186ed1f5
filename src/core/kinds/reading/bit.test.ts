import { CircuitModel } from '../../circuit/model';
import type { Circuit, Reading, Test } from '../../circuit/schema';
import { Diagnoser } from '../../diagnosis/diagnose';
import { bindTest } from '../../diagnosis/predict';
import { airClamp } from '../../templates/fluid';
import { MachineUnderTest } from '../../testing/machineUnderTest';

/** The clamp with an output whose bits can be looked at. */
function withBits(): Circuit {
  const circuit = airClamp();
  return {
    ...circuit,
    parts: circuit.parts.map((part) =>
      part.kind === 'driver' ? { ...part, bits: { command: 'Clamp down', feedback: 'Clamp is on' } } : part,
    ),
  };
}
const circuit = withBits();
const on = { controls: { bit: '1' } };
const bit = (which: 'command' | 'feedback', setup: Test['setup'] = on): Test => ({
  kind: 'bit',
  part: 'A1',
  which,
  setup,
});
const seen = (fault: [] | [string, string], test: Test) =>
  new MachineUnderTest(circuit, ...fault).value(test);

describe('bits on the controller’s page', () => {
  it('follow the command on a sound machine', () => {
    expect([bit('command'), bit('feedback')].map((test) => seen([], test))).toEqual(['1', '1']);
    const rest = { controls: { bit: '0' } };
    expect([bit('command', rest), bit('feedback', rest)].map((test) => seen([], test))).toEqual(['0', '0']);
  });

  it('tell a program that does not ask from a card that gives nothing, which nothing else does', () => {
    expect([bit('command'), bit('feedback')].map((test) => seen(['A1', 'noCommand'], test))).toEqual([
      '0',
      '0',
    ]);
    expect([bit('command'), bit('feedback')].map((test) => seen(['A1', 'noOutput'], test))).toEqual([
      '1',
      '0',
    ]);
    // What is lost behind the card is read back as on.
    expect(seen(['W1', 'open'], bit('feedback'))).toBe('1');
  });

  it('move the doubt: not asked for leaves nothing to renew, asked for clears the program', () => {
    const dead: Reading = { kind: 'function', part: 'C1', setup: on, value: 'dead' };
    const share = (value: '0' | '1', fault: string) =>
      new Diagnoser(circuit)
        .diagnose([dead, { ...bit('command'), value } as Reading])
        .suspects.filter((one) => one.part === 'A1' && one.fault === fault)
        .reduce((sum, one) => sum + one.share, 0);
    expect(share('0', 'noCommand')).toBeGreaterThan(0.75);
    expect(share('1', 'noCommand')).toBeLessThan(0.01);
  });

  it.each(['noCommand', 'noOutput'])('%s is named as that, after a look at the page,', (fault) => {
    const machine = new MachineUnderTest(circuit, 'A1', fault);
    const diagnoser = new Diagnoser(circuit);
    const readings: Reading[] = [{ kind: 'function', part: 'C1', setup: on, value: 'dead' }];
    let found = diagnoser.diagnose(readings);
    for (let k = 0; k < 12 && found.verdict.state === 'keepTesting' && found.next[0]; k++) {
      const { test } = found.next[0];
      readings.push({ ...test, value: machine.value(test) } as Reading);
      found = diagnoser.diagnose(readings);
    }
    expect(found.verdict).toMatchObject({ state: 'name', part: 'A1', fault });
    expect(readings.some((one) => one.kind === 'bit' && one.which === 'command')).toBe(true);
    if (fault === 'noCommand') expect(found.verdict).toMatchObject({ clearFirst: [] });
  });

  it('are asked for where the page can be seen, and are no faults of an output without them', () => {
    const asked = (of: Circuit) =>
      new Diagnoser(of)
        .diagnose([{ kind: 'function', part: 'C1', setup: on, value: 'dead' }], { most: 400 })
        .next.filter(({ test }) => test.kind === 'bit').length;
    expect(asked(circuit)).toBeGreaterThan(0);
    expect(asked(airClamp())).toBe(0);
    const plain = new Diagnoser(airClamp()).diagnose([]);
    expect(plain.suspects.some(({ fault }) => fault === 'noCommand')).toBe(false);
    expect(() => bindTest(new CircuitModel(airClamp()), bit('command'))).toThrow(
      /shows no command bit; say on the drawing what it is called/,
    );
  });
});
