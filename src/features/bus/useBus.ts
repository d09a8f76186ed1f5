'use client';

import { useEffect, useState } from 'react';
import type { BusReport } from './report';

const RETRY_MS = 2000;

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
    let events: EventSource | undefined;
    let timer: ReturnType<typeof setTimeout> | undefined;
    const call = () => {
      clearTimeout(timer);
      events?.close();
      if (document.hidden) return;
      events = new EventSource(`/api/machines/${encodeURIComponent(machine)}/bus`);
      events.onmessage = ({ data }) => setReport(JSON.parse(data as string) as BusReport);
      events.onerror = () => {
        setReport((last) => ({ ...last, lost: 'the server does not answer', codes: [], senders: [] }));
        // The browser calls again after a broken line, but not after a refusal.
        if (events?.readyState === EventSource.CLOSED) timer = setTimeout(call, RETRY_MS);
      };
    };
    call();
    document.addEventListener('visibilitychange', call);
    return () => {
      document.removeEventListener('visibilitychange', call);
      clearTimeout(timer);
      events?.close();
    };
  }, [machine, listening]);
  return report;
}
