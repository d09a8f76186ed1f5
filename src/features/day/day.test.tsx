import { cleanup, fireEvent, render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { Day, DayCard } from './day';
import { DayPlan } from './DayPlan';
import { keepDay } from './actions';

jest.mock('next/navigation', () => ({ useRouter: () => ({ refresh: jest.fn() }) }));
jest.mock('./actions', () => ({ keepDay: jest.fn() }));
const keep = keepDay as unknown as jest.Mock;

const card = (number: number, least: number, more: Partial<DayCard> = {}): DayCard => ({
  number,
  title: `Fault ${number}`,
  machineCode: `G-${number}`,
  machineName: 'Groomer',
  next: 'Test',
  left: { least, most: 2 * least },
  person: null,
  licences: [],
  waitsForPart: false,
  ...more,
});
const DAY: Day = {
  cards: [
    card(1, 40),
    card(2, 20),
    card(3, 30, { licences: ['lineVolts'] }),
    card(4, 10, { waitsForPart: true }),
  ],
  people: [
    { name: 'Ilse', role: 'technician', licences: [] },
    { name: 'Tove', role: 'technician', licences: ['lineVolts'] },
  ],
  kept: null,
  since: '2026-11-28T08:00:00.000Z',
  now: '14:00',
  out: { time: '15:00', minutes: 60 },
  more: 0,
};
const row = (person: string) =>
  screen.getAllByTestId('day-row').find((one) => one.getAttribute('data-person') === person)!;
const jobsOf = (person: string) =>
  within(row(person))
    .queryAllByTestId('day-job')
    .map((one) => /Job (\d+)/.exec(one.textContent ?? '')![1]);

describe('the day', () => {
  beforeEach(() => keep.mockReset().mockResolvedValue({ trouble: null }));
  afterEach(cleanup);

  it('proposes who does what, says why, and what nobody can do yet', () => {
    render(<DayPlan day={DAY} mayPlan />);
    expect(jobsOf('Tove')).toContain('3');
    expect([...jobsOf('Ilse'), ...jobsOf('Tove')].sort()).toEqual(['1', '2', '3']);
    expect(jobsOf('')).toEqual(['4']);
    expect(row('').textContent).toContain('Waits for a part');
    expect(row('Tove').textContent).toContain('Tove alone holds the licence');
    expect(screen.getByTestId('day-says').textContent).toMatch(/^\d of 3 in time/);
  });

  it('a job goes to somebody else, not to who lacks its licence, and the plan is kept as it stands', async () => {
    const person = userEvent.setup();
    render(<DayPlan day={DAY} mayPlan />);
    await person.selectOptions(screen.getByLabelText('With, job 3'), 'Ilse');
    expect(screen.getByText('Job 3 wants somebody licensed for line voltage.')).toBeTruthy();
    expect(jobsOf('Tove')).toContain('3');
    await person.selectOptions(screen.getByLabelText('With, job 1'), 'Tove');
    await person.selectOptions(screen.getByLabelText('With, job 2'), '');
    expect(jobsOf('Tove')).toContain('1');
    expect(jobsOf('')).toEqual(['4', '2']);
    expect(screen.getByText('Moved, not kept yet.')).toBeTruthy();
    await person.click(screen.getByRole('button', { name: 'Keep this plan' }));
    const [rows, hours, since] = keep.mock.calls[0] as [{ person: string; jobs: number[] }[], object, string];
    expect(hours).toEqual({});
    expect(since).toBe(DAY.since);
    expect(rows.find(({ person: name }) => name === 'Tove')!.jobs).toEqual(expect.arrayContaining([1, 3]));
    expect(rows.flatMap(({ jobs }) => jobs)).not.toContain(2);
  });

  it('a plan that was refused stands as it was moved, with its reason', async () => {
    keep.mockResolvedValue({ trouble: 'Somebody kept another plan meanwhile.' });
    const person = userEvent.setup();
    render(<DayPlan day={DAY} mayPlan />);
    await person.selectOptions(screen.getByLabelText('With, job 1'), 'Tove');
    await person.click(screen.getByRole('button', { name: 'Keep this plan' }));
    expect(await screen.findByText('Somebody kept another plan meanwhile.')).toBeTruthy();
    expect(jobsOf('Tove')).toContain('1');
  });

  it('another’s plan that comes meanwhile takes nothing from under the hands, and is not overwritten unseen', async () => {
    const person = userEvent.setup();
    const { rerender } = render(<DayPlan day={DAY} mayPlan />);
    await person.selectOptions(screen.getByLabelText('With, job 1'), 'Tove');
    const since = '2026-11-28T09:00:00.000Z';
    const kept = { rows: [{ person: 'Ilse', jobs: [1] }], hours: {}, person: 'Henrike', at: since };
    rerender(<DayPlan day={{ ...DAY, kept, since }} mayPlan />);
    expect(jobsOf('Tove')).toContain('1');
    await person.click(screen.getByRole('button', { name: 'Keep this plan' }));
    expect((keep.mock.calls[0] as [unknown, unknown, string])[2]).toBe(DAY.since);
    cleanup();
    render(<DayPlan day={{ ...DAY, kept, since }} mayPlan />);
    await person.selectOptions(screen.getByLabelText('With, job 2'), 'Tove');
    await person.click(screen.getByRole('button', { name: 'As it was kept' }));
    expect(jobsOf('Ilse')).toEqual(['1']);
    expect(jobsOf('Tove')).toEqual([]);
  });

  it('what is not weighed yet is planned once it is, as long as nothing was moved', () => {
    const unknown = { ...DAY, cards: DAY.cards.map((one) => ({ ...one, left: null })) };
    const { rerender } = render(<DayPlan day={unknown} mayPlan />);
    expect(screen.getByTestId('day-says').textContent).toBe('Nothing is planned.');
    rerender(<DayPlan day={DAY} mayPlan />);
    expect(screen.getByTestId('day-says').textContent).toMatch(/of 3 in time/);
  });

  it('what was kept comes back; what is new is with nobody, and who may not plan moves nothing', () => {
    const kept = {
      rows: [{ person: 'Ilse', jobs: [2, 1, 99] }],
      hours: { Ilse: '22:00' },
      person: 'Henrike',
      at: DAY.since!,
    };
    render(<DayPlan day={{ ...DAY, kept, out: null }} mayPlan={false} />);
    expect(jobsOf('Ilse')).toEqual(['2', '1']);
    expect(jobsOf('')).toEqual(['3', '4']);
    expect(screen.queryByRole('button', { name: /Keep|Propose|Move/ })).toBeNull();
    expect(screen.getByRole('link', { name: 'Site policy' })).toBeTruthy();
    expect(row('Ilse').textContent).toContain('here until 22:00');
    expect(screen.queryByLabelText('Ilse is here until')).toBeNull();
  });

  it('who is not here is given nothing, and who goes home early has until then', async () => {
    const person = userEvent.setup();
    render(<DayPlan day={DAY} mayPlan />);
    const before = jobsOf('Tove');
    expect(before).toContain('3');
    await person.click(within(row('Tove')).getByRole('button', { name: 'Not here' }));
    expect(jobsOf('Tove')).toEqual([]);
    expect(jobsOf('')).toEqual(expect.arrayContaining([...before, '4']));
    await person.selectOptions(screen.getByLabelText('With, job 3'), 'Tove');
    expect(screen.getByText('Tove is not here any more today.')).toBeTruthy();
    await person.click(screen.getByRole('button', { name: 'Propose anew' }));
    expect(row('').textContent).toContain('Who holds its licence is not here today');
    // Ten minutes are too few for anything.
    fireEvent.change(screen.getByLabelText('Ilse is here until'), { target: { value: '14:10' } });
    expect(within(row('Ilse')).getAllByText(/^Not tonight/).length).toBeGreaterThan(0);
    await person.click(screen.getByRole('button', { name: 'Keep this plan' }));
    expect((keep.mock.calls[0] as [unknown, object])[1]).toEqual({ Tove: 'away', Ilse: '14:10' });
  });
});
