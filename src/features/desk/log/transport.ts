import { askStatus } from '@/features/askServer';
import { followEvents } from '@/features/events';
import type { Entry } from '@/core/job/entries';
import type { EntryRefusal } from '@/core/job/rules/mayAppend';
import { keepPhoto } from '@/features/keepPhoto';
import type { LogTransport } from './JobLog';
import type { SendAnswer, SendRequest, SentEntry } from './protocol';

/** What a server says to an entry in the name of somebody who is not signed in. */
const NOT_YOUR_NAME: EntryRefusal['code'] = 'notYourName';

/** The way to the server over its route handlers and server-sent events. */
export function httpTransport(jobNumber: number): LogTransport {
  return {
    async send(entries: readonly Entry[]) {
      const request: SendRequest = { entries, sentAt: new Date().toISOString() };
      const { status, answer } = await askStatus<Partial<SendAnswer> & { message?: string }>(
        `/api/jobs/${jobNumber}/entries`,
        {
          method: 'POST',
          headers: { 'content-type': 'application/json' },
          body: JSON.stringify(request),
        },
      );
      const results = answer?.results;
      // Somebody else has signed in beside this page: what is written here waits for whoever wrote it.
      if (status === 401 || results?.some((one) => 'code' in one && one.code === NOT_YOUR_NAME))
        return 'signedOut';
      if (results) return { added: answer?.added ?? 0, results };
      if (status < 400 || status >= 500 || status === 429) return null;
      // A refusal of the request as a whole: each entry is told so, none is lost.
      const message = answer?.message ?? `The server refused it (${status}).`;
      return {
        added: 0,
        results: entries.map(({ id }) => ({ id, state: 'refused', code: String(status), message })),
      };
    },
    async upload(picture) {
      const answer = await keepPhoto(picture, 'The picture');
      if ('trouble' in answer && answer.away) throw new Error(answer.trouble);
      return answer;
    },
    follow: (after, on) =>
      followEvents<SentEntry[]>(() => `/api/jobs/${jobNumber}/events?after=${after()}`, {
        message: on.entries,
        lost: on.lost,
        signedOut: on.signedOut,
      }),
  };
}
