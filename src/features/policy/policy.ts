import { z } from 'zod';
import { preferencesSchema } from '@/core/circuit/schema';

/** What the site allows and how it likes to work. A shop rule, never law. */
export const policySchema = z.object({
  order: preferencesSchema.shape.order.unwrap().default('best'),
  /** Contacts may be bridged for a moment, never those that guard a person or a limit. */
  jumpers: z.boolean().default(false),
  /** Readings on a live run are allowed at all. */
  liveWork: z.boolean().default(true),
  /** Cost of an hour, for repair or replace. */
  shopRate: z.number().min(0).max(10_000).default(60),
});
export type Policy = z.infer<typeof policySchema>;

export const USUAL_POLICY: Policy = policySchema.parse({});
