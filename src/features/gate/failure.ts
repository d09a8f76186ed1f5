import 'server-only';
import { ZodError } from 'zod';
import { InputError } from '@/core/circuit/inputError';
import { DatabaseAway, NoSuchShed } from '@/db/databaseAway';
import { log } from '../serverLog';

/** Why something was not done, as it is told to whoever asked. */
export interface Failure {
  status: 400 | 401 | 403 | 404 | 413 | 421 | 429 | 500 | 503;
  code:
    | 'bad-input'
    | 'signed-out'
    | 'may-not'
    | 'code-wanted'
    | 'not-found'
    | 'no-shed'
    | 'too-large'
    | 'too-many'
    | 'failed'
    | 'away'
    | 'busy';
  message: string;
  /** When to ask again, seconds. */
  againIn?: number;
}

/** Thrown to answer with a sentence of its own. */
export class Refused extends Error {
  constructor(
    readonly status: Failure['status'],
    readonly code: Failure['code'],
    message: string,
    readonly againIn?: number,
  ) {
    super(message);
    this.name = 'Refused';
  }
}

/** What an error means to whoever asked. One that nobody expected is written to the log, where it can be found again. */
export function failureOf(error: unknown, asked: string): Failure {
  if (error instanceof Refused) {
    const { status, code, message, againIn } = error;
    return { status, code, message, ...(againIn === undefined ? {} : { againIn }) };
  }
  if (error instanceof InputError) return { status: 400, code: 'bad-input', message: `${error.message}.` };
  if (error instanceof ZodError) return { status: 400, code: 'bad-input', message: firstIssue(error) };
  if (error instanceof DatabaseAway) {
    log.warn({ asked, why: error.message }, 'the database does not answer');
    // Where the answer to a commit never came, nobody knows: it is not said that nothing was changed.
    const message = 'The database does not answer. Look whether it was kept, then try again in a moment.';
    return { status: 503, code: 'away', message, againIn: 2 };
  }
  if (error instanceof NoSuchShed)
    return { status: 421, code: 'no-shed', message: 'There is no shed under this name.' };
  log.error({ asked, err: error }, 'failed');
  const message =
    'The server failed at this; its log says why. Look whether it was kept before you try again.';
  return { status: 500, code: 'failed', message };
}

/** The first thing wrong, with the field it is wrong in. */
function firstIssue({ issues }: ZodError): string {
  const issue = issues[0];
  if (!issue) return 'Something is missing.';
  const field = issue.path.map(String).join('.');
  return field === '' ? issue.message : `${field}: ${issue.message}`;
}
