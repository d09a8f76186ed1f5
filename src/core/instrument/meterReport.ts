import type { TimedSample } from './meterMode';

/** What is said of a live meter, several times a second. */
export interface MeterReport {
  /** What it calls itself; null as long as it has not said. */
  name: string | null;
  /** Its leads are moved over the wire: nobody has to hold them. */
  simulated: boolean;
  /** Its dial can be turned from here. */
  turns: boolean;
  /** Why nothing is heard; null while values come. */
  lost: string | null;
  /** Values since the leads stand where they do, the last at the end; none while nothing is heard. */
  samples: readonly TimedSample[];
  /** How many have come so far, those that are no longer kept included. */
  count: number;
}

export const METER_SILENT: MeterReport = {
  name: null,
  simulated: false,
  turns: false,
  lost: 'the meter is being called',
  samples: [],
  count: 0,
};
