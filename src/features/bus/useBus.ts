'use client';

import { useEffect, useState } from 'react';
import type { CanBitRate } from '@/core/codes/asciiCan';
import { followEvents } from '../events';
import { followPlug } from './followPlug';
import type { BusReport } from '@/core/codes/busWatch';

export const BUS_OFF: BusReport = {
  adapter: null,
  simulated: false,
  lost: 'the bus is being called',
  frames: 0,
  senders: [],
  codes: [],
};

/**
 * Follows a machine's bus. A lost server is a lost bus, said plainly; it is called again by itself.
 *
 * @param plugBitRate bit rate of an adapter at a plug of this device; null for the server's own bus
 */
export function useBus(
  machine: string,
  listening: boolean,
  plugBitRate: CanBitRate | null = null,
): BusReport {
  const [report, setReport] = useState<BusReport>(BUS_OFF);
  useEffect(() => {
    if (!listening) return;
    if (plugBitRate !== null) return followPlug(plugBitRate, setReport);
    return followEvents<BusReport>(() => `/api/machines/${encodeURIComponent(machine)}/bus`, {
      message: setReport,
      lost: () =>
        setReport((last) => ({ ...last, lost: 'the server does not answer', codes: [], senders: [] })),
    });
  }, [machine, listening, plugBitRate]);
  return report;
}
