import type { CompiledPart } from '../circuit/compile';
import type { CircuitModel } from '../circuit/model';
import { accessMinutes } from './access';
import { areTwins } from './twins';

/** What may be told of parts that no test at hand tells apart. */
export interface LeftBetween {
  /** Those that the doubt is on, heaviest first. */
  parts: string[];
  /** One of them, and an equal beside it that nothing is held against: the fault goes along with whichever has it. */
  swap: { part: string; twin: string } | null;
  /** Where a good one is put in to find out: the likeliest for the time that takes; null where too many are left for that. */
  first: string | null;
}

/** Share of the doubt below which nobody changes a part to find out. */
export const LEAST_LEFT = 0.1;
/** Share below which nothing is held against a part. */
const SPARED = 0.02;
/** More parts than these are not tried one after the other. */
const MOST_TRIED = 3;
/** To put in a part once one is there, minutes: a rule of thumb. */
const CHANGE_MINUTES = 10;

/** How to find out which it is without a meter, where the doubt is left on some parts; null where it is on none. */
export function leftBetween(
  { compiled }: CircuitModel,
  shares: readonly { part: string; share: number }[],
): LeftBetween | null {
  const byPart = new Map<string, number>();
  for (const { part, share } of shares) byPart.set(part, (byPart.get(part) ?? 0) + share);
  const left = [...byPart].filter(([, share]) => share >= LEAST_LEFT).sort((a, b) => b[1] - a[1]);
  if (left.length === 0) return null;
  const parts = left.map(([ref, share]) => ({ share, one: compiled.parts[compiled.partIndex.get(ref)!]! }));
  const twinOf = (one: CompiledPart) =>
    compiled.parts.find(
      (other) => other !== one && (byPart.get(other.part.ref) ?? 0) < SPARED && areTwins(one, other),
    );
  const swaps = parts.flatMap(({ one }) => {
    const twin = twinOf(one);
    return twin ? [{ part: one.part.ref, twin: twin.part.ref }] : [];
  });
  const worth = ({ share, one }: (typeof parts)[number]) =>
    share / (accessMinutes(one.part) + CHANGE_MINUTES);
  const first = parts.reduce((best, one) => (worth(one) > worth(best) ? one : best));
  return {
    parts: parts.map(({ one }) => one.part.ref),
    swap: swaps[0] ?? null,
    first: parts.length > MOST_TRIED ? null : first.one.part.ref,
  };
}
