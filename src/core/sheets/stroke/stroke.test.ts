import { codes, fill } from '../testing/fill';
import type { StrokeAnswer } from './stroke';

const CYLINDER = { boreMm: 50, rodMm: 20, strokeMm: 300, supplyKpa: 600 };
const PIPED = { ...CYLINDER, feedConductance: 3, exhaustOutConductance: 1, exhaustInConductance: 1 };
const stroke = (fields: object) => fill<StrokeAnswer>('stroke', fields);

describe('a stroke against what it should take', () => {
  it('what it pushes and pulls is its area times its pressure, friction off', () => {
    const { outNewton, inNewton, next } = stroke(CYLINDER);
    expect(outNewton).toBeCloseTo(0.85 * 600e3 * Math.PI * 0.025 ** 2, 3);
    expect(inNewton).toBeCloseTo(0.85 * 600e3 * Math.PI * (0.025 ** 2 - 0.01 ** 2), 3);
    expect(next).toEqual({ ask: 'feedConductance' });
    expect(stroke({ boreMm: 50 }).next).toEqual({ ask: 'rodMm' });
  });

  it('a throttle that lets go chokes: without a load the released chamber gives the speed', () => {
    // Choked, a chamber empties C dm³ a second for each bar in it, so that its volume goes by C · 1 bar whatever stands in it.
    const { outComputed } = stroke({ ...PIPED, feedConductance: 100, exhaustOutConductance: 0.4 });
    const ring = (Math.PI / 4) * (0.05 ** 2 - 0.02 ** 2);
    const choked = (0.3 * ring * 1000) / 0.4;
    // The wider face first squeezes what the other chamber holds.
    expect(outComputed! / choked).toBeGreaterThan(0.97);
    expect(outComputed! / choked).toBeLessThan(1.1);
  });

  it('before it moves the driven chamber fills, in a straight line as long as its feed chokes', () => {
    // Friction and load want 1.41 bar over the atmosphere: under 0.35 of the supply its feed chokes all the way.
    const { outBegins, outComputed } = stroke({
      ...PIPED,
      loadN: 100,
      feedConductance: 0.5,
      exhaustOutConductance: 200,
      deadCm3: 500,
    });
    const cap = (Math.PI / 4) * 0.05 ** 2;
    const needed = (100 + 0.15 * 600e3 * cap) / cap / 1e5;
    expect(outBegins! / ((needed * 0.5) / (0.5 * 7.013))).toBeCloseTo(1, 1);
    expect(outComputed!).toBeGreaterThan(outBegins!);
    expect(stroke({ ...PIPED, deadCm3: 60 }).outComputed!).toBeLessThan(
      stroke({ ...PIPED, deadCm3: 600 }).outComputed!,
    );
  });

  it('a chamber that is let go through little holds it back until it has emptied', () => {
    // In, the wide side is let go: from the supply down to what friction and the narrow side leave, choked, p falls with V / C.
    const { inBegins } = stroke({
      ...PIPED,
      feedConductance: 200,
      exhaustInConductance: 0.2,
      deadCm3: 1,
    });
    const [cap, ring] = [(Math.PI / 4) * 0.05 ** 2, (Math.PI / 4) * (0.05 ** 2 - 0.02 ** 2)];
    const left = (6 * (1 - 0.15) * ring) / cap + 1.013;
    const volume = cap * 0.3 * 1000 + 0.001;
    expect(inBegins! / ((volume / 0.2) * Math.log(7.013 / left))).toBeCloseTo(1, 1);
  });

  it('a load, a narrower throttle and less pressure each make it slower', () => {
    const base = stroke(PIPED).outComputed!;
    expect(stroke({ ...PIPED, loadN: 700 }).outComputed!).toBeGreaterThan(base);
    expect(stroke({ ...PIPED, exhaustOutConductance: 0.5 }).outComputed!).toBeGreaterThan(1.7 * base);
    expect(stroke({ ...PIPED, supplyKpa: 200, loadN: 250 }).outComputed!).toBeGreaterThan(base);
    const loaded = stroke({ ...PIPED, loadN: 700 }).outComputed!;
    expect(stroke({ ...PIPED, loadN: 700, feedConductance: 0.2 }).outComputed!).toBeGreaterThan(1.5 * loaded);
    // A load that helps on the way out is in the way back, once what lets go no longer chokes.
    const back = (loadN: number) => stroke({ ...PIPED, supplyKpa: 200, loadN }).inComputed!;
    expect(back(-200)).toBeGreaterThan(1.05 * back(0));
  });

  it('one way slow is that way’s exhaust, both ways what they share; a load too heavy is said before any time', () => {
    const { outComputed, inComputed } = stroke(PIPED);
    const read = (out: number, back: number) =>
      stroke({ ...PIPED, outSeconds: out * outComputed!, inSeconds: back * inComputed! }).verdict;
    expect(read(1.1, 1.2)).toBe('asComputed');
    expect(read(3, 1.1)).toBe('slowOut');
    expect(read(1, 2.5)).toBe('slowIn');
    expect(read(2.4, 2.6)).toBe('slowBoth');
    expect(read(1.7, 1.5)).toBeNull();
    expect(stroke({ ...PIPED, loadN: 1200 })).toMatchObject({
      verdict: 'tooHeavy',
      outComputed: null,
      next: null,
    });
    expect(codes(stroke({ ...PIPED, outSeconds: outComputed! / 4, inSeconds: inComputed! }))).toContain(
      'fasterThanComputed',
    );
    expect(stroke({ ...PIPED, outSeconds: 1 })).toMatchObject({ verdict: null, next: { ask: 'inSeconds' } });
  });

  it('on oil takes what its volume takes of the pump, and starts late by the air that is squeezed first', () => {
    const OIL = { boreMm: 60, rodMm: 35, strokeMm: 500, supplyKpa: 16_000, loadN: 20_000, oilLpm: 22 };
    const cap = (Math.PI / 4) * 0.06 ** 2;
    const { outComputed, medium, next, outBegins } = stroke(OIL);
    expect(outComputed!).toBeCloseTo((cap * 0.5) / (22 / 60_000), 6);
    expect([medium, outBegins, next]).toEqual(['oil', null, { ask: 'outSeconds' }]);
    const timed = { ...OIL, outSeconds: 4, inSeconds: 2.7 };
    expect(stroke(timed)).toMatchObject({ verdict: 'asComputed' });
    expect(codes(stroke(timed))).not.toContain('trappedAir');
    // Boyle: 300 cm³ of air at 94 bar take up 3 cm³; the rest has to be pumped in before it moves.
    const gauge = 20_000 / cap + 0.15 * 16e6;
    const late = (300e-6 * (1 - 101_325 / (101_325 + gauge))) / (22 / 60_000);
    const spongy = stroke({ ...timed, outSeconds: 4 + late, outStartSeconds: late + 0.2 });
    expect(spongy.verdict).toBe('asComputed');
    expect(spongy.findings.find(({ code }) => code === 'trappedAir')).toMatchObject({
      way: 'out',
      cm3: expect.closeTo(300, 0),
    });
    // A hand is no quicker than this, and without a load nobody can tell.
    expect(codes(stroke({ ...timed, outStartSeconds: 0.2 }))).not.toContain('trappedAir');
    expect(stroke({ ...timed, outSeconds: 9 }).verdict).toBe('slowOut');
  });
});
