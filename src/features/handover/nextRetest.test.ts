import { nextRetest } from './nextRetest';

describe('the next look at a machine', () => {
  it('is as the policy says, or sooner by what drifts', () => {
    expect(nextRetest('2026-11-29', 90, null)).toEqual({ on: '2027-02-27', by: 'policy' });
    expect(nextRetest('2026-11-29', 90, { on: '2027-01-10' })).toEqual({ on: '2027-01-10', by: 'trend' });
    expect(nextRetest('2026-11-29', 30, { on: '2027-01-10' })).toEqual({ on: '2026-12-29', by: 'policy' });
    expect(nextRetest('2026-11-29', null, { on: '2027-01-10' })).toEqual({ on: '2027-01-10', by: 'trend' });
  });

  it('is nobody’s where nobody says it, and never past', () => {
    expect(nextRetest('2026-11-29', null, null)).toBeNull();
    expect(nextRetest('2026-11-29', null, { on: '2026-11-29' })).toBeNull();
    expect(nextRetest('2026-11-29', 7, { on: '2026-10-01' })).toEqual({ on: '2026-12-06', by: 'policy' });
  });
});
