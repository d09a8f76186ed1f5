'use client';

import { useState } from 'react';
import { meterFrom, USUAL_METER, type MeterInHand } from './meterProfile';

const KEY = 'spiraxis-meter';

/** The meter in the hand, kept on this device. */
export function useMeter(): [MeterInHand, (meter: MeterInHand) => void] {
  const [meter, setMeter] = useState<MeterInHand>(() =>
    typeof localStorage === 'undefined' ? USUAL_METER : meterFrom(localStorage.getItem(KEY)),
  );
  return [
    meter,
    (next) => {
      localStorage.setItem(KEY, JSON.stringify(next));
      setMeter(next);
    },
  ];
}
