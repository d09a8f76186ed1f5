import type { Metadata } from 'next';
import { Suspense } from 'react';
import { BegunDesk } from '@/features/begun/BegunDesk';

export const metadata: Metadata = { title: 'Job begun here' };
export const dynamic = 'force-dynamic';

/** The desk of a job that was begun without the server. Kept with the program; what it shows lies in the browser. */
export default function BegunPage() {
  return (
    <Suspense>
      <BegunDesk />
    </Suspense>
  );
}
