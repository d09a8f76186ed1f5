import { z } from 'zod';
import { id, text } from '../gate/fields';

/** Which functions a failure mode may be about. */
export const candidateQuestion = z.object({
  machineId: id,
  mode: z.number().int().min(0).max(31),
  /** Lines of the book for this code: function and driver, either may be empty. */
  links: z.array(z.object({ function: text(160), part: text(60) })).max(50),
});
