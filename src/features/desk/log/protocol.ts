import type { Entry } from '@/core/job/entries';

/** What a browser sends: its entries, and what its clock says, so that the server knows how far that is off. */
export interface SendRequest {
  entries: readonly Entry[];
  sentAt: string;
}

/** An entry as it comes from the server. */
export interface SentEntry {
  number: number;
  entry: Entry;
  receivedAt: string;
  skewMs: number | null;
}

/** What became of one entry that was sent. */
export type SendResult =
  | { id: string; state: 'added' | 'known'; number: number }
  | { id: string; state: 'refused'; code: string; message: string };

export interface SendAnswer {
  added: number;
  results: SendResult[];
}

/** As many as one request carries; a longer queue goes in several. */
export const MOST_IN_BATCH = 100;

/** A log that is longer does not come with its page but after it, in pieces that a browser keeps. */
export const MOST_IN_PAGE = 500;
/** Entries in one piece of a log. */
export const PIECE = 2000;
