'use client';

import { useEffect, useState } from 'react';
import { followEvents } from '../events';
import type { BusReport } from './report';

export const BUS_OFF: BusReport = {
  adapter: null,
  simulated: false,
  lost: 'the bus is being called',
  frames: 0,
  senders: [],
  codes: [],
};

/** Follows a machine's bus. A lost server is a lost bus, said plainly; it is called again by itself. */
export function useBus(machine: string, listening: boolean): BusReport {
  const [report, setReport] = useState<BusReport>(BUS_OFF);
  useEffect(() => {
    if (!listening) return;
    return followEvents<BusReport>(() => `/api/machines/${encodeURIComponent(machine)}/bus`, {
      message: setReport,
      lost: () =>
        setReport((last) => ({ ...last, lost: 'the server does not answer', codes: [], senders: [] })),
    });
  }, [machine, listening]);
  return report;
}
