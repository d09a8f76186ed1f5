import type { LiveCode } from '@/core/codes/liveCodes';

/** What the server says of a machine's bus. */
export interface BusReport {
  /** Name of the way to the bus, or null when none is set up. */
  adapter: string | null;
  simulated: boolean;
  /** Why nothing is heard, or null while frames come. */
  lost: string | null;
  frames: number;
  senders: number[];
  codes: LiveCode[];
}
