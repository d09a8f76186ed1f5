import oracles from '../oracles.json';
import { codes, fill } from '../testing/fill';
import { atmosphereKPa, type SaturationAnswer } from './saturation';

const PSI = 6.894757;
const saturation = (refrigerant: string, fields: object) =>
  fill<SaturationAnswer>('saturation', { refrigerant, ...fields });

describe('saturation', () => {
  it('P11 to P14, and the atmosphere of a height (P07)', () => {
    expect(saturation('R-134a', { kPaAbs: oracles.P11.out.p_abs_kPa }).dewC).toBeCloseTo(
      oracles.P11.out.Tsat_C,
      6,
    );
    expect(saturation('r404a', { kPaAbs: oracles.P12.out.p_abs_kPa }).bubbleC).toBeCloseTo(
      oracles.P12.out.Tbub_C,
      6,
    );
    expect(saturation('R410A', { kPaGauge: 118 * PSI, altitudeMetres: 0 }).dewC).toBeCloseTo(
      oracles.P13.out.Tdew_C,
      4,
    );
    expect(atmosphereKPa(1500)).toBeCloseTo(oracles.P07.out.p_kPa, 6);
    expect(saturation('R-134a', { kPaGauge: 200, altitudeMetres: 1500 }).dewC).toBeCloseTo(
      oracles.P14.out.T_alt,
      3,
    );
  });
  it('a gauge without a height is said', () => {
    const answer = saturation('R-134a', { kPaGauge: 200 });
    expect(answer.dewC).toBeCloseTo(oracles.P14.out.T_sea, 3);
    expect(answer.next).toEqual({ ask: 'altitudeMetres' });
    expect(codes(answer)).toContain('altitudeNotKnown');
  });
  it('of a blend the other side follows at the same pressure', () => {
    const answer = saturation('R-448A', { bubbleC: 20 });
    expect(answer.kPaAbsBubble).toBeCloseTo(1158.6, 0);
    expect(answer.kPaAbsDew).toBe(answer.kPaAbsBubble);
    expect(answer.dewC! - answer.bubbleC!).toBeGreaterThan(4);
    expect(codes(answer)).toContain('notYetChecked');
  });
  it('says nothing outside its fit, of a gas it does not know, or of nothing', () => {
    const nothing = { bubbleC: null, dewC: null, kPaAbsBubble: null, kPaAbsDew: null, errorPercent: null };
    expect(saturation('R-134a', { bubbleC: 75 })).toMatchObject(nothing);
    expect(saturation('R-134a', { kPaAbs: 20 })).toMatchObject(nothing);
    expect(saturation('R-134a', { kPaGauge: -200, altitudeMetres: 0 })).toMatchObject(nothing);
    expect(codes(saturation('R-9999', { kPaAbs: 300 }))).toContain('refrigerantNotKnown');
    expect(saturation('R-22', {}).next).toEqual({ ask: 'kPaGauge' });
    expect(() => saturation('R-22', { kPaAbs: 300, bubbleC: 4 })).toThrow(/bubbleC: stands beside kPaAbs/);
  });
  it('superheat and subcooling of a pipe beside it (P11, P12); below saturation liquid comes along', () => {
    const vapour = saturation('R-134a', { kPaAbs: oracles.P11.out.p_abs_kPa, vapourLineC: (48 - 32) / 1.8 });
    expect(vapour.superheatK).toBeCloseTo(7.45, 2);
    const liquid = saturation('R-404A', { kPaAbs: oracles.P12.out.p_abs_kPa, liquidLineC: 35 });
    expect(liquid.subcoolingK).toBeCloseTo(4.76, 2);
    expect(liquid.superheatK).toBeNull();
    const wet = saturation('R-134a', { kPaAbs: oracles.P11.out.p_abs_kPa, vapourLineC: 0 });
    expect(wet.superheatK).toBeLessThan(0);
    expect(codes(wet)).toContain('liquidInVapour');
    expect(codes(saturation('R-22', { kPaAbs: 1200, liquidLineC: 60 }))).toContain('vapourInLiquid');
  });
  it('goes by the maker’s table where there is one, and says nothing beyond it', () => {
    const points = [-20, -5, 10, 25, 40].map((celsius) => ({
      celsius,
      kPaAbs: saturation('R-134a', { bubbleC: celsius }).kPaAbsBubble!,
    }));
    const own = saturation('House blend', { kPaAbs: 400, table: points });
    // Between its points within a twentieth of a kelvin of the curve that they were taken from.
    expect(own.bubbleC! - saturation('R-134a', { kPaAbs: 400 }).bubbleC!).toBeLessThan(0.05);
    expect(own).toMatchObject({ errorPercent: null, source: 'the maker’s table, 5 points' });
    expect(saturation('House blend', { dewC: -20, table: points }).kPaAbsDew).toBeCloseTo(
      points[0]!.kPaAbs,
      6,
    );
    expect(codes(saturation('House blend', { kPaAbs: 2500, table: points }))).toContain('outsideTable');
    expect(codes(saturation('R-134a', { bubbleC: 50, table: points }))).toContain('outsideTable');
    expect(codes(saturation('House blend', { kPaAbs: 400, table: points.slice(0, 2) }))).toContain(
      'tableTooShort',
    );
    const glide = points.map((point) => ({ ...point, dewKPaAbs: 0.8 * point.kPaAbs }));
    const blend = saturation('House blend', { kPaAbs: 400, table: glide });
    expect(blend.dewC! - blend.bubbleC!).toBeGreaterThan(4);
    const bad = (table: object[]) => () => saturation('X', { kPaAbs: 400, table });
    expect(bad(points.toReversed())).toThrow(/table\[1\].celsius: 25 does not come after 40/);
    expect(bad([points[0]!, { celsius: 0, kPaAbs: 50 }, points[4]!])).toThrow(
      /table\[1\].kPaAbs: 50 is not above/,
    );
    expect(bad(points.map((point) => ({ ...point, dewKPaAbs: 2 * point.kPaAbs })))).toThrow(
      /exchange the two columns/,
    );
  });
});
