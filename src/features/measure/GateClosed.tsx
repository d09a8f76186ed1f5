'use client';

import { useState } from 'react';
import type { TestGate } from '@/core/job/rules/testGate';
import type { IsolationPoint } from '@/core/safety/isolationPlan';
import { lazyPart } from '@/ui/lazyPart';
import { shutWords } from '@/words/en/holds';
import { StepLink } from '../desk/StepLink';

// The form comes when it is called for; until then, and where it cannot come, the test stays shut.
const CloseAgain = lazyPart(() => import('./CloseAgain').then((one) => one.CloseAgain));

/** The test stays shut: why, and where the way in is. */
export function GateClosed({ gate, plan }: { gate: TestGate; plan: readonly IsolationPoint[] }) {
  const [closing, setClosing] = useState(false);
  const words = shutWords(gate);
  if (!words) return null;
  const point = gate.state === 'close' ? plan.find((one) => one.point === gate.points[0]) : undefined;
  return (
    <div
      className="flex min-h-[44px] shrink-0 flex-wrap items-center gap-x-3 border-t-[1.5px] border-rule px-4 text-[16px]"
      data-testid="gate"
      data-gate={gate.state}
    >
      <strong className="font-[750]">{words.what}</strong>
      <span>{words.why}</span>
      {gate.state === 'unsigned' ? (
        <StepLink className="underline underline-offset-4" step="make-safe">
          Make safe
        </StepLink>
      ) : null}
      {point ? (
        <button
          type="button"
          className="min-h-11 font-[700] underline underline-offset-4"
          onClick={() => setClosing(true)}
        >
          Close {point.point} and prove it
        </button>
      ) : null}
      {point && closing ? (
        <CloseAgain key={point.point} point={point} onLeave={() => setClosing(false)} />
      ) : null}
    </div>
  );
}
