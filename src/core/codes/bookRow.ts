import { z } from 'zod';
import { FAILURE_MODES } from './failureModes';
import { BOOK_SYSTEMS } from './bookSystems';

/** One line of a machine's code book. Empty text is "not known". */
export const bookRowSchema = z.object({
  system: z.enum(BOOK_SYSTEMS),
  /** Component number, five characters, or a blink pattern such as "2-3". */
  code: z.string().trim().min(1).max(20),
  /** The code's own mode, where the line holds for that one only. */
  mode: z.string().trim().max(10).default(''),
  /** The failure mode (0 to 31) that the code amounts to, where its own mode does not say. */
  means: z
    .number()
    .int()
    .min(0)
    .max(FAILURE_MODES.length - 1)
    .nullable()
    .default(null),
  text: z.string().trim().max(300).default(''),
  /** Name of the machine's function. */
  function: z.string().trim().max(160).default(''),
  /** Driver of that function's circuit that sets it. */
  part: z.string().trim().max(60).default(''),
  sheet: z.string().trim().max(60).default(''),
  note: z.string().trim().max(1000).default(''),
});
export type BookRow = z.infer<typeof bookRowSchema>;
