'use client';

import { useEffect, useState } from 'react';

/** The page's clock, milliseconds, looked at again every so often while `runs`. */
export function useNow(everyMs: number, runs = true): number {
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    if (!runs) return;
    setNow(Date.now());
    const timer = setInterval(() => setNow(Date.now()), everyMs);
    return () => clearInterval(timer);
  }, [everyMs, runs]);
  return now;
}
