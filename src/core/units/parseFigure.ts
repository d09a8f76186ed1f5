/** What a field for a plain figure holds: a number, nothing, or something that is none. */
export type TypedFigure = { is: 'empty' } | { is: 'figure'; value: number } | { is: 'none'; typed: string };

const FIGURE = /^[+\-−–]?(\d+([.,]\d*)?|[.,]\d+)$/u;

/**
 * Reads a plain figure with a point or a comma. What is no figure stays what was typed: it never becomes a number, least
 * of all nought.
 */
export function parseFigure(text: string): TypedFigure {
  const typed = text.trim();
  if (typed === '') return { is: 'empty' };
  if (!FIGURE.test(typed)) return { is: 'none', typed };
  return { is: 'figure', value: Number(typed.replace(/^[−–]/u, '-').replace(',', '.')) };
}
