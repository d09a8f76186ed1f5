'use client';

import { ShedSilent } from '@/ui/ShedSilent';

/** A piece of the application that could not be made. */
export default function Failed({ reset }: { error: Error; reset: () => void }) {
  return <ShedSilent again={reset} />;
}
