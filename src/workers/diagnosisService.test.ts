import type { Reading } from '@/core/circuit/schema';
import { singleCoil } from '@/core/templates/electrical';
import { makeDiagnosisService } from './diagnosisService';
import { justDrawn } from './protocol';

const circuit = singleCoil();
const known = justDrawn(circuit);
const dead: Reading = { kind: 'function', part: 'Y1', setup: { controls: { key: 'on' } }, value: 'dead' };

describe('the diagnosis as a service', () => {
  it('weighs, gives every part its standing, and evaluates a test of one’s own', () => {
    const service = makeDiagnosisService();
    const outlook = service.weigh(known, [dead], {});
    if (!outlook.ok) throw new Error(outlook.message);
    expect(outlook.value.standings).toHaveLength(circuit.parts.length);
    const turns = outlook.value.standings.reduce((sum, one) => sum + one.turns, outlook.value.soundTurns);
    expect(turns).toBe(20);
    const own = service.evaluate(known, [dead], { kind: 'amps', through: 'F1', setup: dead.setup });
    expect(own).toMatchObject({ ok: true, value: { test: { kind: 'amps' } } });
  });

  it('gives errors back as data: what a person can mend, told from what they cannot', () => {
    const service = makeDiagnosisService();
    const wrong = { ...dead, part: 'Y9' };
    expect(service.weigh(known, [wrong], {})).toMatchObject({
      ok: false,
      input: true,
      message: expect.stringMatching(/unknown part "Y9"/),
    });
  });

  it('says the same whether or not the next answer was worked out ahead', () => {
    jest.useFakeTimers();
    const [plain, ahead] = [makeDiagnosisService(), makeDiagnosisService(undefined, 2)];
    const first = ahead.weigh(known, [dead], {});
    jest.runAllTimers();
    jest.useRealTimers();
    if (!first.ok) throw new Error(first.message);
    const { test, expected } = first.value.diagnosis.next[0]!;
    const next = [dead, { ...test, value: expected } as Reading];
    const shares = (service: typeof plain) => {
      const answer = service.weigh(known, next, {});
      if (!answer.ok) throw new Error(answer.message);
      return answer.value.diagnosis.suspects.map(({ part, fault, share }) => [part, fault, share]);
    };
    expect(shares(ahead)).toEqual(shares(plain));
  });
});
