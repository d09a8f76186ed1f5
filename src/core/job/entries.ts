import { z } from 'zod';
import { readingSchema, testSchema } from '../circuit/schema';

/** Entries of a job's log. They are only ever added; a correction names the entry it supersedes. */
const head = {
  /** UUIDv7 made by whoever wrote the entry, so that saving twice is harmless. */
  id: z.uuid(),
  person: z.string().min(1).max(60),
  /** ISO time, UTC, of the writer's clock. */
  at: z.iso.datetime(),
  supersedes: z.uuid().optional(),
};

export const entrySchema = z.discriminatedUnion('type', [
  z.object({ ...head, type: z.literal('complaint'), body: z.object({ words: z.string().min(1).max(2000) }) }),
  z.object({
    ...head,
    type: z.literal('reading'),
    /** `typed` is what the technician wrote, kept beside what it was taken to mean. */
    body: z.object({ reading: readingSchema, typed: z.string().max(60) }),
  }),
  z.object({ ...head, type: z.literal('noReach'), body: z.object({ node: z.string().min(1) }) }),
  z.object({ ...head, type: z.literal('skippedTest'), body: z.object({ test: testSchema }) }),
  /** Takes back the entry it supersedes; that one stays in the record, struck through. */
  z.object({ ...head, type: z.literal('withdrawal'), supersedes: z.uuid(), body: z.object({}) }),
]);

export type Entry = z.infer<typeof entrySchema>;
export type EntryOf<T extends Entry['type']> = Extract<Entry, { type: T }>;
