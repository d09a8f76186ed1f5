import type { Test } from '@/core/circuit/schema';
import { METER_SILENT, type MeterReport } from '@/core/instrument/meterReport';
import { followEvents } from '../events';
import { followInstrument, type Pace } from './follow';
import type { LiveSource } from './liveSource';
import { openPlug } from './plug';

/** Function of a machine that a meter's leads stand on. */
export interface MeterPlace {
  machine: string;
  function: string;
}

/** Where the server tells what the shop's meter shows. */
export function meterAddressOf(place: MeterPlace, test: Test | undefined, pace: Pace): string {
  const query = new URLSearchParams({ machine: place.machine, function: place.function, pace });
  if (test) query.set('test', JSON.stringify(test));
  return `/api/meter?${query}`;
}

/** Follows the chosen meter, at the server or at a plug of this device. Gives the way to stop. */
export function followMeter(
  source: Exclude<LiveSource, { from: 'typed' }>,
  place: MeterPlace,
  test: Test | undefined,
  pace: Pace,
  tell: (report: MeterReport) => void,
): () => void {
  if (source.from === 'plug') {
    const open = () => openPlug(source);
    return followInstrument(open, () => Promise.resolve({ simulated: false }), tell, pace);
  }
  return followEvents<MeterReport>(() => meterAddressOf(place, test, pace), {
    message: tell,
    lost: () => tell({ ...METER_SILENT, lost: 'the server does not answer' }),
  });
}
