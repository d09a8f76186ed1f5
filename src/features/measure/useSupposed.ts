import { useEffect, useState } from 'react';
import type { Reading, Test } from '@/core/circuit/schema';
import { testKey } from '@/core/diagnosis/observations';
import { useDesk } from '../desk/desk';
import type { OutlookState } from '../desk/useOutlook';

const SETTLE_MS = 60;

/** What a reading that is only supposed would leave; null while none is, or it belongs to another test. */
export function useSupposed(supposed: Reading | null, test: Test | null): OutlookState['outlook'] {
  const { suppose } = useDesk();
  const [answer, setAnswer] = useState<{ of: Reading; outlook: OutlookState['outlook'] } | null>(null);
  const current = supposed && test && testKey(supposed) === testKey(test) ? supposed : null;
  useEffect(() => {
    if (!current) return;
    let stands = true;
    const timer = setTimeout(() => {
      void suppose(current).then((outlook) => stands && setAnswer({ of: current, outlook }));
    }, SETTLE_MS);
    return () => {
      stands = false;
      clearTimeout(timer);
    };
  }, [current, suppose]);
  return current && answer?.of === current ? answer.outlook : null;
}
