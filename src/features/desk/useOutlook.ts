'use client';

import { useCallback, useEffect, useRef, useState } from 'react';
import type { Reading, Test } from '@/core/circuit/schema';
import type { DiagnoseOptions } from '@/core/diagnosis/diagnose';
import type { RankedTest } from '@/core/diagnosis/rankTests';
import { DiagnosisClient } from '@/workers/diagnosisClient';
import type { KnownCircuit, Outlook } from '@/workers/protocol';

export interface OutlookState {
  /** The last answer, with the readings it was worked out from: its evidence points into those. */
  outlook: (Outlook & { readings: readonly Reading[] }) | null;
  /** A newer answer is on its way. */
  working: boolean;
  failure: string | null;
  again: () => void;
  evaluate: (test: Test) => Promise<RankedTest | string>;
  /** What one more reading would leave, were it taken; null when it cannot be weighed. */
  suppose: (reading: Reading) => Promise<OutlookState['outlook']>;
}

/** The diagnosis of a job, worked out in a web worker after every reading. */
export function useOutlook(
  circuit: KnownCircuit,
  readings: readonly Reading[],
  options: DiagnoseOptions,
): OutlookState {
  const client = useRef<DiagnosisClient | null>(null);
  const [outlook, setOutlook] = useState<OutlookState['outlook']>(null);
  const [failure, setFailure] = useState<string | null>(null);
  const [working, setWorking] = useState(true);
  const [round, setRound] = useState(0);
  const question = JSON.stringify([readings, options]);

  useEffect(() => {
    const own = clientOf(client);
    return () => {
      client.current = null;
      own.close();
    };
  }, []);

  useEffect(() => {
    let current = true;
    setWorking(true);
    const [asked, chosen] = JSON.parse(question) as [Reading[], DiagnoseOptions];
    void clientOf(client)
      .weigh(circuit, asked, chosen)
      .then((answer) => {
        if (!current) return;
        setWorking(false);
        if (answer.ok) {
          setOutlook({ ...answer.value, readings: asked });
          setFailure(null);
        } else setFailure(answer.message);
      });
    return () => {
      current = false;
    };
  }, [circuit, question, round]);

  const evaluate = useCallback(
    async (test: Test): Promise<RankedTest | string> => {
      // A screen may ask before this hook's own effect has run.
      const [asked, chosen] = JSON.parse(question) as [Reading[], DiagnoseOptions];
      const answer = await clientOf(client).evaluate(circuit, asked, test, chosen);
      return answer.ok ? answer.value : answer.message;
    },
    [circuit, question],
  );
  const suppose = useCallback(
    async (reading: Reading): Promise<OutlookState['outlook']> => {
      const [asked, chosen] = JSON.parse(question) as [Reading[], DiagnoseOptions];
      const all = [...asked, reading];
      const answer = await clientOf(client).weigh(circuit, all, { ...chosen, most: 0, tests: [] });
      return answer.ok ? { ...answer.value, readings: all } : null;
    },
    [circuit, question],
  );
  return { suppose, outlook, working, failure, again: () => setRound((now) => now + 1), evaluate };
}

/** The worker's client, made on first use. */
function clientOf(held: { current: DiagnosisClient | null }): DiagnosisClient {
  return (held.current ??= new DiagnosisClient());
}
