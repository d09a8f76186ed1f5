import { InputError } from '../circuit/inputError';
import type { Trace } from '../trace/trace';
import { suits, type MeterMode, type TimedSample } from './meterMode';

/** Fewer values draw no line. */
export const LEAST_RECORDED = 8;
/** As long as anybody records by hand; more points than that are no meter's. */
export const MOST_RECORDED_SECONDS = 60;
const MS = 1000;

/** Values of an instrument as they come in batches that overlap: each once, in the order of coming, from when its dial last turned. */
export class Recording {
  readonly samples: TimedSample[] = [];
  private taken = 0;

  /** @param count of all that have come so far, those of the batch included */
  take(batch: readonly TimedSample[], count: number): void {
    // An instrument that was lost and called again counts anew.
    if (count < this.taken) this.taken = 0;
    const fresh = Math.min(count - this.taken, batch.length);
    for (const sample of fresh > 0 ? batch.slice(-fresh) : []) {
      const last = this.samples.at(-1);
      if (last && JSON.stringify(last.mode) !== JSON.stringify(sample.mode)) this.samples.length = 0;
      this.samples.push(sample);
    }
    this.taken = count;
  }

  /** Seconds from the first value to the last. */
  get seconds(): number {
    const [first, last] = [this.samples[0], this.samples.at(-1)];
    return first && last ? (last.at - first.at) / MS : 0;
  }
}

/**
 * What was recorded as a trace, from its first value on. Throws `InputError` where too few values came, one is over range, or the dial stood
 * on something else.
 */
export function traceOfRecorded(samples: readonly TimedSample[], wanted: MeterMode): Trace {
  const other = samples.find(({ mode }) => !suits(mode, wanted));
  if (other)
    throw new InputError(
      'meter',
      `stood on ${other.mode.measures} while it was recorded; turn it to ${wanted.measures} and record again`,
    );
  if (samples.length < LEAST_RECORDED)
    throw new InputError(
      'meter',
      `gave ${samples.length} values; record until at least ${LEAST_RECORDED} have come`,
    );
  if (samples.some(({ value }) => value === 'OL'))
    throw new InputError('meter', 'went over its range while it was recorded; choose a larger one');
  const begin = samples[0]!.at;
  return {
    seconds: samples.map(({ at }) => (at - begin) / MS),
    values: samples.map(({ value }) => value as number),
  };
}
