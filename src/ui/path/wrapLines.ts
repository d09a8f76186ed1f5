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
