import type { MeterMode } from './meterMode';

/** What a live meter comes to for the test at hand. */
export type LiveReading =
  | { is: 'off' }
  /** No meter on a wire reads this. */
  | { is: 'notForMeters' }
  | { is: 'lost'; why: string }
  | { is: 'wrongDial'; stands: MeterMode; wanted: MeterMode; turns: boolean }
  /** The display still shows what the old place read. */
  | { is: 'notMoved'; text: string }
  | { is: 'moving'; text: string }
  | { is: 'steady'; text: string; name: string }
  | { is: 'wanders'; text: string; name: string };

export const LIVE_OFF: LiveReading = { is: 'off' };

/** What it offers to pin: a display at rest, or one that goes on wandering. Empty while there is nothing to take. */
export function offeredBy(live: LiveReading): { text: string; instrument: string } {
  const offers = live.is === 'steady' || live.is === 'wanders';
  return offers ? { text: live.text, instrument: live.name } : NOTHING;
}

const NOTHING = { text: '', instrument: '' };
