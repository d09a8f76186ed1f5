import type { TimedSample } from '@/core/instrument/meterMode';
import type { Instrument } from '@/devices/meter/instrument';
import { METER_SILENT, type MeterReport } from '@/core/instrument/meterReport';

/** How quickly values are asked for: as an eye takes them, or as fast as they come, to be drawn as a trace. */
export const PACES = ['eye', 'recording'] as const;
export type Pace = (typeof PACES)[number];
/** Between two values, and between two words about them, milliseconds. */
const PACED: Readonly<Record<Pace, { eachMs: number; sayMs: number }>> = {
  eye: { eachMs: 250, sayMs: 0 },
  recording: { eachMs: 10, sayMs: 100 },
};
const FIRST_RETRY_MS = 500;
const LONGEST_RETRY_MS = 5000;
/** Values that are kept: enough to see that a display does not come to rest, and more than come between two words. */
const KEPT = 24;

/**
 * Follows an instrument: its name, then one value after another. What is lost is called again, each time a little later, and no value of
 * before stays. Gives the way to stop.
 *
 * @param open a new way to the instrument; what it rejects with is the reason
 * @param ready says what has to be done before a value counts, such as putting a simulated meter's leads in place
 * @param now this side's clock, milliseconds: when a value came
 */
export function followInstrument(
  open: () => Promise<Instrument>,
  ready: (instrument: Instrument, name: string) => Promise<{ simulated: boolean }>,
  tell: (report: MeterReport) => void,
  pace: Pace = 'eye',
  now: () => number = () => performance.now(),
): () => void {
  const { eachMs, sayMs } = PACED[pace];
  let stopped = false;
  const current: { instrument?: Instrument } = {};
  let wait = FIRST_RETRY_MS;
  let report = METER_SILENT;
  let timer: ReturnType<typeof setTimeout> | undefined;
  let wake: (() => void) | undefined;
  const pause = (ms: number) =>
    new Promise<void>((resolve) => {
      wake = resolve;
      timer = setTimeout(resolve, ms);
    });
  const say = (change: Partial<MeterReport>) => {
    report = { ...report, ...change };
    if (!stopped) tell(report);
  };
  const watch = async () => {
    const instrument = (current.instrument = await open());
    const name = await instrument.identify();
    const { simulated } = await ready(instrument, name);
    say({ name, simulated, turns: instrument.turnTo !== undefined, lost: null, samples: [], count: 0 });
    let samples: readonly TimedSample[] = [];
    let count = 0;
    let said = -Infinity;
    while (!stopped) {
      const sample = await instrument.read();
      wait = FIRST_RETRY_MS;
      // Values of another dial belong to another reading.
      const before = samples.filter(({ mode }) => JSON.stringify(mode) === JSON.stringify(sample?.mode));
      const at = now();
      samples = sample ? [...before, { ...sample, at }].slice(-KEPT) : [];
      if (sample) count++;
      if (at - said >= sayMs) {
        said = at;
        say({ samples, count });
      }
      await pause(eachMs);
    }
  };
  void (async () => {
    while (!stopped) {
      await watch().catch((error: unknown) => {
        say({ lost: error instanceof Error ? error.message : String(error), samples: [], count: 0 });
      });
      current.instrument?.close();
      if (stopped) return;
      await pause(wait);
      wait = Math.min(2 * wait, LONGEST_RETRY_MS);
    }
  })();
  return () => {
    stopped = true;
    clearTimeout(timer);
    wake?.();
    current.instrument?.close();
  };
}
