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
});
