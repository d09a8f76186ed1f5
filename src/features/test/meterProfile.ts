import { z } from 'zod/mini';
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

const schema = z.object({
  name: z.string().check(z.maxLength(60)),
  accuracyPercent: z.number().check(z.gte(0), z.lte(20)),
  counts: z.number().check(z.gte(0), z.lte(100)),
  leadOhms: z.number().check(z.gte(0), z.lte(20)),
  over: z.string().check(z.maxLength(8)),
  loadMegohms: z.number().check(z.gt(0), z.lte(10_000)),
});

/** A kept meter, or the usual one where nothing sound is kept. */
export function meterFrom(text: string | null): MeterInHand {
  if (text === null) return USUAL_METER;
  try {
    const parsed = schema.safeParse(JSON.parse(text));
    return parsed.success ? parsed.data : USUAL_METER;
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
  const electrical = ['volts', 'ohms', 'amps', 'diode', 'insulation'].includes(kind);
  const { accuracyPercent, counts, loadMegohms } = meter;
  const usual =
    accuracyPercent === USUAL_METER.accuracyPercent &&
    counts === USUAL_METER.counts &&
    loadMegohms === USUAL_METER.loadMegohms;
  if (!electrical || usual) return undefined;
  return { accuracyPercent, counts, ...(kind === 'volts' ? { loadOhms: loadMegohms * 1e6 } : {}) };
}
