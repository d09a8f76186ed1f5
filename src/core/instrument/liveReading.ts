import { figureOf } from '../kinds/reading/index';
import { WANDERS } from '../units/wandering';
import { suits, type MeterMode, type MeterSample } from './meterMode';
import type { MeterReport } from './meterReport';
import { meterText } from './meterText';
import type { LiveReading } from './offered';
import { settle } from './settling';
import { sinceMoved } from './sinceMoved';

/** A report of a place, with the values that belong to it. */
export interface Seen {
  report: MeterReport;
  /** The display still shows what the old place read. */
  waits: boolean;
}

/** Watches the leads come to a new place: what the display still shows of the old one does not count for it. */
export class PlaceWatch {
  private movedAt: number | null = null;

  /** @param before what it showed last at the old place; null where there was none */
  constructor(private readonly before: MeterSample | null) {}

  take(report: MeterReport): Seen {
    const { samples, count, simulated } = report;
    const { before } = this;
    const mode = samples.at(-1)?.mode;
    // Leads that are moved over the wire stand where they are said to; and a dial that was turned shows that a hand was at it.
    const known = before && !simulated && mode && JSON.stringify(mode) === JSON.stringify(before.mode);
    if (!known) return { report, waits: false };
    if (this.movedAt === null) {
      const values = samples.map(({ value }) => value);
      const own = sinceMoved(values, before.value, leastOf(mode));
      if (own.length === 0) return { report, waits: true };
      this.movedAt = count - own.length;
    }
    const own = samples.slice(Math.max(0, samples.length - (count - this.movedAt)));
    return { report: { ...report, samples: own }, waits: false };
  }
}

/** Difference of two values that counts as none. */
const leastOf = ({ measures }: MeterMode) => 2 * figureOf(measures).leastSigma;

/** What is seen comes to for a wanted dial. */
export function readingOf({ report, waits }: Seen, wanted: MeterMode): LiveReading {
  const { lost, samples, name, turns } = report;
  if (lost !== null) return { is: 'lost', why: lost };
  const stands = samples.at(-1)?.mode;
  if (!stands) return { is: 'moving', text: '' };
  if (!suits(stands, wanted)) return { is: 'wrongDial', stands, wanted, turns };
  const values = samples.map(({ value }) => value);
  const text = (value: number | 'OL') => meterText({ mode: stands, value });
  const shown = text(values.at(-1)!);
  if (waits) return { is: 'notMoved', text: shown };
  const found = settle(values, leastOf(stands));
  switch (found.is) {
    case 'moving':
      return { is: 'moving', text: shown };
    case 'steady':
      return { is: 'steady', text: text(found.value), name: name ?? 'meter' };
    case 'wanders':
      return { is: 'wanders', text: found.values.map(text).join(WANDERS), name: name ?? 'meter' };
  }
}
