'use client';

import { useEffect, useMemo, useRef, useState } from 'react';
import type { CircuitModel } from '@/core/circuit/model';
import type { Test } from '@/core/circuit/schema';
import { testKey } from '@/core/diagnosis/observations';
import { PlaceWatch, readingOf, type Seen } from '@/core/instrument/liveReading';
import { modeFor, type MeterSample } from '@/core/instrument/meterMode';
import { METER_SILENT, type MeterReport } from '@/core/instrument/meterReport';
import type { LiveReading } from '@/core/instrument/offered';
import { followMeter } from './followMeter';
import type { LiveSource } from './liveSource';

/**
 * Follows the chosen meter while a test is asked for. Values of another place, or of another dial, never count for this one.
 */
export function useLiveMeter(
  source: LiveSource,
  model: CircuitModel,
  place: { machine: string; function: string },
  test: Test | undefined,
): LiveReading {
  const wanted = useMemo(() => (test ? modeFor(model, test) : null), [model, test]);
  const key = test ? testKey(test) : '';
  const [heard, setHeard] = useState<{ key: string } & Seen>({ key: '', report: METER_SILENT, waits: false });
  /** What the display showed last, by the place it stood at. */
  const last = useRef<{ key: string; sample: MeterSample } | null>(null);
  const asked = JSON.stringify(source);
  const stands = useMemo(
    () => ({ place: { machine: place.machine, function: place.function }, test }),
    [place.machine, place.function, test],
  );
  const follows = source.from !== 'typed' && wanted !== null;

  useEffect(() => {
    if (!follows) return;
    const chosen = JSON.parse(asked) as LiveSource;
    const watch = new PlaceWatch(last.current && last.current.key !== key ? last.current.sample : null);
    const tell = (report: MeterReport) => {
      const sample = report.samples.at(-1);
      if (sample) last.current = { key, sample };
      setHeard({ key, ...watch.take(report) });
    };
    return chosen.from === 'typed' ? undefined : followMeter(chosen, stands.place, stands.test, 'eye', tell);
  }, [stands, asked, follows, key]);

  return useMemo(() => {
    if (source.from === 'typed') return { is: 'off' };
    if (!wanted) return test ? { is: 'notForMeters' } : { is: 'off' };
    // Between two tests nothing is known of the new place.
    if (heard.key !== key) return { is: 'moving', text: '' };
    return readingOf(heard, wanted);
  }, [source, wanted, test, heard, key]);
}
