import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { ShedSilent } from './ShedSilent';

it('a piece that could not be made says what may be wrong, that nothing is lost, and is asked for again', async () => {
  const again = jest.fn();
  render(<ShedSilent again={again} />);
  screen.getByRole('heading', { level: 1, name: 'The shed does not answer' });
  screen.getByText(/Entries made on this device are kept and will be sent/);
  expect(again).not.toHaveBeenCalled();
  await userEvent.click(screen.getByRole('button', { name: 'Try again' }));
  expect(again).toHaveBeenCalledTimes(1);
});
