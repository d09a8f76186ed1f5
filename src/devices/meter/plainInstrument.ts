import type { MeterSample } from '@/core/instrument/meterMode';
import { readPlainLine } from '@/core/instrument/plainLine';
import type { LineChannel } from '../lineChannel';
import type { Instrument } from './instrument';

/** A value older than this is no longer what the display shows, milliseconds. */
const FRESH_MS = 3000;

/** A meter that prints lines "value unit" by itself: nothing is asked of it, and nobody but a hand turns its dial. */
export function plainInstrument(channel: LineChannel, now: () => number = Date.now): Instrument {
  let shown: { sample: MeterSample; at: number } | null = null;
  let lost: string | null = null;
  let wake: (() => void) | null = null;
  channel.listen({
    line: (line) => {
      const sample = readPlainLine(line);
      if (!sample) return;
      shown = { sample, at: now() };
      wake?.();
    },
    lost: (reason) => {
      lost = reason;
      wake?.();
    },
  });
  /** What it has shown since it was last asked; waits a while for a next line. */
  const next = async (): Promise<MeterSample | null> => {
    if (!shown && lost === null)
      await new Promise<void>((resolve) => {
        const timer = setTimeout(resolve, FRESH_MS);
        wake = () => {
          clearTimeout(timer);
          resolve();
        };
      });
    wake = null;
    if (lost !== null) throw new Error(lost);
    const taken = shown;
    shown = null;
    return taken && now() - taken.at <= FRESH_MS ? taken.sample : null;
  };
  return {
    identify: () => Promise.resolve('A meter that sends lines'),
    mode: () => Promise.resolve(shown?.sample.mode ?? null),
    read: next,
    close: () => channel.close(),
  };
}
