import { z } from 'zod';

/** What the form of a new job says. */
export const newJobSchema = z.object({
  functionId: z.uuid('Choose the machine and function.'),
  title: z
    .string()
    .trim()
    .min(3, 'Say in a few words what fails.')
    .max(200, 'What fails: say it in 200 characters.'),
  words: z.string().trim().max(2000, 'The driver’s words: 2,000 characters at most.'),
  /** By what can be tried on the function: "0-Y1". */
  answers: z.record(z.string().max(100), z.enum(['works', 'weak', 'dead', 'not tried'])).default({}),
});
export type NewJob = z.input<typeof newJobSchema>;
