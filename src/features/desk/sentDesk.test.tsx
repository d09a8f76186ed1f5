import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { JobFacts } from './desk';
import { readLongLog } from './log/longLog';
import { MOST_IN_PAGE } from './log/protocol';
import { SentDesk } from './SentDesk';
import { sentJob } from './sentJob';

jest.mock('./log/longLog', () => ({ readLongLog: jest.fn() }));
jest.mock('./JobDesk', () => ({
  JobDesk: ({ job }: { job: JobFacts }) => (
    <p>
      desk of {job.number}, drawing {job.openedOnVersion}, {job.stored.length} entries
    </p>
  ),
}));
const read = readLongLog as unknown as jest.Mock;

const log = (length: number) => Array.from({ length }, (_, at) => ({ number: at + 1 }));
const facts = (entries: number, changes: Partial<JobFacts> = {}) =>
  sentJob({
    number: 412,
    title: 'Blower dead',
    machineCode: 'W-2',
    openedOnVersion: 1,
    past: { windings: [] },
    stored: log(entries),
    ...changes,
  } as unknown as JobFacts);

describe('the desk of a job that came with its page', () => {
  beforeEach(() => read.mockReset());

  it('is there at once with a log of usual length', () => {
    render(<SentDesk job={facts(12)} />);
    expect(screen.getByText('desk of 412, drawing 1, 12 entries')).toBeTruthy();
    expect(read).not.toHaveBeenCalled();
  });

  it('shows nothing as known before all of a long log is here', async () => {
    let finish: (entries: object[]) => void = () => undefined;
    read.mockImplementation((_number: number, came: (entries: number) => void) => {
      came(400);
      return new Promise((resolve) => (finish = resolve));
    });
    render(<SentDesk job={facts(MOST_IN_PAGE + 1)} />);
    expect((await screen.findByRole('status')).textContent).toBe(
      'Reading the log: 400 of 501 entries are here.',
    );
    expect(screen.queryByText(/desk of/)).toBeNull();
    finish(log(MOST_IN_PAGE + 1));
    expect(await screen.findByText('desk of 412, drawing 1, 501 entries')).toBeTruthy();
  });

  it('goes on with what it shows while the page is read again, and then with all that is new', async () => {
    read.mockResolvedValueOnce(log(600));
    const { rerender } = render(<SentDesk job={facts(600)} />);
    await screen.findByText('desk of 412, drawing 1, 600 entries');
    let finish: (entries: object[]) => void = () => undefined;
    read.mockReturnValueOnce(new Promise((resolve) => (finish = resolve)));
    rerender(<SentDesk job={facts(601, { openedOnVersion: 2 })} />);
    expect(screen.getByText('desk of 412, drawing 1, 600 entries')).toBeTruthy();
    finish(log(601));
    expect(await screen.findByText('desk of 412, drawing 2, 601 entries')).toBeTruthy();
  });

  it('says why it does not come, and tries again', async () => {
    read.mockRejectedValueOnce(new Error('The server does not answer.')).mockResolvedValueOnce(log(600));
    render(<SentDesk job={facts(600)} />);
    expect(await screen.findByText(/The server does not answer\. The log of this job is long/)).toBeTruthy();
    await userEvent.click(screen.getByRole('button', { name: 'Try again' }));
    expect(await screen.findByText(/600 entries/)).toBeTruthy();
  });
});
