import { battery, coil, Draft, fuse, wire } from '../../draw/circuitDraft';
import { demoCircuit } from '@/testing/demoCircuits';
import type { Circuit } from '../../circuit/schema';
import type { OutputsAnswer } from '../outputs/outputs';

import { cellAt, follow, verdicts } from '../testing/followSheet';

/** Four outputs of one controller, each with its coil, on one side of it. */
function multiDriver(side: 'high' | 'low'): Circuit {
  const draft = new Draft('Outputs')
    .control('program', 'off', '1', '2', '3', '4')
    .add(battery(24))
    .run('B+', 'S', fuse('F1', 20), wire('W0', 0.02));
  for (let n = 1; n <= 4; n++) {
    const out = `A${n}:O`;
    draft.add({
      ref: `A${n}`,
      kind: 'driver',
      nodes: { supply: 'S', out, return: 'GND' },
      onWhen: { program: [String(n)] },
      side,
    });
    const [from, to] = side === 'high' ? [out, 'R'] : ['S', out];
    draft.run(from, to, wire(`W${n}`, 0.1, 'loom'), coil(`Y${n}`, 24 + n));
  }
  return (side === 'high' ? draft.run('R', 'GND', wire('W9', 0.02)) : draft).circuit();
}

describe('output matrix of a job', () => {
  it('outputs: every command by every output, and a dead one once more with its load off', () => {
    const { sheet } = follow(demoCircuit('groomer-comb-flaps'), 'outputs', ['DQ3', 'noOutput']);
    expect(verdicts(sheet)).toMatchObject({ DQ3: 'bad', DQ1: null });
    const [answer] = sheet.answers as OutputsAnswer[];
    expect(answer!.findings).toEqual([]);
    expect(answer!.mend.map(({ way }) => way)).toEqual(['freeOutput', 'module', 'controller']);
    const loadOff = cellAt(sheet, 'DQ3', 'loadOff');
    expect(loadOff!.test.setup.lifted).toEqual([{ part: 'W213', node: 'DQ3:out' }]);
    expect(loadOff!.value).not.toBeNull();
  });
  it('outputs: what a short behind it holds down gives once its load is off, and is not to be replaced', () => {
    const { sheet } = follow(demoCircuit('groomer-comb-flaps'), 'outputs', ['W213', 'shortToFrame', 0.02]);
    const [answer] = sheet.answers as OutputsAnswer[];
    expect(answer).toMatchObject({ cause: null, findings: [{ code: 'heldDown', output: 'DQ3' }], mend: [] });
    expect(verdicts(sheet)).toMatchObject({ DQ3: 'heldDown' });
  });
  it('a dead supply is read, not taken from the drawing', () => {
    const { sheet } = follow(multiDriver('high'), 'outputs', ['F1', 'open']);
    expect(sheet.answers[0]).toMatchObject({ cause: 'deadSource' });
  });
  it('the return of all loads open is no output that leaks', () => {
    expect(follow(multiDriver('high'), 'outputs', ['W9', 'open']).sheet.answers[0]).toMatchObject({
      cause: 'openCommon',
      of: [],
    });
  });
  it('on the low side: on for good is the output, no feed over its load is the field', () => {
    const of = (fault: [string, string]) => follow(multiDriver('low'), 'outputs', fault).sheet;
    expect(verdicts(of(['A2', 'stuckOn']))).toMatchObject({ A1: null, A2: 'bad' });
    const open = of(['Y2', 'open']);
    expect(verdicts(open)).toMatchObject({ A1: null, A2: 'field' });
    expect(open.answers[0]).toMatchObject({ cause: null, findings: [{ code: 'fieldDead', output: 'A2' }] });
    expect(verdicts(of(['A2', 'noOutput']))).toMatchObject({ A2: 'bad' });
  });
  it('on the high side: volts from a short in the field are none of the output’s', () => {
    const { sheet } = follow(multiDriver('high'), 'outputs', ['W2', 'shortToSupply', 0.05]);
    expect(sheet.answers[0]).toMatchObject({ cause: null, findings: [{ code: 'fieldLive', output: 'A2' }] });
  });
});
