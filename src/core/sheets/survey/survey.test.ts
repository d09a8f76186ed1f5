import { codes, fill } from '../testing/fill';
import type { SurveyAnswer } from './survey';

const survey = (fields: object) =>
  fill<SurveyAnswer>('survey', { pins: ['1', '2', '3'], supplyVolts: 12.6, referenceVolts: 5, ...fields });
const sweep = (volts: number[]) =>
  survey({ sweep: volts.map((one, position) => ({ position, volts: one })) });

describe('a plug, pin by pin', () => {
  it('tells a three-wire sensor’s pins apart', () => {
    const { roles } = survey({
      unplugged: { '1': 5.01, '2': 0, '3': 5 },
      plugged: { '1': 4.98, '2': 0.02, '3': 2.4 },
      ohmsToFrame: { '2': 0.3 },
    });
    expect([roles['1']!.role, roles['2']!.role, roles['3']!.role]).toEqual(['reference', 'return', 'signal']);
  });
  it('which way a driver switches is seen only when it is commanded', () => {
    const at = { unplugged: { '1': 0, '2': 12.6 }, plugged: { '1': 12.5, '2': 12.6 } };
    expect(survey(at).roles['1']!.role).not.toBe('driverHigh');
    expect(survey({ ...at, commanded: { '1': 0.3 } }).roles['1']!.role).toBe('driverLow');
    const high = survey({ unplugged: { '1': 0 }, plugged: { '1': 0 }, commanded: { '1': 12.4 } });
    expect(high.roles['1']!.role).toBe('driverHigh');
  });
  it('five volts unplugged may be two things, nothing read any', () => {
    const open = survey({ unplugged: { '1': 5 } });
    expect(open.roles['1']!.role).toBeNull();
    expect(open.roles['1']!.share).toBeLessThan(0.8);
    expect(open.next).toEqual({ ask: expect.stringMatching(/^(unplugged|ohmsToFrame|plugged)\./) as string });
    expect(survey({ supplyVolts: undefined, unplugged: { '1': 5 } })).toMatchObject({
      next: { ask: 'supplyVolts' },
    });
  });
  it('marks what is wrong against the drawing', () => {
    const wrong = (expected: string, fields: object) =>
      survey({ expected: { '1': expected }, ...fields }).wrong[0]?.code;
    expect(wrong('supply', { plugged: { '1': 12.4 } })).toBeUndefined();
    expect(wrong('supply', { plugged: { '1': 0.1 } })).toBe('noSupply');
    expect(wrong('supply', { plugged: { '1': 9 } })).toBe('lowSupply');
    expect(wrong('return', { ohmsToFrame: { '1': 'OL' } })).toBe('openReturn');
    expect(wrong('return', { plugged: { '1': 0.9 } })).toBe('returnLifted');
    expect(wrong('reference', { plugged: { '1': 12.5 } })).toBe('shortToSupply');
    expect(wrong('reference', { unplugged: { '1': 4.2 } })).toBe('referenceOff');
    expect(wrong('driverLow', { plugged: { '1': 12.5 }, commanded: { '1': 12.4 } })).toBe('notSwitched');
    expect(wrong('signal', {})).toBeUndefined();
  });
  it('a sweep: good, a dead spot, noise, stuck, out of its range', () => {
    const good = [0.5, 1, 1.5, 2, 2.5, 3, 3.5, 4, 4.5];
    expect(sweep(good).sensor).toBe('good');
    expect(sweep([...good].reverse()).sensor).toBe('good');
    expect(sweep([0.5, 1, 1.5, 0, 2.5, 3, 3.5, 4]).sensor).toBe('deadSpot');
    expect(sweep([0.5, 1, 1.5, 5, 5, 3, 3.5, 4]).sensor).toBe('deadSpot');
    expect(sweep([0.5, 1.4, 0.9, 1.9, 1.3, 2.6, 1.8, 3.1]).sensor).toBe('noise');
    expect(sweep([2.31, 2.3, 2.31, 2.3, 2.31]).sensor).toBe('stuck');
    expect(sweep([0, 0.01, 0, 0, 0.01]).sensor).toBe('outOfRange');
    expect(sweep([0.02, 0.5, 1, 1.5, 2, 2.5]).sensor).toBe('outOfRange');
    const few = sweep([0.5, 1]);
    expect(few.sensor).toBeNull();
    expect(codes(few)).toContain('fewPoints');
  });
});
