import { render, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { Entry } from '@/core/job/entries';
import { entryWriter } from '@/core/testing/entryWriter';
import { somebody } from '@/core/testing/signedAs';
import { contactorTwoSupplies } from '@/core/templates/line';
import { askServer } from '../askServer';
import { useDesk } from '../desk/desk';
import { openDesk } from '../desk/testing/openDesk';
import { LockLine } from './LockLine';

jest.mock('../askServer', () => ({ ...jest.requireActual<object>('../askServer'), askServer: jest.fn() }));
jest.mock('../desk/desk', () => ({ useDesk: jest.fn() }));
const lock = (person: string) =>
  entryWriter(person)('isolation', {
    point: 'G1',
    energy: 'line',
    how: '',
    lock: '31',
    tag: '',
    released: '',
  }) as Extract<Entry, { type: 'isolation' }>;

function show(owner: string, me = somebody()) {
  const on = lock(owner);
  const desk = openDesk(contactorTwoSupplies(), [on], {
    me,
    people: [me, somebody('Ilse'), somebody('Rasmus'), somebody('Jorin', { role: 'learner' })],
  });
  (useDesk as unknown as jest.Mock).mockImplementation(desk.useDesk);
  render(<LockLine lock={on} next reason={null} />);
  return desk;
}

describe('a lock that is on', () => {
  it('its owner takes off, with a reason', async () => {
    const person = userEvent.setup();
    const desk = show('Tove');
    const off = screen.getByRole<HTMLButtonElement>('button', { name: 'Open this point' });
    expect(off.disabled).toBe(true);
    await person.type(screen.getByLabelText('Opened again, because'), 'volts at K1');
    await person.click(off);
    expect(desk.last()).toMatchObject({ type: 'reopened', body: { point: 'G1', reason: 'volts at K1' } });
    expect(desk.log.view().state.isolated.size).toBe(0);
  });

  it('another technician does not', () => {
    show('Ilse');
    expect(screen.queryByRole('button')).toBeNull();
    expect(screen.getByText('Ilse takes it off, or a lead with a second person.')).toBeTruthy();
  });

  it('a lead does where its owner is gone, with a reason and beside a second person who is no learner', async () => {
    const person = userEvent.setup();
    const desk = show('Ilse', somebody('Tove', { role: 'lead' }));
    await person.click(screen.getByRole('button', { name: 'Ilse is gone' }));
    const names = screen.getByLabelText<HTMLSelectElement>('Stands by');
    expect([...names.options].map(({ text }) => text)).toEqual(['choose', 'Rasmus']);
    await person.selectOptions(names, 'Rasmus');
    await person.type(screen.getByLabelText('Their PIN'), '3190');
    const off = screen.getByRole<HTMLButtonElement>('button', { name: 'Take the lock off' });
    expect(off.disabled).toBe(true);
    await person.type(screen.getByLabelText('Why somebody else takes it off'), 'rung up');
    (askServer as unknown as jest.Mock).mockResolvedValueOnce({
      witness: '01900000-0000-7000-8000-0000000000ff',
      name: 'Rasmus',
    });
    await person.click(off);
    await waitFor(() =>
      expect(desk.last()).toMatchObject({
        type: 'reopened',
        witness: '01900000-0000-7000-8000-0000000000ff',
        body: { point: 'G1', reason: 'rung up', owner: 'Ilse', second: 'Rasmus' },
      }),
    );
  });
});
