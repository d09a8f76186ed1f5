import type { Entry } from './entries';

/** What decides which circuit a job is about, and what its complaint says around it. */
const ABOUT: ReadonlySet<Entry['type']> = new Set(['complaint', 'joined', 'redrawn', 'withdrawal']);

/**
 * Of a log, what says what the job is about: few entries, however long the log is. Reduced like the whole log they give the
 * same complaint, weather, joined functions and drawing.
 */
export function aboutJob(entries: readonly Entry[]): Entry[] {
  return entries.filter(({ type }) => ABOUT.has(type));
}
