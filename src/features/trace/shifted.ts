import type { Trace } from '@/core/trace/trace';

/** A trace so many seconds later. */
export function shifted({ seconds, values }: Trace, bySeconds: number): Trace {
  return { seconds: seconds.map((at) => at + bySeconds), values };
}

/** Another trace on this one's clock: both are switched on at the same moment. */
export function aligned(trace: Trace, onset: number | null | undefined, own: number | null): Trace {
  return onset === null || onset === undefined || own === null ? trace : shifted(trace, own - onset);
}
