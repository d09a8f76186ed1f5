import type { CircuitModel } from '../circuit/model';
import type { Entry } from './entries';
import { seenWork, type SeenWork } from './seenWork';

/** What is said when a job is opened. */
export interface OpeningWords {
  title: string;
  /** The driver's own, where there are any. */
  words: string;
  /** By {@link trialKey}; what was not tried is not there, or says so. */
  answers: Readonly<Record<string, 'works' | 'weak' | 'dead' | 'not tried'>>;
}

/** What an answer to "does it work?" is kept under. */
export function trialKey({ ref, pattern }: SeenWork): string {
  return `${pattern}-${ref}`;
}

/**
 * The entries that a job begins with: the complaint, and each answer as a reading. The same words give the same entries
 * wherever they are made, so that a job that was begun in a dead spot and arrives twice stands there once.
 *
 * @param openedAt ISO time, by the writer's clock
 * @param idOf id of each entry, by its place
 */
export function firstEntries(
  model: CircuitModel,
  { title, words, answers }: OpeningWords,
  { person, openedAt, idOf }: { person: string; openedAt: string; idOf: (at: number) => string },
): Entry[] {
  const began = Date.parse(openedAt);
  const entries: Entry[] = [];
  const head = () => ({
    id: idOf(entries.length),
    at: new Date(began + entries.length).toISOString(),
    person,
  });
  entries.push({ ...head(), type: 'complaint', body: { words: words || title } });
  for (const seen of seenWork(model)) {
    const key = trialKey(seen);
    const answer = Object.hasOwn(answers, key) ? answers[key]! : 'not tried';
    if (answer === 'not tried') continue;
    const { ref: part, setup } = seen;
    entries.push({
      ...head(),
      type: 'reading',
      body: { reading: { kind: 'function', part, setup, value: answer }, typed: answer },
    });
  }
  return entries;
}
