import { shopMarks } from '../../tables/marks';
import oracles from '../oracles.json';
import { parseSheet } from '../parseSheet';
import { computeSheet } from '../sheets';
import { codes, fill } from '../testing/fill';
import type { CoilAnswer } from './coil';
import { coolSeconds, dutyOf, pullInHot, windingC } from './service';

const coil = (fields: object) =>
  fill<CoilAnswer>('coil', { leadOhms: 0.2, temperatureC: 22, supplyVolts: 24, ...fields });

describe('a coil in service', () => {
  it('its ohms hot and cold say how hot it ran (E02), against what its class bears', () => {
    expect(windingC(oracles.E02.in.R2, oracles.E02.in.R1, oracles.E02.in.T1)).toBeCloseTo(
      oracles.E02.out.T2,
      6,
    );
    const read = { ohms: [10.2], hotOhms: 12.8 };
    expect(coil(read).coilC).toBeCloseTo(oracles.E02.out.T2, 6);
    expect(codes(coil({ ...read, insulationClass: 'A' }))).not.toContain('hotterThanClass');
    expect(codes(coil({ ...read, hotOhms: 14.2, insulationClass: 'A' }))).toContain('hotterThanClass');
    // Leads or a temperature that nobody knows: nothing follows.
    expect(coil({ ...read, temperatureC: null }).coilC).toBeNull();
    expect(coil({ ...read, leadOhms: null }).coilC).toBeNull();
  });
  it('a hot coil wants more volts (E14); only of direct current', () => {
    const { Vpu_cold, Tcold, Thot } = oracles.E14.in;
    expect(pullInHot(Vpu_cold, Tcold, Thot)).toBeCloseTo(oracles.E14.out.Vpu_hot, 9);
    expect(coil({ ohms: [31], pullInVolts: 16 }).pullInHotVolts).toBeCloseTo(
      (16 * (234.5 + 102)) / (234.5 + 22),
      9,
    );
    expect(coil({ ohms: [31], pullInVolts: 16, hz: 50 }).pullInHotVolts).toBeNull();
    expect(coil({ ohms: [31], pullInVolts: 16, temperatureC: null }).pullInHotVolts).toBeNull();
  });
  it('pull-in and drop-out stand against the range of its kind (E13)', () => {
    const { E13a, E13b } = oracles;
    const { contactorDC: dc, contactorAC: ac } = shopMarks({}).coilVolts;
    expect(dc.pullIn * 24).toBeCloseTo(E13a.out.pu_lo, 9);
    expect([dc.releaseLeast! * 24, dc.releaseMost! * 24]).toEqual([
      expect.closeTo(E13a.out.do_lo, 9),
      expect.closeTo(E13a.out.do_hi, 9),
    ]);
    expect(ac.releaseLeast! * 120).toBeCloseTo(E13b.out.do_lo, 9);
    const device = { ohms: [31], device: 'contactor', ratedVolts: 24 };
    const found = (fields: object) => codes(coil({ ...device, ...fields }));
    expect(found({ pullInVolts: 21 })).toContain('pullsInLate');
    expect(found({ pullInVolts: 18 })).toContain('pullsInLateHot');
    expect(
      found({ pullInVolts: 14, dropOutVolts: 8 }).filter((code) => /pulls|drops|stays/.test(code)),
    ).toEqual([]);
    expect(found({ dropOutVolts: 19 })).toContain('dropsOutEarly');
    expect(found({ dropOutVolts: 1.5 })).toContain('staysIn');
    // Without its kind or its label nothing is held against a range.
    expect(codes(coil({ ohms: [31], pullInVolts: 23.9, ratedVolts: 24 }))).not.toContain('pullsInLate');
    expect(codes(coil({ ohms: [31], device: 'valve', ratedVolts: 24, dropOutVolts: 0.1 }))).not.toContain(
      'staysIn',
    );
  });
  it('the shop’s own figures hold before the tables’', () => {
    const own = shopMarks({
      'coil-ratings|Contactor, DC coil|pullIn': 60,
      'coil-tolerances|Identical neighbour|percent': 2,
    });
    const sheet = parseSheet({
      format: 'spiraxis-sheet',
      version: 1,
      sheet: 'coil',
      ohms: [31.9],
      leadOhms: 0,
      temperatureC: 20,
      twins: [30.5],
      device: 'contactor',
      ratedVolts: 24,
      pullInVolts: 16,
    });
    const found = (marks: ReturnType<typeof shopMarks>) =>
      computeSheet(sheet, marks) as unknown as CoilAnswer;
    expect(found(own)).toMatchObject({ verdict: 'high' });
    expect(codes(found(own))).toContain('pullsInLate');
    expect(found(shopMarks({}))).toMatchObject({ verdict: 'good' });
    expect(codes(found(shopMarks({})))).not.toContain('pullsInLate');
  });
  it('what works and how long holds whatever the ohms say', () => {
    expect(codes(coil({ ohms: ['OL'], device: 'contactor', ratedVolts: 24, pullInVolts: 22 }))).toContain(
      'pullsInLate',
    );
  });
  it('its time on stands against the share on its label (E15)', () => {
    const { cycle_s, ED } = oracles.E15.in;
    expect(dutyOf(75, cycle_s, ED)).toEqual({
      share: 0.25,
      mostOnSeconds: oracles.E15.out.on_s,
      over: false,
    });
    expect(coil({ onSeconds: 120, cycleSeconds: 300, dutyShare: 0.25 })).toMatchObject({
      duty: { share: 0.4, mostOnSeconds: 75, over: true },
    });
    expect(codes(coil({ onSeconds: 120, cycleSeconds: 300, dutyShare: 0.25 }))).toContain('dutyOver');
    expect(coil({ onSeconds: 120, dutyShare: 0.25 }).duty).toBeNull();
    expect(coolSeconds(oracles.E15.out.on_s, ED)).toBe(oracles.E15.out.off_s);
  });
  it('its heat, and the time in which its fuse opens, as bounds (E23)', () => {
    const { V, Rload, Rwire } = oracles.E23.in;
    const answer = coil({
      ohms: [Rload + Rwire],
      leadOhms: 0,
      temperatureC: 20,
      supplyVolts: V,
      fuseAmps: 10,
    });
    expect(answer.ampsCold).toBeCloseTo(oracles.E23.out.I, 9);
    expect(answer.fuseSeconds).toEqual({ least: oracles.E23.out.tmin_10, most: null });
    expect(answer.wattsCold).toBeCloseTo(V * oracles.E23.out.I, 6);
    expect(
      coil({ ohms: [Rload + Rwire], leadOhms: 0, temperatureC: 20, supplyVolts: 2 * V, fuseAmps: 10 })
        .fuseSeconds,
    ).toEqual({
      least: 0.04,
      most: 5,
    });
    expect(coil({ ohms: [31] }).fuseSeconds).toBeNull();
    expect(coil({ ohms: [31], hz: 50, va: 9 }).wattsCold).toBeNull();
  });
  it('pulsed: what a DC meter shows across it and at its pin, and the share of time on back from either (E10)', () => {
    const { Vs, D, R, Vf, Vsat } = oracles.E10.in;
    const { out } = oracles.E10;
    const pulsed = {
      ohms: [R],
      leadOhms: 0,
      temperatureC: 20,
      supplyVolts: Vs,
      flybackVolts: Vf,
      switchVolts: Vsat,
    };
    const answer = coil({ ...pulsed, pulseShare: D }).pulsed!;
    expect(answer.coilVolts).toBeCloseTo(out.Vcoil_avg, 9);
    expect(answer.pinVolts).toBeCloseTo(out.Vpin_low_side_avg, 9);
    expect(answer.amps).toBeCloseTo(out.I_avg, 9);
    expect(coil({ ...pulsed, meterVolts: out.Vcoil_avg }).pulsed!.onShare).toBeCloseTo(D, 9);
    expect(coil({ ...pulsed, pinVolts: out.Vpin_low_side_avg }).pulsed!.onShare).toBeCloseTo(D, 9);
    expect(codes(coil({ ...pulsed, meterVolts: 40 }))).toContain('noSuchPulses');
    expect(coil({ ...pulsed, meterVolts: 40 }).pulsed).toBeNull();
    expect(codes(coil({ ...pulsed, flybackVolts: null, pulseShare: D }))).toContain('diodeNotKnown');
    expect(coil(pulsed).pulsed).toBeNull();
  });
});
