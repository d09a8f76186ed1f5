import { z } from 'zod';
import { maybe, sheetHead, type Finding, type SheetAnswer } from '../sheet';

const place = z.enum(['pressed', 'free']);
const state = z.enum(['closed', 'open']);

export const spareContactSheet = z.object({
  ...sheetHead('spareContact'),
  needs: maybe(state),
  when: maybe(place),
  inServiceBefore: maybe(place),
});
export type SpareContactSheet = z.infer<typeof spareContactSheet>;

export interface SpareContactAnswer extends SheetAnswer {
  use: 'NO' | 'NC' | null;
  nowReads: 'closed' | 'open' | null;
}

export type SpareContactFinding = Finding<'heldInService'>;

/**
 * Which contact of a spare serves, and what it shows in the place that the old one stood in. NO and NC name the free switch; one that
 * something presses shows the other state (reference `logic.md` section 2).
 */
export function chooseContact({ needs, when, inServiceBefore }: SpareContactSheet): SpareContactAnswer {
  const use = needs && when ? ((needs === 'closed') === (when === 'pressed') ? 'NO' : 'NC') : null;
  const nowReads =
    use && inServiceBefore ? ((use === 'NO') === (inServiceBefore === 'pressed') ? 'closed' : 'open') : null;
  const findings: SpareContactFinding[] = [];
  if (inServiceBefore === 'pressed') findings.push({ code: 'heldInService' });
  const missing = !needs ? 'needs' : !when ? 'when' : !inServiceBefore ? 'inServiceBefore' : null;
  return { use, nowReads, findings, next: missing ? { ask: missing } : null };
}
