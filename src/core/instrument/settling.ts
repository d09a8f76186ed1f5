/** What the last values of a display amount to. */
export type Settled =
  | { is: 'moving' }
  | { is: 'steady'; value: number | 'OL' }
  /** It goes on changing: the least, a middle one and the most of what it showed. */
  | { is: 'wanders'; values: readonly (number | 'OL')[] };

/** So many values in a row have to agree. */
const AGREEING = 4;
/** Share of the figure, and least of its unit, within which values agree: the last digits of a hand meter. */
const AGREE_SHARE = 0.01;
/** A display that has not come to rest after so many wanders. */
const PATIENCE = 16;

/**
 * Judges the values that a meter has shown since its leads stand where they do, the last one at the end.
 *
 * @param least difference of two values that counts as none, in the unit of the mode
 */
export function settle(shown: readonly (number | 'OL')[], least: number): Settled {
  const last = shown.slice(-AGREEING);
  if (last.length === AGREEING && agreeing(last, least)) return { is: 'steady', value: last.at(-1)! };
  if (shown.length < PATIENCE) return { is: 'moving' };
  const recent = shown.slice(-PATIENCE);
  const figures = recent.filter((value): value is number => value !== 'OL').sort((a, b) => a - b);
  // An open pair that flickers to a figure now and then: both were seen.
  const values = [figures[0]!, figures[figures.length >> 1]!, figures.at(-1)!];
  return { is: 'wanders', values: figures.length < recent.length ? ['OL', ...values] : values };
}

/** Whether values are the same but for the last digits. */
export function agreeing(values: readonly (number | 'OL')[], least: number): boolean {
  const figures = values.filter((value): value is number => value !== 'OL');
  if (figures.length < values.length) return figures.length === 0;
  const [low, high] = [Math.min(...figures), Math.max(...figures)];
  return high - low <= Math.max(AGREE_SHARE * Math.max(Math.abs(low), Math.abs(high)), least);
}
