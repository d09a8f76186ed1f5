import { render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { settlePolicy } from './actions';
import { USUAL_POLICY } from './policy';
import { PolicyForm } from './PolicyForm';

jest.mock('./actions', () => ({ settlePolicy: jest.fn() }));
const settle = settlePolicy as jest.Mock;
const policy = { ...USUAL_POLICY, timeZone: 'UTC' };

function show() {
  settle.mockReset().mockResolvedValue({ trouble: null });
  render(<PolicyForm policy={policy} by={null} zones={['UTC', 'Europe/Vienna']} />);
  return userEvent.setup();
}
const keep = () => screen.getByRole<HTMLButtonElement>('button', { name: /Settle|Keep/ });

describe('the site’s policy', () => {
  it('is settled with what was chosen', async () => {
    const person = show();
    expect(screen.getByText('nobody has settled it yet')).toBeTruthy();
    const jumpers = within(screen.getByRole('group', { name: /Contacts bridged/ }));
    await person.click(jumpers.getByRole('button', { name: 'Allowed' }));
    expect(jumpers.getByRole('button', { name: 'Allowed' }).getAttribute('aria-pressed')).toBe('true');
    await person.selectOptions(screen.getByLabelText('Which test comes first'), 'resistanceFirst');
    const shed = screen.getByLabelText('Name of the shed');
    await person.clear(shed);
    await person.type(shed, 'Ostrel shed');
    await person.click(keep());
    expect(settle).toHaveBeenCalledWith({
      ...policy,
      jumpers: true,
      order: 'resistanceFirst',
      shedName: 'Ostrel shed',
    });
    expect(screen.queryByRole('alert')).toBeNull();
  });

  it('a rate that is no figure goes as it was typed, and the server’s sentence stands there', async () => {
    const person = show();
    settle.mockResolvedValueOnce({ trouble: 'Shop rate: “sixty” is no figure. Type one, as 60.' });
    const rate = screen.getByLabelText<HTMLInputElement>('Shop rate an hour');
    await person.clear(rate);
    await person.type(rate, 'sixty');
    await person.click(keep());
    expect(settle.mock.calls[0][0]).toMatchObject({ shopRate: 'sixty' });
    expect((await screen.findByRole('alert')).textContent).toMatch(/“sixty” is no figure/);
    expect(rate.value).toBe('sixty');
  });
});
