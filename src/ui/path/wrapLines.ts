/** Lines broken between words so that none is longer than `most` characters; a longer word stands by itself. */
export function wrapLines(lines: readonly string[], most: number): string[] {
  return lines.flatMap((line) => {
    const wrapped: string[] = [];
    for (const word of line.split(' ')) {
      const last = wrapped.at(-1);
      if (last !== undefined && last.length + 1 + word.length <= most)
        wrapped[wrapped.length - 1] = `${last} ${word}`;
      else wrapped.push(word);
    }
    return wrapped;
  });
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
