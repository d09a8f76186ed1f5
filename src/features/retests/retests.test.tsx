import { render, screen, within } from '@testing-library/react';
import type { RetestRow } from '@/db/retests';
import userEvent from '@testing-library/user-event';
import { openRetest } from './actions';
import { RetestList } from './RetestList';
import { RoundSheet } from './RoundSheet';
import type { RoundStop } from './server';

jest.mock('./actions', () => ({
  openRetest: jest.fn(async () => ({ trouble: 'Say who takes the round.' })),
}));

const row = (due: string, number: number, more: Partial<RetestRow> = {}): RetestRow => ({
  id: `0197a000-0000-7000-8000-0000000000${number}`,
  number,
  due,
  title: 'Blade drops at night',
  function_id: '0197a000-0000-7000-8000-000000000001',
  function_name: 'Blade tilt',
  machine_code: 'G-2',
  machine_name: 'Groomer',
  machine_place: null,
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

describe('a round', () => {
  const stop = (more: Partial<RoundStop> = {}): RoundStop => ({
    machine_code: 'G-2',
    machine_name: 'Groomer',
    machine_place: 'Bay 3',
    function_name: 'Blade float',
    function_id: '0197a000-0000-7000-8000-000000000001',
    due: '2026-11-20',
    open_job: null,
    places: [{ key: 'a', title: 'Volts lost, 1 to 7', was: '0.5 V' }],
    ...more,
  });

  it('has each place with what it read, and begins where one stands', async () => {
    const person = userEvent.setup();
    render(
      <RoundSheet
        today="2026-12-02"
        stops={[
          stop(),
          stop({ function_id: '0197a000-0000-7000-8000-000000000002', open_job: 99, places: [] }),
        ]}
      />,
    );
    const [first, second] = screen.getAllByTestId('round-stop');
    expect(first!.textContent).toContain('Groomer, Bay 3; was due 20 Nov 2026');
    expect(first!.textContent).toContain('was 0.5 V');
    expect(second!.textContent).toContain('No place was read twice here yet');
    expect(within(second!).getByRole('link').getAttribute('href')).toBe('/jobs/99?step=prove');
    await person.click(within(first!).getByRole('button', { name: 'Begin here' }));
    expect(openRetest).toHaveBeenCalledWith('0197a000-0000-7000-8000-000000000001');
    expect((await within(first!).findByRole('alert')).textContent).toContain('Say who takes the round.');
  });

  it('says when nothing is due', () => {
    render(<RoundSheet today="2026-12-02" stops={[]} />);
    expect(document.body.textContent).toContain('Nothing is due in that time.');
  });
});
