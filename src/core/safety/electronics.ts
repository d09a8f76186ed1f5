import type { Part } from '../circuit/schema';
import { kindOf } from '../kinds/part/index';

/**
 * Whether a part is electronic, so that no test voltage may reach it: by its kind, or as its circuit file says. A switch of a
 * drawing may stand for the output of a controller, a proximity sensor or a level control; until somebody has answered
 * (`electronic`) it is `unanswered`. Never worked out from what a part is called.
 */
export function electronicsOf(part: Part): boolean | 'unanswered' {
  const { electronic, contact } = kindOf(part).traits;
  if (electronic) return true;
  if (part.electronic !== undefined) return part.electronic;
  return contact && part.kind === 'switch' ? 'unanswered' : false;
}

/** What must not see a test voltage: what is electronic, and what nobody has answered for. */
export function countsAsElectronic(part: Part): boolean {
  return electronicsOf(part) !== false;
}
