import { gateWords, graveWords, holdWords, shutWords } from './holds';

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
