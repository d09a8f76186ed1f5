import { render, screen, within } from '@testing-library/react';
import type { TrendRow } from '@/db/trends';
import type { TitledTrend } from '@/core/shed/functionTrends';
import {
  followedCount,
  limitWords,
  measureFigure,
  slopeWords,
  soonWords,
  spanWords,
  trendWords,
} from '@/words/en/trends';
import { driftFacts } from './driftFacts';
import { DriftRows } from './DriftRows';
import { stripOf } from './strip';

const body = (more: Partial<TitledTrend> = {}, trend: Partial<TitledTrend['trend']> = {}): TitledTrend => ({
  kind: 'volts',
  place: 'volts|a>b',
  title: 'Volts lost, 1 to 7, float on',
  part: null,
  test: null,
  limits: { least: null, most: 0.8, source: { code: 'lost', share: 0.03 } },
  trend: {
    state: 'rising',
    level: 0.5,
    perYear: { about: 0.3, least: 0.2, most: 0.4 },
    scatterShare: 0.05,
    swing: null,
    beyond: null,
    toLimit: { side: 'most', about: 70, soonest: 42, latest: 112 },
    step: null,
    byFactors: false,
    used: 6,
    ...trend,
  },
  dots: [
    { at: '2026-01-10T08:00:00Z', value: 0.2, corrected: true, over: false, job: 300 },
    { at: '2026-11-10T08:00:00Z', value: 0.5, corrected: true, over: false, job: 390 },
  ],
  repairs: [],
  lastOn: '2026-11-10',
  mayReachOn: '2026-12-22',
  ...more,
});
const row = (machine_code: string, own: TitledTrend): TrendRow => ({
  function_id: '0197a000-0000-7000-8000-000000000001',
  place_key: `${machine_code}-key`,
  sort_on: '2026-12-22',
  function_name: 'Blade float valve',
  machine_code,
  machine_name: 'Groomer',
  body: own,
});
const said = (own: TitledTrend, today = '2026-11-10') => {
  const { moves, when } = trendWords(own, today);
  return `${moves} ${when}`.trim();
};

describe('what a trend is said to be', () => {
  it('counts from the day that it is asked on', () => {
    expect(said(body())).toBe('Rising. At its limit in about 10 weeks, 6 to 16 weeks.');
    expect(said(body(), '2026-12-08')).toBe('Rising. At its limit in about 6 weeks, 2 to 12 weeks.');
    expect(said(body(), '2027-02-01')).toBe('Rising. May be at its limit by now.');
  });
  it('says when nothing is known of the limit, or of the slope', () => {
    expect(said(body({ limits: null }, { toLimit: null }))).toBe('Rising. Nothing says what its limit is.');
    expect(said(body({}, { toLimit: null }))).toBe('Rising. No limit within three years.');
    expect(said(body({}, { state: 'few', used: 2 }))).toMatch(/^2 readings so far\. A slope needs four/);
    expect(said(body({}, { state: 'steady' }))).toBe('Steady over 10 months.');
    expect(said(body({}, { toLimit: { side: 'most', about: 300, soonest: 90, latest: null } }))).toBe(
      'Rising. At its limit in about 10 months, 3 months at the soonest.',
    );
  });
  it('past its limit says on which side, whatever the slope', () => {
    expect(said(body({}, { beyond: 'most' }))).toBe('Above its limit. Rising still.');
    expect(said(body({}, { beyond: 'least', state: 'few' }))).toBe('Below its limit. By its last reading.');
  });
  it('shows a slope in its unit or by its factor, and none where it is steady', () => {
    expect(slopeWords(body(), 'bar')).toBe('about 0.3 V more each year');
    expect(slopeWords(body({}, { state: 'steady' }), 'bar')).toBeNull();
    const factor = (about: number) =>
      slopeWords(body({}, { byFactors: true, perYear: { about, least: 0, most: 0 } }), 'bar');
    expect(factor(1)).toBe('twice as much after a year');
    expect(factor(-0.6)).toBe('after a year 40 % of it is left');
  });
  it('shows figures with their unit, and says where a limit comes from', () => {
    expect(measureFigure('winding', 7.04, 'bar')).toBe('7.04 Ω');
    expect(measureFigure('insulation', 2e9, 'bar', true)).toBe('over 2 GΩ');
    expect(limitWords({ code: 'drawn', ohms: 7.4, tolerance: 0.08 })).toBe(
      'the drawing: 7.4 Ω, 8 % either way',
    );
    expect(limitWords({ code: 'insulation', by: 'megohm' })).toBe('the site’s policy: one megohm');
    expect([spanWords(1), spanWords(9), spanWords(30), spanWords(300)]).toEqual([
      '1 day',
      '9 days',
      '4 weeks',
      '10 months',
    ]);
    expect(soonWords(1)).toBe('One place is near its limit');
    expect(followedCount({ all: 3, moving: 0, machines: 1 })).toBe(
      '3 places followed on 1 machine, none of them moves',
    );
  });
});

describe('the rows of what drifts', () => {
  it('lead to their place, with a strip that says the same in words', () => {
    render(
      <DriftRows
        rows={[row('G-11', body()), row('P-2', body({ kind: 'insulation' }, { beyond: 'least' }))].map(
          (one) => driftFacts(one, '2026-11-10', 'bar'),
        )}
      />,
    );
    const [first, second] = screen.getAllByTestId('drift');
    expect(within(first!).getByRole('link').getAttribute('href')).toBe(
      '/drift/0197a000-0000-7000-8000-000000000001/G-11-key',
    );
    expect(first!.textContent).toContain('0.5 V');
    expect(within(first!).getByRole('img').getAttribute('aria-label')).toMatch(
      /^2 readings\. Rising\. At its limit/,
    );
    expect(second!.textContent).toContain('Below its limit');
  });

  it('draws the readings over their time, the limit, and the way to it no further than there is room', () => {
    const strip = stripOf(body())!;
    expect(strip.points).toHaveLength(4);
    expect(strip.points[0]).toBeLessThan(strip.points[2]!);
    // Rising towards a limit above: further up is a smaller y.
    expect(strip.points[3]).toBeLessThan(strip.points[1]!);
    expect(strip.limit).toBeLessThan(strip.points[3]!);
    expect(
      stripOf(body({}, { toLimit: { side: 'most', about: 5000, soonest: 1, latest: null } }))!.ahead,
    ).toBeLessThan(52);
    expect(stripOf(body({ limits: null }, { toLimit: null }))).toMatchObject({ limit: null, ahead: null });
    // What is past its limit is on its way to none.
    expect(stripOf(body({}, { beyond: 'most' }))).toMatchObject({ ahead: null });
    expect(stripOf(body({ dots: [] }))).toBeNull();
  });
});
