import { readingKind } from '@/core/kinds/reading';
import type { Reading, Test } from '@/core/circuit/schema';

/** The meter in the technician's hand, as its leaflet and its own leads have it. */
export interface MeterInHand {
  name: string;
  accuracyPercent: number;
  counts: number;
  /** What the leads read when they are held together, ohms; taken off every reading of ohms. */
  leadOhms: number;
  /** What it shows for over-range, besides OL. */
  over: string;
  /** Its own resistance on volts, megohms. */
  loadMegohms: number;
}

export const USUAL_METER: MeterInHand = {
  name: 'A usual meter',
  accuracyPercent: 1,
  counts: 2,
  leadOhms: 0,
  over: 'OL',
  loadMegohms: 10,
};

/** Least and most of each figure. */
const BOUNDS = {
  accuracyPercent: [0, 20],
  counts: [0, 100],
  leadOhms: [0, 20],
  loadMegohms: [1e-6, 10_000],
} as const;
const LONGEST = { name: 60, over: 8 } as const;

/** A kept meter, or the usual one where nothing sound is kept. Checked by hand: the small schema library was tried and weighs 48 kB compressed here, a fifth of the page. */
export function meterFrom(text: string | null): MeterInHand {
  if (text === null) return USUAL_METER;
  try {
    const kept: unknown = JSON.parse(text);
    return isMeter(kept) ? kept : USUAL_METER;
  } catch {
    // Damaged storage holds no meter.
    return USUAL_METER;
  }
}

function isMeter(value: unknown): value is MeterInHand {
  if (typeof value !== 'object' || value === null) return false;
  const one = value as Readonly<Record<string, unknown>>;
  return (
    Object.entries(BOUNDS).every(([key, [least, most]]) => {
      const figure = one[key];
      return typeof figure === 'number' && figure >= least && figure <= most;
    }) &&
    Object.entries(LONGEST).every(([key, most]) => {
      const words = one[key];
      return typeof words === 'string' && words.length <= most;
    })
  );
}

/** What a typed text is on this meter: its own sign for over-range is OL. */
export function asShown(text: string, { over }: MeterInHand): string {
  const plain = text.trim();
  return over !== '' && over.toUpperCase() !== 'OL' && plain.toUpperCase() === over.toUpperCase()
    ? 'OL'
    : text;
}

/** The value without the leads' own ohms; never below zero by that. */
export function withoutLeads(
  kind: Test['kind'],
  value: Reading['value'],
  { leadOhms }: MeterInHand,
): Reading['value'] {
  return kind === 'ohms' && typeof value === 'number' && leadOhms > 0 ? Math.max(value - leadOhms, 0) : value;
}

/** What of the meter belongs to a reading; nothing where it is the usual one. */
export function meterOf(kind: Test['kind'], meter: MeterInHand): Reading['meter'] {
  const { mechanical, shows } = readingKind(kind);
  const electrical = shows.is === 'figure' && !mechanical;
  const { accuracyPercent, counts, loadMegohms } = meter;
  const usual =
    accuracyPercent === USUAL_METER.accuracyPercent &&
    counts === USUAL_METER.counts &&
    loadMegohms === USUAL_METER.loadMegohms;
  if (!electrical || usual) return undefined;
  return { accuracyPercent, counts, ...(kind === 'volts' ? { loadOhms: loadMegohms * 1e6 } : {}) };
}

/** A reading as the meter in the hand shows it: without its leads, with what belongs to it where that is not the usual. */
export function readWith(
  meter: MeterInHand,
  test: Test,
  value: Reading['value'],
  more: Pick<Reading, 'unsteady'> & { celsius?: number } = {},
): Reading {
  const own = meterOf(test.kind, meter);
  return {
    ...test,
    value: withoutLeads(test.kind, value, meter),
    ...(own ? { meter: own } : {}),
    ...more,
  } as Reading;
}
