/** What stands behind a figure and is no longer than this, a unit for one, is not parted from it. */
const UNIT_CHARACTERS = 3;

/** Lines broken between words so that none is longer than `most` characters; a longer word stands by itself. */
export function wrapLines(lines: readonly string[], most: number): string[] {
  return lines.flatMap((line) => {
    const wrapped: string[] = [];
    for (const word of wordsOf(line)) {
      const last = wrapped.at(-1);
      if (last !== undefined && last.length + 1 + word.length <= most)
        wrapped[wrapped.length - 1] = `${last} ${word}`;
      else wrapped.push(word);
    }
    return wrapped;
  });
}

/** The words of a line, a figure with its unit for one. */
function wordsOf(line: string): string[] {
  const words: string[] = [];
  for (const word of line.split(' ')) {
    const before = words.at(-1);
    if (before !== undefined && /\d$/.test(before) && /^[^\d]+$/.test(word) && word.length <= UNIT_CHARACTERS)
      words[words.length - 1] = `${before} ${word}`;
    else words.push(word);
  }
  return words;
}

/**
 * As many whole sentences as there are lines for, the first one always: they come in the order of their weight, and half a
 * sentence says something else than the whole.
 */
export function fittingLines(sentences: readonly string[], most: number, lines: number): string[] {
  const said: string[] = [];
  for (const sentence of sentences) {
    const wrapped = wrapLines([sentence], most);
    if (said.length > 0 && said.length + wrapped.length > lines) break;
    said.push(...wrapped);
  }
  return said;
}
