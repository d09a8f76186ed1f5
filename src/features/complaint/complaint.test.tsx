import { render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { twoWayPair } from '@/core/templates/electrical';
import { useDesk } from '../desk/desk';
import { openDesk } from '../desk/testing/openDesk';
import { ComplaintScreen } from './ComplaintScreen';

jest.mock('../desk/desk', () => ({ useDesk: jest.fn() }));
jest.mock('../codes/actions', () => ({
  functionsBehind: () => Promise.resolve([]),
  pastJobsWith: () => Promise.resolve([]),
}));
const asked = useDesk as unknown as jest.Mock;

function show(more: Parameters<typeof openDesk>[2] = {}) {
  const desk = openDesk(twoWayPair(), [], more);
  asked.mockImplementation(desk.useDesk);
  render(<ComplaintScreen />);
  return { desk, person: userEvent.setup() };
}

describe('the complaint', () => {
  it('each answer is a reading at once; the same answer again takes it back', async () => {
    const { desk, person } = show();
    const row = within(screen.getByRole('group', { name: /Y1.*forward/ }));
    await person.click(row.getByRole('button', { name: 'dead' }));
    expect(desk.readings().map(({ value }) => value)).toEqual(['dead']);
    await person.click(row.getByRole('button', { name: 'works' }));
    expect(desk.readings().map(({ value }) => value)).toEqual(['works']);
    expect(row.getByRole('button', { name: 'works' }).getAttribute('aria-pressed')).toBe('true');
    await person.click(row.getByRole('button', { name: 'works' }));
    expect(desk.readings()).toEqual([]);
    // Nothing is lost from the record.
    const record = screen.getByRole('region', { name: /The record/ });
    expect(within(record).getAllByRole('listitem')).toHaveLength(2);
    expect(record.textContent).toMatch(/taken back/);
  });

  it('what works clears what it needs, and what is left is told with what to try next', async () => {
    const { person } = show();
    expect(screen.queryByTestId('left-in-doubt')).toBeNull();
    const press = async (row: RegExp, answer: string) =>
      person.click(within(screen.getByRole('group', { name: row })).getByRole('button', { name: answer }));
    await press(/Y1.*forward/, 'dead');
    expect(screen.getByTestId('left-in-doubt').textContent).toMatch(
      /each could stop all that fails: .*\bY1\b.*tried next: Y2/,
    );
    await press(/Y2.*reverse/, 'works');
    const told = screen.getByTestId('left-in-doubt').textContent!;
    expect(told).toMatch(/Cleared by what works: .*\bF\d+\b.*\./);
    expect(told).not.toMatch(/tried next/);
    await press(/Y2.*reverse/, 'dead');
    expect(screen.getByTestId('left-in-doubt').textContent).not.toMatch(/Cleared/);
  });

  it('the weather is one press, stays with new words, and is taken back by another', async () => {
    const { desk, person } = show();
    const row = within(screen.getByRole('group', { name: 'In what weather' }));
    await person.click(row.getByRole('button', { name: 'Thaw' }));
    expect(desk.last()).toMatchObject({ type: 'complaint', body: { weather: 'thaw' } });
    await person.click(screen.getByRole('button', { name: 'In the wet' }));
    expect(desk.last().body).toMatchObject({ weather: 'thaw', when: ['wet'] });
    await person.click(row.getByRole('button', { name: 'Frost' }));
    expect(row.getByRole('button', { name: 'Frost' }).getAttribute('aria-pressed')).toBe('true');
    await person.click(row.getByRole('button', { name: 'Frost' }));
    expect(desk.last().body).not.toHaveProperty('weather');
    expect(desk.last().body).toMatchObject({ when: ['wet'] });
  });

  it('two directions of one lever are told apart in full', () => {
    show();
    const rows = screen.getAllByRole('group').map((row) => row.getAttribute('aria-label') ?? '');
    expect(new Set(rows).size).toBe(rows.length);
    for (const row of screen.getAllByRole('group', { name: /^[YF]/ }))
      expect(row.textContent).not.toMatch(/…/);
  });

  it('what the driver said can be changed, and left as it was', async () => {
    const { desk, person } = show();
    await person.click(screen.getByRole('button', { name: 'Change' }));
    const field = screen.getByLabelText('In the driver’s words');
    await person.type(field, 'Will not go forward');
    await person.click(screen.getByRole('button', { name: 'Leave as it was' }));
    expect(desk.log.view().entries).toHaveLength(0);
    await person.click(screen.getByRole('button', { name: 'Change' }));
    await person.type(screen.getByLabelText('In the driver’s words'), 'Will not go forward');
    await person.click(screen.getByRole('button', { name: 'Keep it' }));
    await person.click(screen.getByRole('button', { name: 'When hot' }));
    expect(desk.last().body).toEqual({ words: 'Will not go forward', when: ['hot'] });
    await person.click(screen.getByRole('button', { name: 'When hot' }));
    expect(desk.last().body).toEqual({ words: 'Will not go forward', when: [] });
  });

  it('another function that shares parts can be asked about too', async () => {
    const { desk, person } = show({ functions: [{ id: 'f2', name: 'Swing', shares: ['F1'], joins: true }] });
    const others = within(screen.getByLabelText('Other functions of this machine'));
    await person.click(others.getByRole('button', { name: 'Ask about it too' }));
    expect(desk.last()).toMatchObject({ type: 'joined', body: { function: 'Swing' } });
    expect(others.getByText('asked about above')).toBeTruthy();
  });

  it('a code that is typed can be pinned, with where it came from', async () => {
    const { desk, person } = show();
    await person.type(screen.getByLabelText('Codes, in any notation'), 'SPN 523 FMI 5');
    const found = await screen.findByTestId('found-code');
    expect(found.textContent).toMatch(/523/);
    await person.click(within(found).getByRole('button', { name: 'Note it' }));
    expect(desk.last()).toMatchObject({
      type: 'code',
      body: { component: 523, failureMode: 5, via: 'typed', present: true },
    });
  });
});
