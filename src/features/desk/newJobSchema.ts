import { z } from 'zod';

/** What the form of a new job says. */
/** The writer's own clock and id: what is sent twice, because nobody heard the answer, is one job. */
const opened = { id: z.uuid(), openedAt: z.iso.datetime() };

const title = z
  .string()
  .trim()
  .min(3, 'Say in a few words what fails.')
  .max(200, 'What fails: say it in 200 characters.');

export const newJobSchema = z.object({
  ...opened,
  functionId: z.uuid('Choose the machine and function.'),
  title,
  words: z.string().trim().max(2000, 'The driver’s words: 2,000 characters at most.'),
  /** By what can be tried on the function: "0-Y1". */
  answers: z.record(z.string().max(100), z.enum(['works', 'weak', 'dead', 'not tried'])).default({}),
});
export type NewJob = z.input<typeof newJobSchema>;

/** A job that was begun without the server. */
export const begunJobSchema = z.object({
  ...opened,
  title,
  functionId: z.uuid(),
  /** Of the drawing that was worked by. */
  functionVersion: z.int().min(1),
  /** The sender's clock as it sent it. */
  sentAt: z.iso.datetime(),
});
