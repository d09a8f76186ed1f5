import { z } from 'zod';

/** How far a lead's own factor may go either way. */
export const LEAST_OWN = 0.01;
export const MOST_OWN = 100;

/** What the lead has settled: whether the shed's own odds are used at all, and factors that stand in place of learnt ones. */
export const ownOddsSchema = z.object({
  learn: z.boolean().default(true),
  own: z
    .record(
      z.string().max(80),
      z
        .number()
        .min(LEAST_OWN, `is under ${LEAST_OWN}; a factor goes from ${LEAST_OWN} to ${MOST_OWN}`)
        .max(MOST_OWN, `is over ${MOST_OWN}; a factor goes from ${LEAST_OWN} to ${MOST_OWN}`),
    )
    .default({}),
});
export type OwnOdds = z.infer<typeof ownOddsSchema>;
