import { maximum, maxLength, minimum, number, object, string, type infer as Infer } from 'zod/mini';
import { readingKind } from '@/core/kinds/reading';
import type { Reading, Test } from '@/core/circuit/schema';

/** The meter in the technician's hand, as its leaflet and its own leads have it. */
const meterSchema = object({
  name: string().check(maxLength(60)),
  accuracyPercent: number().check(minimum(0), maximum(20)),
  counts: number().check(minimum(0), maximum(100)),
  /** What the leads read when they are held together, ohms; taken off every reading of ohms. */
  leadOhms: number().check(minimum(0), maximum(20)),
  /** What it shows for over-range, besides OL. */
  over: string().check(maxLength(8)),
  /** Its own resistance on volts, megohms. */
  loadMegohms: number().check(minimum(1e-6), maximum(10_000)),
});
export type MeterInHand = Infer<typeof meterSchema>;

export const USUAL_METER: MeterInHand = {
  name: 'A usual meter',
  accuracyPercent: 1,
  counts: 2,
  leadOhms: 0,
  over: 'OL',
  loadMegohms: 10,
};

/** A kept meter, or the usual one where nothing sound is kept. */
export function meterFrom(text: string | null): MeterInHand {
  if (text === null) return USUAL_METER;
  try {
    return meterSchema.safeParse(JSON.parse(text)).data ?? USUAL_METER;
  } catch {
    // Damaged storage holds no meter.
    return USUAL_METER;
  }
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
