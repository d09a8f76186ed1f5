'use client';

import { useState } from 'react';
import { LIVE_OFF, type LiveReading } from '@/core/instrument/offered';
import { keepSource, keptSource, TYPED, type LiveSource } from '../meter/liveSource';
import { useMeter } from './useMeter';

export type MeterInUse = ReturnType<typeof useMeterInUse>;

/** The meter in the hand, what is on a wire to this device, and what that shows now. */
export function useMeterInUse() {
  const [profile, setProfile] = useMeter();
  const [source, setSource] = useState(keptSource);
  const [live, setLive] = useState<LiveReading>(LIVE_OFF);
  return {
    profile,
    setProfile,
    source,
    setSource: (next: LiveSource) => {
      keepSource(next);
      setSource(next);
      if (next.from === TYPED.from) setLive(LIVE_OFF);
    },
    live,
    setLive,
  };
}
