import { z } from 'zod';

/** A shop's own figures over the practice columns of the reference tables, by "table|row|column", and for one class of equipment with its name behind. */
export const rulesSchema = z.record(z.string().max(200), z.number().min(0).max(1e9));
export type ShopRules = z.infer<typeof rulesSchema>;
