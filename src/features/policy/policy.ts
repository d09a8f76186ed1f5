import { z } from 'zod';
import { preferencesSchema } from '@/core/circuit/schema';
import { INSULATION_PASSES } from '@/core/tables/insulationPass';
import { GAUGE_UNITS } from '@/core/units/quantities';
import { isTimeZone } from '@/core/units/siteTime';

/** What the site allows and how it likes to work. A shop rule, never law. */
export const policySchema = z.object({
  order: preferencesSchema.shape.order.unwrap().default('best'),
  /** Contacts may be bridged for a moment, never those that guard a person or a limit. */
  jumpers: z.boolean().default(false),
  /** Readings on a live run are allowed at all. */
  liveWork: z.boolean().default(true),
  /** What the site's gauges are marked in: how a pressure is shown, and what a bare figure at a gauge means. */
  gaugeUnit: z.enum(GAUGE_UNITS).default('bar'),
  /** Cost of an hour, for repair or replace. */
  shopRate: z.number().min(0).max(10_000).default(60),
  /** Minutes to lock, tag and prove a line supply dead here, and a control supply: a test that needs the lock pays them. */
  lockLine: z.number().min(0.5).max(240).default(7),
  lockControl: z.number().min(0.5).max(240).default(4),
  /** What insulation is held against in jobs: the row of its class, or one of the trade's marks. */
  insulationPass: z.enum(INSULATION_PASSES).default('table'),
  /** A learner's signature under make safe, and a learner's decision, want a second pair of eyes. */
  learnersSeen: z.boolean().default(true),
  /** What the shed is called, on its own page and its reports. */
  shedName: z.string().trim().min(1, 'is empty; write what the shed is called').max(60).default('The shed'),
  /** When the machines go out, on the site's clock, "16:30"; null while nobody has said it. */
  machinesOut: z
    .string()
    .regex(/^([01]\d|2[0-3]):[0-5]\d$/, 'is no time of the day; write one such as 16:30, or leave it empty')
    .nullable()
    .default(null),
  /** After how many days a machine that was handed over is looked at again; null while nobody has said it. */
  retestDays: z
    .number('is no number of days; write one such as 90, or leave it empty')
    .int('is no whole number of days')
    .min(1)
    .max(3650)
    .nullable()
    .default(null),
  /** Clock that times are shown on; the server's own until the site names one. */
  timeZone: z
    .string()
    .refine(isTimeZone, 'is no time zone; write one such as Europe/Vienna')
    .default(() => new Intl.DateTimeFormat().resolvedOptions().timeZone),
});
export type Policy = z.infer<typeof policySchema>;

export const USUAL_POLICY: Policy = policySchema.parse({});
