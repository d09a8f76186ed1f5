import { z } from 'zod';
import { circuitSchema, type Circuit } from '@/core/circuit/schema';
import { functionName } from '@/core/library/names';
import type { GaugeUnit } from '@/core/units/quantities';

/** What is sent when a drawing is kept. */
export const keepSchema = z.object({
  machine: z.string().min(1).max(20),
  /** Null for a function that is new. */
  functionId: z.uuid().nullable(),
  basedOn: z.number().int().min(0),
  name: functionName,
  note: z.string().trim().max(300),
  circuit: circuitSchema,
  /** Other functions that share a changed part and take the change too. */
  also: z.array(z.uuid()).max(500),
  /** The same function of other machines, drawn the same until now, that take the whole drawing. */
  onto: z.array(z.uuid()).max(500),
});
export type KeepRequest = z.infer<typeof keepSchema>;

export type KeepAnswer = { trouble: string; field?: string } | { functionId: string; version: number };

/** Another function of the machine, as far as a drawing needs it. */
export interface Sibling {
  id: string;
  name: string;
  version: number;
  circuit: Circuit;
}

export interface OpenDrawing {
  /** What the site's gauges are marked in. */
  gaugeUnit: GaugeUnit;
  machine: { code: string; name: string };
  functionId: string | null;
  name: string;
  version: number;
  circuit: Circuit;
  /** `day` as the site's clock has it: 3 Feb 2026. */
  versions: { version: number; person: string; note: string; at: string; day: string }[];
  siblings: Sibling[];
  /** Other machines of the class on which this function is drawn the same. */
  alike: { id: string; machine: string }[];
}
