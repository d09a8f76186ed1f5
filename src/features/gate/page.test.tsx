import { render, screen } from '@testing-library/react';
import type { ReactNode } from 'react';
import { DatabaseAway } from '@/db/databaseAway';
import { signedFor } from '../people/testing/signedFor';
import { Refused } from './failure';
import { page, titled } from './page';

jest.mock('../serverLog', () => ({ log: { warn: jest.fn(), error: jest.fn() } }));
jest.mock('next/headers', () => ({
  cookies: () => Promise.resolve({ get: () => undefined }),
  headers: () => Promise.resolve(new Headers({ 'x-path': '/jobs/416/report' })),
}));
jest.mock('next/navigation', () => ({ redirect: jest.fn(), usePathname: () => '/', useRouter: () => ({}) }));
jest.mock('../people/session', () => ({ signedIn: () => Promise.resolve(signedFor()) }));
jest.mock('./who', () => ({ judged: () => Promise.resolve() }));

const made = (make: () => ReactNode | Promise<ReactNode>) => page('look', make)({});

it('a page that the server could not make says why, and is asked for again', async () => {
  const busy = new Refused(503, 'busy', 'The server has its hands full.', 5);
  render(<>{await made(() => Promise.reject(busy))}</>);
  screen.getByRole('heading', { level: 1, name: 'Not made' });
  screen.getByText('The server has its hands full.');
  expect(screen.getByRole('link', { name: 'Ask again' }).getAttribute('href')).toBe('/jobs/416/report');
});

it('what nobody expected is not hushed up', async () => {
  const away = new DatabaseAway('a statement: nothing for 2.3 s');
  await expect(made(() => Promise.reject(away))).rejects.toBe(away);
});

it('a title waits for no database that was silent a moment ago', async () => {
  jest.useFakeTimers({ now: Date.now() + 60_000 });
  try {
    const make = jest.fn(() => Promise.resolve({ title: 'G-2' }));
    const title = titled(make);
    expect(await title({})).toEqual({ title: 'G-2' });
    const away = new DatabaseAway('a statement: nothing for 2.3 s');
    expect([away.name, await title({})]).toEqual(['DatabaseAway', {}]);
    expect(make).toHaveBeenCalledTimes(1);
    jest.advanceTimersByTime(3000);
    expect(await title({})).toEqual({ title: 'G-2' });
  } finally {
    jest.useRealTimers();
  }
});
