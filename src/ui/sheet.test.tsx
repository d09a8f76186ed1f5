import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { Field, FIELD, Heading, MainKey, PlainKey, Trouble } from './sheet';
import { SheetDialog } from './SheetDialog';

describe('the pieces of every screen', () => {
  it('a field is found by its label, and a key that may not be pressed is not', async () => {
    const pressed = jest.fn();
    render(
      <>
        <Heading aside="2 of 3">Locks</Heading>
        <Field label="Lock number">
          <input className={FIELD} />
        </Field>
        <MainKey disabled onClick={pressed}>
          Sign
        </MainKey>
        <PlainKey aria-pressed onClick={pressed}>
          Again
        </PlainKey>
        <Trouble>Say who takes it.</Trouble>
      </>,
    );
    await userEvent.type(screen.getByLabelText('Lock number'), '21');
    expect((screen.getByLabelText('Lock number') as HTMLInputElement).value).toBe('21');
    await userEvent.click(screen.getByRole('button', { name: 'Sign' }));
    expect(pressed).not.toHaveBeenCalled();
    await userEvent.click(screen.getByRole('button', { name: 'Again', pressed: true }));
    expect(pressed).toHaveBeenCalledTimes(1);
    expect(screen.getByRole('heading', { level: 2 }).textContent).toBe('Locks2 of 3');
    expect(screen.getByRole('alert').textContent).toContain('Say who takes it.');
  });

  it('a sheet laid over the page closes by key and by Escape, and gives the focus back', async () => {
    function Page() {
      const [open, setOpen] = useState(false);
      return (
        <>
          <button onClick={() => setOpen(true)}>Meter</button>
          <SheetDialog open={open} onOpenChange={setOpen} title="Your meter">
            <p>Leads</p>
          </SheetDialog>
        </>
      );
    }
    render(<Page />);
    await userEvent.click(screen.getByRole('button', { name: 'Meter' }));
    expect(screen.getByRole('dialog', { name: 'Your meter' }).textContent).toContain('Leads');
    await userEvent.keyboard('{Escape}');
    expect(screen.queryByRole('dialog')).toBeNull();
    await userEvent.click(screen.getByRole('button', { name: 'Meter' }));
    await userEvent.click(screen.getByRole('button', { name: 'Close' }));
    expect(screen.queryByRole('dialog')).toBeNull();
  });
});
