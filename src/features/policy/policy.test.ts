import { Diagnoser } from '@/core/diagnosis/diagnose';
import { singleCoil } from '@/core/templates/electrical';
import { policySchema, USUAL_POLICY } from './policy';
import { preferencesOf } from './preferencesOf';

describe('the site’s policy', () => {
  const dead = {
    kind: 'function' as const,
    part: 'Y1',
    setup: { controls: { key: 'on' } },
    value: 'dead' as const,
  };
  const offered = (policy: object) =>
    new Diagnoser(singleCoil())
      .diagnose([dead], { preferences: preferencesOf(policySchema.parse(policy)), most: 60 })
      .next.map(({ test }) => test);

  it('is careful until somebody says otherwise', () => {
    expect(USUAL_POLICY).toEqual({
      order: 'best',
      jumpers: false,
      liveWork: true,
      gaugeUnit: 'bar',
      shopRate: 60,
      lockLine: 7,
      machinesOut: null,
      retestDays: null,
      lockControl: 4,
      insulationPass: 'table',
      learnersSeen: true,
      shedName: 'The shed',
      timeZone: new Intl.DateTimeFormat().resolvedOptions().timeZone,
    });
  });

  it('keeps a clock that there is', () => {
    expect(policySchema.parse({ timeZone: 'Europe/Vienna' }).timeZone).toBe('Europe/Vienna');
    expect(policySchema.safeParse({ timeZone: 'Ridge time' }).success).toBe(false);
  });

  it('decides whether contacts are bridged and live runs are read', () => {
    expect(offered({}).some(({ setup }) => setup.jumpers)).toBe(false);
    expect(offered({ jumpers: true }).some(({ setup }) => setup.jumpers)).toBe(true);
    expect(offered({}).some(({ kind }) => kind === 'volts')).toBe(true);
    expect(offered({ liveWork: false }).some(({ kind }) => kind === 'volts')).toBe(false);
  });
});
