import { z } from 'zod';

/** A shop's own figures over the practice columns of the reference tables, by "table|row|column". */
export const rulesSchema = z.record(z.string().max(120), z.number().min(0).max(1e9));
export type ShopRules = z.infer<typeof rulesSchema>;
