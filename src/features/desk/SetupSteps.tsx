'use client';

import type { Test } from '@/core/circuit/schema';
import { setupSteps } from '@/words/en/setupSteps';
import { useDesk } from './desk';

/** How a test is set up, in numbered lines. */
export function SetupSteps({ test }: { test: Test }) {
  const { speaker } = useDesk();
  return (
    <ol className="list-decimal py-2 pl-6 text-[16.5px] leading-[23px]">
      {setupSteps(speaker, test).map((step) => (
        <li key={step}>{step}</li>
      ))}
    </ol>
  );
}
