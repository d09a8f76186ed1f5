import { render, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { NewJob } from './newJobSchema';
import { NewJobForm } from './NewJobForm';
import { openNewJob } from './actions';
import { beginHere } from '../begun/beginHere';

jest.mock('./actions', () => ({ openNewJob: jest.fn() }));
const open = openNewJob as unknown as jest.Mock;
const functions = [
  { id: 'f1', machine: 'G-1 Groomer OR-201', name: 'Tiller float' },
  { id: 'f2', machine: 'G-2 Groomer OR-202', name: 'Blade tilt' },
];
const trials = [{ key: 'Y7', label: 'Y7 tilt left coil', position: 'tilt left' }];

function show(more: Partial<Parameters<typeof NewJobForm>[0]> = {}) {
  open.mockReset().mockImplementation((said: NewJob) => {
    sent = said;
    return Promise.resolve({ trouble: 'Say in a few words what fails.', field: 'title' });
  });
  Object.assign(globalThis, {
    fetch: jest.fn(() => Promise.resolve({ json: () => Promise.resolve({ trials }) })),
  });
  render(<NewJobForm functions={functions} total={2} trials={[]} {...more} />);
  return userEvent.setup();
}
let sent: NewJob | null = null;

jest.mock('../begun/beginHere', () => ({ beginHere: jest.fn() }));
const begin = beginHere as unknown as jest.Mock;

describe('a new job', () => {
  it('begins on no machine until one is chosen, and asks then what works on it', async () => {
    const person = show();
    const choice = screen.getByLabelText<HTMLSelectElement>('Machine and function');
    expect(choice.value).toBe('');
    expect(screen.queryByRole('radiogroup')).toBeNull();
    await person.selectOptions(choice, 'f2');
    expect(await screen.findByRole('radiogroup', { name: 'Y7 tilt left coil, tilt left' })).toBeTruthy();
  });

  it('cannot be opened while what can be tried is looked up, for the list moves its key', async () => {
    const person = show();
    let answer: (response: object) => void = () => undefined;
    Object.assign(globalThis, { fetch: jest.fn(() => new Promise((done) => (answer = done))) });
    await person.selectOptions(screen.getByLabelText('Machine and function'), 'f2');
    const key = screen.getByRole<HTMLButtonElement>('button', { name: 'Open the job' });
    expect(key.disabled).toBe(true);
    // A server that knows nothing of it does not keep the job from being opened.
    answer({ json: () => Promise.resolve({}) });
    await waitFor(() => expect(key.disabled).toBe(false));
  });

  it('comes with the function it was called for', () => {
    show({ wanted: 'f2', trials });
    expect(screen.getByLabelText<HTMLSelectElement>('Machine and function').value).toBe('f2');
    expect(screen.getByRole('radiogroup')).toBeTruthy();
  });

  it('sends what was said, and keeps it where the server refuses it', async () => {
    const person = show({ wanted: 'f2', trials });
    await person.type(screen.getByLabelText('What fails'), 'T');
    await person.click(screen.getByRole('radio', { name: 'dead' }));
    await person.click(screen.getByRole('button', { name: 'Open the job' }));
    expect(sent).toMatchObject({ functionId: 'f2', title: 'T', answers: { Y7: 'dead' } });
    expect((await screen.findByRole('alert')).textContent).toMatch(/Say in a few words what fails/);
    const title = screen.getByLabelText<HTMLInputElement>('What fails');
    expect(title.value).toBe('T');
    expect(title.getAttribute('aria-invalid')).toBe('true');
  });

  it('what was said of one function is not said of another, and a silent server loses nothing', async () => {
    const person = show({ wanted: 'f2', trials });
    await person.click(screen.getByRole('radio', { name: 'dead' }));
    await person.selectOptions(screen.getByLabelText('Machine and function'), 'f1');
    await screen.findByRole('radiogroup');
    await person.type(screen.getByLabelText('What fails'), 'Float lets go');
    open.mockRejectedValueOnce(new Error('away'));
    await person.click(screen.getByRole('button', { name: 'Open the job' }));
    expect((await screen.findByRole('alert')).textContent).toMatch(/The server does not answer/);
    expect(screen.getByLabelText<HTMLInputElement>('What fails').value).toBe('Float lets go');
    await person.click(await screen.findByRole('button', { name: 'Open the job' }));
    await waitFor(() => expect(open).toHaveBeenCalledTimes(2));
    // The server may have heard the first and nobody its answer: it is the same job.
    const [[first], [second]] = open.mock.calls as [NewJob][] as [[NewJob], [NewJob]];
    expect([second.id, second.openedAt]).toEqual([first.id, first.openedAt]);
    expect(sent).toMatchObject({ functionId: 'f1', title: 'Float lets go', answers: { Y7: 'not tried' } });
  });

  it.each(['silent', 'without its database'])(
    'is offered to be begun here where the server is %s, under the id that was sent, and says why it cannot be',
    async (how) => {
      const person = show({ wanted: 'f2', trials });
      await person.type(screen.getByLabelText('What fails'), 'Float lets go');
      expect(screen.queryByRole('button', { name: 'Begin it here' })).toBeNull();
      // Silent altogether, or there with nothing behind it.
      if (how === 'silent') open.mockRejectedValueOnce(new Error('away'));
      else open.mockResolvedValueOnce({ trouble: 'The database does not answer.', away: true });
      await person.click(screen.getByRole('button', { name: 'Open the job' }));
      begin.mockResolvedValueOnce({
        trouble: 'What a job on this function needs is not kept on this device.',
      });
      const begins = await screen.findByRole<HTMLButtonElement>('button', { name: 'Begin it here' });
      // While the server is still asked nothing is begun.
      await waitFor(() => expect(begins.disabled).toBe(false));
      await person.click(begins);
      await waitFor(() => expect(screen.getByRole('alert').textContent).toMatch(/not kept on this device/));
      const [job] = begin.mock.lastCall as [NewJob];
      expect(job).toMatchObject({ functionId: 'f2', title: 'Float lets go' });
      expect(job.id).toBe((open.mock.lastCall as [NewJob])[0].id);
      expect(screen.getByLabelText<HTMLInputElement>('What fails').value).toBe('Float lets go');
    },
  );
});
