'use client';

import { useCallback, useEffect, useRef, useState } from 'react';
import type { CanBitRate } from '@/core/codes/asciiCan';
import { followEvents } from '../events';
import type { BusQuestion } from '@/core/codes/requests';
import { followPlug, type FollowedPlug } from './followPlug';
import { askBus } from './tellBus';
import type { BusReport } from '@/core/codes/busWatch';

export const BUS_OFF: BusReport = {
  adapter: null,
  simulated: false,
  lost: 'the bus is being called',
  frames: 0,
  senders: [],
  codes: [],
  earlier: null,
};

/**
 * Follows a machine's bus, and asks it a question; what stands in the way of that is said, null where it went out. A lost server is a lost bus, said plainly; it is called again by itself.
 *
 * @param plugBitRate bit rate of an adapter at a plug of this device; null for the server's own bus
 */
export function useBus(
  machine: string,
  listening: boolean,
  plugBitRate: CanBitRate | null = null,
): { bus: BusReport; ask: (question: BusQuestion) => Promise<string | null> } {
  const [report, setReport] = useState<BusReport>(BUS_OFF);
  const plug = useRef<FollowedPlug | null>(null);
  useEffect(() => {
    if (!listening) return;
    if (plugBitRate !== null) {
      const followed = (plug.current = followPlug(plugBitRate, setReport));
      return () => {
        plug.current = null;
        followed.stop();
      };
    }
    return followEvents<BusReport>(() => `/api/machines/${encodeURIComponent(machine)}/bus`, {
      message: setReport,
      lost: () =>
        setReport((last) => ({ ...last, lost: 'the server does not answer', codes: [], senders: [] })),
    });
  }, [machine, listening, plugBitRate]);
  const ask = useCallback(
    (question: BusQuestion) => (plug.current ? askPlug(plug.current, question) : askBus(machine, question)),
    [machine],
  );
  return { bus: report, ask };
}

function askPlug(plug: FollowedPlug, question: BusQuestion): Promise<string | null> {
  return Promise.resolve(plug.ask(question) ? null : 'The adapter is not there: nothing was asked.');
}
