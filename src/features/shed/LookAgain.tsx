'use client';

import { useRouter } from 'next/navigation';
import { useEffect } from 'react';

const WAIT_MS = 1500;

/** Reads the page again in a moment: some of what it shows is being worked out. */
export function LookAgain() {
  const router = useRouter();
  useEffect(() => {
    const timer = setInterval(() => {
      if (!document.hidden) router.refresh();
    }, WAIT_MS);
    return () => clearInterval(timer);
  }, [router]);
  return null;
}
