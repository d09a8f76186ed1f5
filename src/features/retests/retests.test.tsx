import { render, screen, within } from '@testing-library/react';
import type { RetestRow } from '@/db/retests';
import { RetestList } from './RetestList';

const row = (due: string, number: number, more: Partial<RetestRow> = {}): RetestRow => ({
  id: `0197a000-0000-7000-8000-0000000000${number}`,
  number,
  due,
  title: 'Blade drops at night',
  function_id: '0197a000-0000-7000-8000-000000000001',
  function_name: 'Blade tilt',
  machine_code: 'G-2',
  machine_name: 'Groomer',
  open_job: null,
  ...more,
});

describe('the list of re-tests', () => {
  it('stands by week, what is overdue first, each with a job for looking again', () => {
    render(
      <RetestList
        today="2026-12-02"
        rows={[row('2026-11-20', 41), row('2026-12-04', 42, { open_job: 99 }), row('2027-02-01', 43)]}
      />,
    );
    expect(screen.getAllByRole('heading').map(({ textContent }) => textContent)).toEqual([
      expect.stringContaining('Overdue'),
      expect.stringContaining('This week'),
      expect.stringContaining('Later'),
    ]);
    const [overdue, week] = screen.getAllByTestId('retest');
    expect(overdue!.textContent).toContain('20 Nov 2026');
    expect(within(overdue!).getByRole('link', { name: 'Read it again' }).getAttribute('href')).toContain(
      '/retests/round?function=0197a000',
    );
    expect(week!.textContent).toContain('Friday 4 December');
    expect(within(week!).getByRole('link', { name: 'Job 99 is in hand' }).getAttribute('href')).toBe(
      '/jobs/99',
    );
  });

  it('says where a day is set while there is none', () => {
    render(<RetestList today="2026-12-02" rows={[]} />);
    expect(document.body.textContent).toMatch(/Nothing is to be looked at again.*Re-test on/);
  });
});
