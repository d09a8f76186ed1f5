/**
 * Names as a person lists them: "Y8", "R2 or H2", "S3R, W15 and X8.1"; of more than `most` the first, and how many more.
 */
export function listWords(names: readonly string[], last: 'and' | 'or', most = Infinity): string {
  if (names.length > most)
    return `${names.slice(0, most - 1).join(', ')} ${last} ${names.length - most + 1} more`;
  return names.length < 2 ? names.join('') : `${names.slice(0, -1).join(', ')} ${last} ${names.at(-1)}`;
}
