import { z } from 'zod';
import { maybe, sheetHead, type Finding, type SheetAnswer } from '../sheet';

export const bubblesSheet = z.object({
  ...sheetHead('bubbles'),
  end: maybe(z.enum(['extended', 'retracted'])),
  /** Bubbles a minute. */
  whileMoving: maybe(z.number().min(0)),
  atEnd: maybe(z.number().min(0)),
  portPlugged: maybe(z.boolean()),
  bubbleMm: maybe(z.number().positive().max(30)),
});
export type BubblesSheet = z.infer<typeof bubblesSheet>;

export type BubblesFinding = Finding<'portOpen' | 'bubbleTakenAs3mm' | 'movingIsNormal' | 'endNotKnown'>;

export interface BubblesAnswer extends SheetAnswer {
  verdict: 'good' | 'leaking' | 'invalid' | null;
  litresPerMinute: number | null;
}

const USUAL_MM = 3;
const LITRES_PER_MM3 = 1e-6;

/**
 * A piston's seal by bubbles at its end stop: while it moves they are the air that it pushes out. Free air by their size (reference
 * `fluid-power.md` sections 3, 4); good to a third at best.
 */
export function judgeBubbles({
  end,
  whileMoving,
  atEnd,
  portPlugged,
  bubbleMm,
}: BubblesSheet): BubblesAnswer {
  const findings: BubblesFinding[] = [];
  if (portPlugged === false) {
    // What comes out of an open port is not what passes the piston.
    findings.push({ code: 'portOpen' });
    return { verdict: 'invalid', litresPerMinute: null, findings, next: { ask: 'portPlugged' } };
  }
  if (whileMoving !== undefined && whileMoving > 0) findings.push({ code: 'movingIsNormal' });
  if (portPlugged === undefined)
    return { verdict: null, litresPerMinute: null, findings, next: { ask: 'portPlugged' } };
  if (atEnd === undefined) return { verdict: null, litresPerMinute: null, findings, next: { ask: 'atEnd' } };
  if (bubbleMm === undefined && atEnd > 0) findings.push({ code: 'bubbleTakenAs3mm' });
  const litresPerMinute = atEnd * ((Math.PI / 6) * (bubbleMm ?? USUAL_MM) ** 3) * LITRES_PER_MM3;
  if (end === undefined) findings.push({ code: 'endNotKnown' });
  return {
    verdict: atEnd > 0 ? 'leaking' : 'good',
    litresPerMinute,
    findings,
    next: end === undefined ? { ask: 'end' } : null,
  };
}
