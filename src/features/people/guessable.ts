import 'server-only';
import { ZxcvbnFactory } from '@zxcvbn-ts/core';
import { adjacencyGraphs, dictionary } from '@zxcvbn-ts/language-common';

/** Of its five grades (0 to 4) the least that is taken: over a hundred million guesses, with each of them slow. */
const LEAST_GRADE = 3;

/** Read once, when the first password is given: it takes a tenth of a second, and most processes never need it. */
let kept: ZxcvbnFactory | null = null;

/**
 * Whether a password is among the first that anybody would try: one of the fifty thousand that are broken most often, also with a few
 * letters changed, doubled or with a number behind it, a run over the keys, or a name of this shed. By zxcvbn.
 */
export function isGuessable(password: string, names: readonly string[]): boolean {
  kept ??= new ZxcvbnFactory({ dictionary, graphs: adjacencyGraphs });
  return kept.check(password, [...names, 'spiraxis']).score < LEAST_GRADE;
}
