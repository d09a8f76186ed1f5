import { z } from 'zod';
import { ALL_KINDS } from '@/core/kinds/part';
import type { PartKind } from '@/core/kinds/part/module';
import { spareRatings } from '@/core/shed/spares';

const KINDS = ALL_KINDS as [PartKind, ...PartKind[]];
export const SPARE_KINDS: readonly PartKind[] = KINDS;
const MOST_PIECES = 100_000;

/** A spare's card, as its form sends it; each refusal names its field and the mend. */
export const spareFacts = z.object({
  id: z.uuid().nullable(),
  number: z
    .string()
    .trim()
    .min(1, 'Give the spare its number.')
    .max(60, 'A number has at most 60 characters.'),
  name: z.string().trim().min(2, 'Say what the spare is.').max(160, 'A name has at most 160 characters.'),
  kind: z.enum(KINDS),
  ratings: spareRatings,
  fitting: z.string().trim().max(200, 'Plug and thread: 200 characters at most.'),
  place: z.string().trim().max(120, 'A place has at most 120 characters.'),
  minimum: z.number().int('A minimum is a whole number.').min(0).max(MOST_PIECES),
  price: z.number().min(0).max(10_000_000).nullable(),
  leadDays: z.number().int('Days are a whole number.').min(0).max(3650).nullable(),
  supplier: z.string().trim().max(160, 'A supplier has at most 160 characters.'),
});
export type SpareForm = z.infer<typeof spareFacts>;

export const pieces = z.number().int('Pieces are a whole number.').min(-MOST_PIECES).max(MOST_PIECES);
