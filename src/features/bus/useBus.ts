'use client';

import { useEffect, useState } from 'react';
import type { BusReport } from './report';

export const BUS_OFF: BusReport = {
  adapter: null,
  simulated: false,
  lost: 'the bus is being called',
  frames: 0,
  senders: [],
  codes: [],
};

/** Follows a machine's bus. A lost server is a lost bus, said plainly; the browser calls again by itself. */
export function useBus(machine: string, listening: boolean): BusReport {
  const [report, setReport] = useState<BusReport>(BUS_OFF);
  useEffect(() => {
    if (!listening) return;
    const events = new EventSource(`/api/machines/${encodeURIComponent(machine)}/bus`);
    events.onmessage = ({ data }) => setReport(JSON.parse(data as string) as BusReport);
    events.onerror = () =>
      setReport((last) => ({ ...last, lost: 'the server does not answer', codes: [], senders: [] }));
    return () => events.close();
  }, [machine, listening]);
  return report;
}
