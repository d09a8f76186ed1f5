import type { LeftBetween } from '@/core/diagnosis/leftBetween';
import { listWords } from './listWords';

/** Where the doubt is left, once no test says more of it. */
export function leftTitle(left: LeftBetween | null): string {
  if (left === null) return 'No test here says more';
  return left.parts.length < 2
    ? `${left.parts[0]} is likeliest, and no test here says more`
    : `${listWords(left.parts, 'or')}: no test here tells them apart`;
}

/** How to find out which it is without a meter, a sentence each. */
export function leftWords(left: LeftBetween | null): string[] {
  if (left === null) return ['Nothing leads. Stop here, or look the drawing over.'];
  const { parts, swap, first } = left;
  const swapped = swap
    ? [
        `${swap.twin} is like ${swap.part}: put each in the other’s place. If the fault goes along, it is ${swap.part}.`,
      ]
    : [];
  if (first === null)
    return [...swapped, `${parts.length} parts are left: too many to try one after the other.`];
  const others = parts.filter((part) => part !== first);
  const next =
    others.length > 0
      ? `If the fault stays, the old one goes back in, and ${listWords(others, 'or')} is next.`
      : 'If the fault stays, the old one goes back in: it is something else.';
  const order = others.length > 0 ? ' first, the likeliest for the time that takes' : '';
  return [...swapped, `${swap ? 'Or try' : 'Try'} a known good part: ${first}${order}. ${next}`];
}
