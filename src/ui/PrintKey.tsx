'use client';

import { Printer } from 'lucide-react';
import { MainKey } from './sheet';

/** Sends this page to the printer. */
export function PrintKey() {
  return (
    <MainKey className="m-1.5" onClick={() => window.print()}>
      <Printer size={20} aria-hidden /> Print
    </MainKey>
  );
}
