'use client';

import type { IsolationPoint } from '@/core/safety/isolationPlan';
import { SheetDialog } from '@/ui/SheetDialog';
import { PointForm } from '../makesafe/PointForm';

/** A point that was opened for a test, closed and proved again before the next dead one. */
export function CloseAgain({ point, onLeave }: { point: IsolationPoint; onLeave: () => void }) {
  return (
    <SheetDialog open onOpenChange={(open) => !open && onLeave()} title={`Close ${point.label} again`}>
      <div className="px-4 pt-4">
        <PointForm point={point} onDone={onLeave} />
      </div>
    </SheetDialog>
  );
}
