import { gaugeOn } from '@/core/circuit/medium';
import { CircuitModel } from '@/core/circuit/model';
import { Diagnoser } from '@/core/diagnosis/diagnose';
import { readAs } from '@/core/units/readAs';
import { airClamp } from '@/core/templates/fluid';
import { demoCircuit } from '@/testing/demoCircuits';
import { bandWords, thenWords } from './answers';
import { pressureWords } from './readings';

const flap = demoCircuit('heater-flap');
const gauge = { kind: 'pressure' as const, at: 'V0', setup: { controls: { command: 'on' } } };

describe('a vacuum', () => {
  it('is shown as its gauge has it: below zero, or in inches of mercury where the site has psi', () => {
    const model = new CircuitModel(flap);
    expect([gaugeOn(model, 'bar'), gaugeOn(model, 'kPa'), gaugeOn(model, 'psi')]).toEqual([
      'bar',
      'kPa',
      'inHg',
    ]);
    expect(gaugeOn(new CircuitModel(airClamp()), 'psi')).toBe('psi');
    expect(pressureWords(-60.95, 'bar')).toBe('-0.61 bar');
    expect(pressureWords(-60.95, 'inHg')).toBe('18.0 inHg');
    expect(pressureWords(0, 'inHg')).toBe('0 inHg');
    expect(pressureWords(40, 'inHg')).toBe('40.0 kPa');
  });

  it('typed in inches is one with and without a sign; on a gauge in bar the sign says it', () => {
    for (const text of ['18', '-18', '18 inHg', '-18 inhg'])
      expect(readAs('pressure', text, 'inHg')).toMatchObject({ ok: true, value: expect.closeTo(-60.955, 2) });
    expect(readAs('pressure', '18 inHg', 'bar')).toMatchObject({
      ok: true,
      value: expect.closeTo(-60.955, 2),
    });
    expect(readAs('pressure', '-0.6', 'bar')).toMatchObject({ ok: true, value: -60 });
    expect(readAs('volts', '18 inHg', 'V')).toMatchObject({ ok: false, why: 'unit' });
  });

  it('its answers stand in order, the sound one first named, and none says that pressure is there', () => {
    const answer = new Diagnoser(flap).evaluate(
      [{ kind: 'function', part: 'U1', setup: { controls: { command: 'on' } }, value: 'dead' }],
      gauge,
    );
    const said = (unit: 'bar' | 'inHg') =>
      answer.outcomes.map((outcome) => bandWords('pressure', outcome, unit));
    expect(said('bar')[0]).toMatch(/^-0\.8\d to -0\.6\d bar$/);
    expect(said('bar').at(-1)).toMatch(/^less vacuum than -0\.\d+ bar$/);
    expect(said('inHg')[0]).toMatch(/^20\.\d–24\.\d inHg$/);
    expect(said('inHg').at(-1)).toMatch(/^less vacuum than \d+\.?\d* inHg$/);
    const then = answer.outcomes.map((outcome) => thenWords(answer, outcome));
    expect(then.at(-1)).toBe('No vacuum comes this far.');
    expect(then.join()).not.toMatch(/[Pp]ressure/);
  });

  it('words of a band with no end say which end is open, above and below the atmosphere', () => {
    const band = (low: number, high: number) =>
      bandWords(
        'pressure',
        { reading: 0, low, high, share: 1, means: [], goes: [], faults: [], sound: false },
        'bar',
      );
    expect([band(-Infinity, 420), band(553, Infinity), band(-5, 7), band(420, 553)]).toEqual([
      'under 4.2 bar',
      'over 5.53 bar',
      '-0.05 to 0.07 bar',
      '4.2–5.53 bar',
    ]);
    expect([band(-Infinity, -60), band(-37, Infinity), band(-37, 40)]).toEqual([
      'more vacuum than -0.6 bar',
      'less vacuum than -0.37 bar',
      'less vacuum than -0.37 bar',
    ]);
  });
});
