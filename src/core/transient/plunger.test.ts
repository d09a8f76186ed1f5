import type { Waveform } from './elements';
import { solenoidOf, springOf, type PlungerFigures } from './plunger';
import { runInTime } from './run';

const VALVE: PlungerFigures = {
  ohms: 20,
  openHenries: 0.05,
  closedHenries: 0.2,
  strokeMetres: 2e-3,
  kilograms: 0.02,
  pullInAmps: 0.7,
  holdAmps: 0.3,
  damping: 1,
};

/** Amperes up to `most` and down again, so slowly that nothing lags. */
function ramp(most: number, seconds: number): Waveform {
  const up = (t: number) => (2 * t) / seconds;
  return {
    at: (t) => most * VALVE.ohms * Math.max(0, up(t) < 1 ? up(t) : 2 - up(t)),
    nextBreak: (t) => (t < seconds / 2 ? seconds / 2 : Infinity),
  };
}

describe('a plunger of which the amperes are known', () => {
  it('pulls in and lets go there, on a supply that rises and falls slowly', () => {
    const course = runInTime(
      2,
      [{ kind: 'source', a: 1, b: 0, volts: ramp(1, 20) }, solenoidOf(1, 0, VALVE)],
      20,
    );
    const [amps, place] = course.own[1]! as [Float64Array, Float64Array];
    const half = VALVE.strokeMetres / 2;
    const moved = place.findIndex((x) => x > half);
    const left = place.findIndex((x, k) => k > moved && x < half);
    // Its own volts hold the current back while it runs: what counts is where it stood before.
    const before = place.findIndex((x) => x > 0.02 * VALVE.strokeMetres);
    expect(amps[before]! / VALVE.pullInAmps).toBeCloseTo(1, 1);
    expect(course.seconds[moved]!).toBeCloseTo(7, 0);
    expect(course.seconds[left]!).toBeCloseTo(17, 0);
  });

  it('has no spring where its iron does not bear what is asked', () => {
    expect(() => springOf({ ...VALVE, holdAmps: 0.1 })).toThrow(
      /no spring pulls in at 0.7 A and holds down to 0.1 A/,
    );
    expect(() => springOf({ ...VALVE, closedHenries: 0.05 })).toThrow(RangeError);
    expect(springOf({ ...VALVE, holdAmps: 0.175 }).springNewtonsPerMetre).toBeCloseTo(0, 6);
  });
});
