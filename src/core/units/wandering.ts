/** Stands between the values of a display that wanders, as they are typed: `5.2~7.1~6.4`. */
export const WANDERS = '~';

/** What a display that wandered counts for: the middle of its figures, and over range only where it showed no figure. */
export function middleShown<T>(shown: readonly T[]): number | 'OL' {
  const figures = shown.filter((value): value is T & number => typeof value === 'number');
  figures.sort((a, b) => a - b);
  return figures.length > 0 ? figures[Math.floor((figures.length - 1) / 2)]! : 'OL';
}
