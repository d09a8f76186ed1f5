'use client';

import { Printer } from 'lucide-react';
import { MainKey } from './sheet';

/** Sends this page to the printer. */
export function PrintKey({ className = 'm-1.5' }: { className?: string }) {
  return (
    <MainKey className={className} onClick={() => window.print()}>
      <Printer size={20} aria-hidden /> Print
    </MainKey>
  );
}
