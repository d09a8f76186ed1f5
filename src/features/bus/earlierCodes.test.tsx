import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { BUS_OFF } from './useBus';
import { EarlierCodes } from './EarlierCodes';

const heard = { ...BUS_OFF, adapter: 'Bridge', lost: null };
const code = {
  system: 'J1939' as const,
  component: 520214,
  failureMode: 5,
  text: 'current below normal',
  sourceAddress: 33,
  since: 1,
};

describe('codes of before', () => {
  it('are asked for by one press, and stand there once somebody answered', async () => {
    const ask = jest.fn(() => Promise.resolve(null));
    const { rerender } = render(<EarlierCodes bus={heard} book={[]} ask={ask} />);
    expect(screen.getByText(/It clears nothing and moves nothing/)).toBeTruthy();
    await userEvent.click(screen.getByRole('button', { name: 'Ask for codes of before' }));
    expect(ask).toHaveBeenCalledWith('earlier');
    expect(screen.getByRole('button', { name: 'Asked, waiting' })).toHaveProperty('disabled', true);
    rerender(<EarlierCodes bus={{ ...heard, earlier: [code] }} book={[]} ask={ask} />);
    expect(screen.getByTestId('live-code').textContent).toMatch(/520214.*current below normal/);
    rerender(<EarlierCodes bus={{ ...heard, earlier: [] }} book={[]} ask={ask} />);
    expect(screen.getByText('No code of before is kept there.')).toBeTruthy();
  });

  it('are not asked for on a bus that is lost; what stands in the way is said', async () => {
    const { rerender } = render(<EarlierCodes bus={BUS_OFF} book={[]} ask={jest.fn()} />);
    expect(screen.getByRole('button')).toHaveProperty('disabled', true);
    const ask = jest.fn(() => Promise.resolve('The server does not answer: nothing was asked.'));
    rerender(<EarlierCodes bus={heard} book={[]} ask={ask} />);
    await userEvent.click(screen.getByRole('button'));
    expect(screen.getByText(/nothing was asked/)).toBeTruthy();
    expect(screen.getByRole('button')).toHaveProperty('disabled', false);
  });
});
