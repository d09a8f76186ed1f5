import { z } from 'zod';

const WHOLE = 'holds half a character; type it again';

/** Text as people write it: without control characters that no screen shows, and whole. */
export const text = (most: number) =>
  z
    .string()
    .max(most, `is over ${most} characters; make it shorter`)
    .refine((value) => value.isWellFormed(), WHOLE)
    .refine((value) => !/(?![\t\n\r])\p{Cc}/u.test(value), 'holds characters that are no text');

/** An id as the server gives them: in lower case. */
export const id = z.uuid().refine((value) => value === value.toLowerCase(), 'is no id of this server');
export const machineCode = text(20).min(1);
export const hash = z.string().regex(/^[0-9a-f]{64}$/, 'is no picture of this server');

const MOST_ASKED = 100;

/** The words of a search, from `?q=`. */
export function wordsAsked(address: URL): string {
  return (address.searchParams.get('q') ?? '').slice(0, MOST_ASKED).toWellFormed();
}

/** A code as a part of a file's name. */
export function fileName(code: string): string {
  return code.replace(/[^\w-]/g, '_');
}
