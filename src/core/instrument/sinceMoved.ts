import { agreeing } from './settling';

/**
 * Values that belong to the leads' new place: those from the first one on that is not what the display still showed of the old place. None
 * as long as it shows that: leads that nobody has moved yet read the old point.
 *
 * @param before what it showed last at the old place; null where there was none
 * @param least difference of two values that counts as none, in their unit
 */
export function sinceMoved(
  shown: readonly (number | 'OL')[],
  before: number | 'OL' | null,
  least: number,
): readonly (number | 'OL')[] {
  if (before === null) return shown;
  const at = shown.findIndex((value) => !agreeing([value, before], least));
  return at < 0 ? [] : shown.slice(at);
}
