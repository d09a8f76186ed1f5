import type { Random } from '../../src/core/random';

/** One of a list. */
export const pick = <T>(random: Random, list: readonly T[]): T =>
  list[Math.floor(random.next() * list.length)]!;

/** Whether something of this share comes about. */
export const chance = (random: Random, share: number): boolean => random.next() < share;

/** A value up to so far off from another, in three digits. */
export const around = (random: Random, value: number, off = 0.3): number =>
  Number((value * (1 - off + 2 * off * random.next())).toPrecision(3));

/** A whole number of a range, both ends of it in. */
export const whole = (random: Random, least: number, most: number): number =>
  least + Math.floor((most - least + 1) * random.next());
