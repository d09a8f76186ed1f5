import 'server-only';
import { cookies, headers } from 'next/headers';
import { unstable_rethrow } from 'next/navigation';
import type { z } from 'zod';
import type { Deed } from '@/core/people/roles';
import type { Signed } from '../people/session';
import { askingOf, whileAsking } from './asking';
import { metrics } from '../metrics';
import { failureOf } from './failure';
import { whoMay } from './who';
import { wishRead } from './wish';

/** Why a page's wish was not done. */
export interface Trouble {
  trouble: string;
  field?: string;
  /** Nobody is signed in any more. */
  signedOut?: true;
  /** The server answers, and what it keeps things in does not: nothing is wrong with the wish. */
  away?: true;
}

/**
 * What a page may ask of the server. All that comes in goes through here: who asks, and whether they may; the arguments are
 * judged by a schema, whatever a browser was made to send; and every failure goes back as data with a sentence.
 */
export function action<A extends z.ZodTuple, R>(
  name: string,
  deed: Deed,
  args: A,
  work: (who: Signed, ...args: z.output<A>) => Promise<R>,
): (...given: z.input<A>) => Promise<R | Trouble> {
  const run = async (...given: z.input<A>): Promise<R | Trouble> => {
    wishRead();
    const from = await headers();
    const header = (one: string) => from.get(one);
    return whileAsking(askingOf(header, null), async () => {
      const asked = `action ${name}`;
      const took = metrics.seconds.startTimer({ asked });
      let ended = 'done';
      try {
        const who = await whoMay(deed, await cookies(), name);
        const parsed = args.safeParse(given);
        if (!parsed.success) {
          const issue = parsed.error.issues[0]!;
          const field = issue.path.slice(1).map(String).join('.');
          return { trouble: issue.message, ...(field ? { field } : {}) };
        }
        const { data } = parsed;
        return await whileAsking(askingOf(header, who.name), () => work(who, ...data));
      } catch (error) {
        // A redirect is how a page is left, no failure.
        unstable_rethrow(error);
        const { code, message, status } = failureOf(error, name);
        ended = String(status);
        return {
          trouble: message,
          ...(code === 'signed-out' ? { signedOut: true } : {}),
          ...(code === 'away' ? { away: true } : {}),
        };
      } finally {
        took();
        metrics.answers.inc({ asked, ended });
      }
    });
  };
  known.set(run, { args, deed });
  return run;
}

/** Work to which it is all the same who of those that may asks for it. */
export function whoever<A extends unknown[], R>(
  work: (...args: A) => Promise<R>,
): (who: Signed, ...args: A) => Promise<R> {
  return (_who, ...args) => work(...args);
}

const known = new WeakMap<object, { args: z.ZodTuple; deed: Deed }>();

/** What an action takes, and what one has to be for it: for tests that send it everything else, as everybody. */
export function actionFacts(run: object): { args: z.ZodTuple; deed: Deed } | undefined {
  return known.get(run);
}
