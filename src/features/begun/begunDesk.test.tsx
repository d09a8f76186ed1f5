import { render, screen } from '@testing-library/react';
import { rememberPerson } from '../offline/personHere';
import { BegunDesk } from './BegunDesk';
import type { BegunJob } from './begunFacts';
import { findBegun } from './begunStore';

jest.mock('./begunStore', () => ({ findBegun: jest.fn(), listBegun: () => Promise.resolve([]) }));
jest.mock('../offline/keepPages', () => ({ listKept: () => Promise.resolve([]) }));
jest.mock('../desk/JobDesk', () => ({
  JobDesk: ({ job, notice }: { job: { number: number }; notice: React.ReactNode }) => (
    <div>
      desk of {job.number} {notice}
    </div>
  ),
}));
jest.mock('next/navigation', () => ({
  useSearchParams: () => new URLSearchParams('job=3&step=test'),
  usePathname: () => '/begun',
  useRouter: () => ({ push: jest.fn() }),
}));
const find = findBegun as unknown as jest.Mock;
const job = (changes: Partial<BegunJob> = {}) =>
  ({
    local: 3,
    title: 'Float dead',
    person: 'Ilse',
    number: null,
    facts: { me: { name: 'Ilse', role: 'technician', licences: [] } },
    ...changes,
  }) as BegunJob;

describe('the desk of a job begun here', () => {
  beforeEach(() => rememberPerson('Ilse'));

  it('is open to who began it, and says when the server has it', async () => {
    find.mockResolvedValueOnce(job()).mockResolvedValue(job({ number: 431 }));
    render(<BegunDesk />);
    expect(await screen.findByText(/desk of -3/)).toBeTruthy();
    const arrived = await screen.findByTestId('arrived', {}, { timeout: 5000 });
    expect(arrived.textContent).toMatch(/it is job 431/);
    expect(arrived.querySelector('a')!.getAttribute('href')).toBe('/jobs/431');
  });

  it.each(['Tove', null])('is shut where %s is signed in: nobody writes in another’s name', async (name) => {
    rememberPerson(name);
    find.mockReset().mockResolvedValue(job());
    render(<BegunDesk />);
    expect((await screen.findByTestId('somebody-elses')).textContent).toMatch(/Ilse began this job here/);
    expect(screen.queryByText(/desk of/)).toBeNull();
  });

  it('says so where there is none', async () => {
    find.mockReset().mockResolvedValue(null);
    render(<BegunDesk />);
    expect(await screen.findByText(/No such job was begun in this browser/)).toBeTruthy();
  });
});
