import type { Part } from '../circuit/schema';
import { ALL_KINDS, PART_KINDS } from '../kinds/part/index';

/** Words for each kind, as its module gives them. */
const WORDS: readonly (readonly [Part['kind'], readonly string[]])[] = ALL_KINDS.map((kind) => [
  kind,
  PART_KINDS[kind].chain.words,
]);

/** The kind that a phrase names, with what is left of the phrase; null when no word is known. */
export function kindOfWords(phrase: string): { kind: Part['kind']; rest: string } | null {
  let best: { kind: Part['kind']; at: number; word: string } | null = null;
  const text = phrase.toLowerCase();
  for (const [kind, words] of WORDS) {
    for (const word of words) {
      const found = new RegExp(`(^|\\s)${word.replace(/[-]/g, '[- ]?')}s?(?=$|\\s)`).exec(text);
      if (!found) continue;
      const at = found.index + found[1]!.length;
      // The word that comes last is the noun ("seat switch", "motor breaker"); of two there, the longer one.
      const end = at + word.length;
      const bestEnd = best ? best.at + best.word.length : -1;
      if (!best || end > bestEnd || (end === bestEnd && word.length > best.word.length))
        best = { kind, at, word };
    }
  }
  if (!best) return null;
  const rest = `${phrase.slice(0, best.at)} ${phrase.slice(best.at + best.word.length)}`;
  return { kind: best.kind, rest: rest.replace(/\s+/g, ' ').trim() };
}

/** Every word that begins an item of a chain, for offering while one types; the plainest of a beginning first. */
export const CHAIN_WORDS: readonly string[] = [
  ...new Set([...WORDS.flatMap(([, words]) => words), 'ground', 'back']),
].sort((a, b) => a.length - b.length);
