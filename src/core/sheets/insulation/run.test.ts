import { asRun, isDischarged, markTaken, runState, type InsulationRun } from './run';

const RUN: InsulationRun = { from: '7', to: 'frame', length: 60, startedMs: 1000, taken: [], endedMs: null };
const at = (run: InsulationRun, seconds: number) => runState(run, 1000 + 1000 * seconds);

describe('an insulation test over time', () => {
  it('asks for the reading of each mark when it has come; one that was missed is gone', () => {
    expect(at(RUN, 9)).toMatchObject({ state: 'running', due: null, next: 15 });
    expect(at(RUN, 31)).toMatchObject({ due: 30, next: 45 });
    const taken = markTaken(RUN, 30, 32_000);
    expect(at(taken, 32)).toMatchObject({ due: null, next: 45 });
    expect(at(taken, 70)).toMatchObject({ due: 60, next: null });
  });
  it('ends with its last mark, and stays shorted four times as long as the volts stood on', () => {
    const ended = markTaken(RUN, 60, 1000 + 62_000);
    expect(ended.endedMs).toBe(63_000);
    expect(at(ended, 62)).toEqual({ state: 'discharging', secondsLeft: 248 });
    expect(at(ended, 62 + 247.5)).toEqual({ state: 'discharging', secondsLeft: 1 });
    expect(at(ended, 62 + 248)).toEqual({ state: 'toProve' });
    // Broken off after ten seconds, it charged for ten seconds.
    expect(at({ ...RUN, endedMs: 11_000 }, 11)).toEqual({ state: 'discharging', secondsLeft: 39 });
  });
  it('a clock that was set back has waited for nothing', () => {
    expect(runState({ ...RUN, endedMs: 61_000 }, 5_000)).toEqual({ state: 'discharging', secondsLeft: 240 });
  });
  it('only volts under the limit prove it dead', () => {
    expect(['0', '0.0 V', '-0.2', '400 mV'].map(isDischarged)).toEqual([true, true, true, true]);
    expect(['', 'OL', '12.6 V', '0 Ω', 'dead', '3'].map(isDischarged)).toEqual([
      false,
      false,
      false,
      false,
      false,
      false,
    ]);
  });
  it('what was kept is taken up again only where it is a run', () => {
    expect(asRun(JSON.parse(JSON.stringify(RUN)))).toEqual(RUN);
    for (const bad of [
      null,
      3,
      {},
      { ...RUN, length: 90 },
      { ...RUN, endedMs: 'now' },
      { ...RUN, taken: ['15'] },
    ])
      expect(asRun(bad)).toBeNull();
  });
});
