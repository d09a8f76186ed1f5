import { samePerson } from '@/core/people/roles';
import { askStatus } from '../askServer';
import type { LogTransport } from '../desk/log/JobLog';
import { httpTransport } from '../desk/log/transport';
import { findBegun, numberBegun } from './begunStore';

/** How often it is looked whether the server has the job by now. */
const LOOK_MS = 2000;

/** What the server says to a job that was opened without it. */
type Opening = { number: number } | 'signedOut' | null | { refused: string; code: string };

/**
 * Opens a job at the server that was begun here, under the id that it has here: asked twice it is opened once. Rejects where
 * the server is away.
 */
async function openAtServer(local: number): Promise<Opening> {
  const job = await findBegun(local);
  if (!job)
    return { code: 'no-job', refused: 'This browser does not know the job any more that this is of.' };
  if (job.number !== null) return { number: job.number };
  const session = await askStatus<{ name?: string }>('/api/session');
  if (session.status === 401) return 'signedOut';
  // It is opened in the name of who began it, and of nobody else.
  if (session.answer?.name !== undefined && !samePerson(session.answer.name, job.person)) return 'signedOut';
  const { id, title, openedAt, facts } = job;
  const { status, answer } = await askStatus<{ number?: number; message?: string; code?: string }>(
    '/api/jobs',
    {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({
        id,
        title,
        openedAt,
        functionId: facts.functionId,
        functionVersion: facts.openedOnVersion,
        sentAt: new Date().toISOString(),
      }),
    },
  );
  if (status === 200 && answer?.number !== undefined) {
    // A browser that cannot write it down asks again, and is given the same one.
    await numberBegun(local, answer.number).catch(() => undefined);
    return { number: answer.number };
  }
  if (status === 401) return 'signedOut';
  if (status < 400 || status >= 500 || status === 429) return null;
  return {
    code: answer?.code ?? String(status),
    refused: answer?.message ?? `The server refused it (${status}).`,
  };
}

/** The way to the server of a job that was begun without it: the job goes first, then what was written. */
export function begunTransport(local: number): LogTransport {
  return {
    async send(entries) {
      const opened = await openAtServer(local);
      if (opened === null || opened === 'signedOut') return opened;
      if ('number' in opened) return httpTransport(opened.number).send(entries);
      const { code, refused: message } = opened;
      return {
        added: 0,
        results: entries.map(({ id }) => ({ id, state: 'refused' as const, code, message })),
      };
    },
    upload: (picture) => httpTransport(0).upload(picture),
    follow(after, on) {
      let stop: () => void = () => undefined;
      let left = false;
      // Until it is there nobody else knows of it, and there is nothing to follow.
      const look = async () => {
        const number = (await findBegun(local))?.number ?? null;
        if (left || number === null) return;
        clearInterval(timer);
        stop = httpTransport(number).follow(after, on);
      };
      const timer = setInterval(() => void look(), LOOK_MS);
      void look();
      return () => {
        left = true;
        clearInterval(timer);
        stop();
      };
    },
  };
}
