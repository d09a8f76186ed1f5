import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { entryWriter } from '@/core/testing/entryWriter';
import type { OpenLog } from './log/useJobLog';
import { SaveStrip } from './SaveStrip';

const entry = entryWriter();
const strip = (more: Partial<OpenLog>) =>
  render(
    <SaveStrip
      here="/jobs/7"
      person="Ilse"
      log={
        {
          waiting: [],
          aside: [],
          online: true,
          unkept: false,
          others: new Map(),
          signedOut: false,
          mend: jest.fn(),
          drop: jest.fn(),
          ...more,
        } as unknown as OpenLog
      }
    />,
  );

describe('what waits for the server', () => {
  it('says nothing while nothing waits', () => {
    expect(strip({}).container.textContent).toBe('');
  });

  it('counts what is kept here while the server is away', () => {
    strip({ online: false, waiting: [entry('complaint', { words: 'x' })] });
    expect(screen.getByTestId('offline').textContent).toMatch(/Kept on this device. 1 entry will send/);
  });

  it('says when the browser keeps nothing', () => {
    strip({ online: false, unkept: true, waiting: [entry('complaint', { words: 'x' })] });
    expect(screen.getByTestId('unkept').textContent).toMatch(/cannot keep/);
    expect(screen.getByTestId('offline').textContent).toMatch(/Kept on this page/);
  });

  it('an entry that was refused stands with its reason, to be written again or let go', async () => {
    const [mend, drop] = [jest.fn(), jest.fn()];
    const refused = entry('isolation', {
      point: 'G1',
      energy: 'battery',
      how: '',
      lock: '1',
      tag: '1',
      released: '',
    });
    strip({
      mend,
      drop,
      aside: [{ entry: refused, order: 1, refused: { code: 'moved', message: 'The job has moved since.' } }],
    });
    expect(screen.getByTestId('aside').textContent).toMatch(/a lock put on G1: The job has moved since/);
    await userEvent.click(screen.getByRole('button', { name: 'Write it again' }));
    await userEvent.click(screen.getByRole('button', { name: 'Let it go' }));
    expect(mend).toHaveBeenCalledWith(refused.id);
    expect(drop).toHaveBeenCalledWith(refused.id);
  });

  it('says whose entries wait for their writer, and that nobody is signed in any more', () => {
    const { container } = strip({
      others: new Map([
        ['Ilse', 1],
        ['Rasmus', 3],
      ]),
      signedOut: true,
      waiting: [entry('complaint', { words: 'dead' })],
    });
    expect(container.textContent).toContain(
      '1 entry of Ilse waits on this device, and will send when Ilse signs in here.',
    );
    expect(container.textContent).toContain('3 entries of Rasmus wait');
    expect(screen.getByTestId('signed-out').textContent).toContain('1 entry is kept on this device.');
    expect(screen.getByRole('link', { name: 'Sign in' }).getAttribute('href')).toBe(
      '/sign-in?to=%2Fjobs%2F7',
    );
  });
});
