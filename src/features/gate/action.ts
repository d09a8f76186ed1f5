import 'server-only';
import { unstable_rethrow } from 'next/navigation';
import type { z } from 'zod';
import { failureOf } from './failure';

/** Why a page's wish was not done. */
export interface Trouble {
  trouble: string;
  field?: string;
}

/**
 * What a page may ask of the server. All that comes in goes through here: the arguments are judged by a schema, whatever
 * a browser was made to send, and every failure goes back as data with a sentence. Who may ask for it will be judged here too.
 */
export function action<A extends z.ZodTuple, R>(
  name: string,
  args: A,
  work: (...args: z.output<A>) => Promise<R>,
): (...given: z.input<A>) => Promise<R | Trouble> {
  const run = async (...given: z.input<A>): Promise<R | Trouble> => {
    try {
      const parsed = args.safeParse(given);
      if (!parsed.success) {
        const issue = parsed.error.issues[0]!;
        const field = issue.path.slice(1).map(String).join('.');
        return { trouble: issue.message, ...(field ? { field } : {}) };
      }
      return await work(...parsed.data);
    } catch (error) {
      // A redirect is how a page is left, no failure.
      unstable_rethrow(error);
      return { trouble: failureOf(error, name).message };
    }
  };
  known.set(run, args);
  return run;
}

const known = new WeakMap<object, z.ZodTuple>();

/** What an action takes: for tests that send it everything else. */
export function argsOf(run: object): z.ZodTuple | undefined {
  return known.get(run);
}
