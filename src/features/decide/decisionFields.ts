import { z } from 'zod';
import type { EntryOf } from '@/core/job/entries';
import { parseFigure } from '@/core/units/parseFigure';

export const ACTIONS = { repair: 'Repair', replace: 'Replace', nothing: 'Change nothing' } as const;
/** What costs time and money. */
export const COSTED = ['repair', 'replace'] as const;

/** What the readings say of the part, where they name one, and of the first suspect. */
export interface Named {
  named: { part: string; fault: string } | null;
  lead: { part: string; fault: string } | null;
  /** What would do it again and has to be cleared first, by part. */
  clearFirst: readonly string[];
}

const costs = z.object({ minutes: z.string(), cost: z.string() });
const fields = z.object({
  action: z.enum(['repair', 'replace', 'nothing']),
  part: z.string(),
  why: z.string(),
  against: z.string(),
  cleared: z.array(z.string()),
  rate: z.string(),
  repair: costs,
  replace: costs,
});
export type DecisionFields = z.infer<typeof fields>;
type Body = EntryOf<'decision'>['body'];

/** A reason is asked for where a part is changed that the readings do not name. */
export function needsReason(
  { action, part }: Pick<DecisionFields, 'action' | 'part'>,
  { named }: Named,
): boolean {
  return action !== 'nothing' && part !== '' && named?.part !== part;
}

/** What must be cleared before a part is changed, and is not yet. */
export function uncleared(
  { part, cleared }: Pick<DecisionFields, 'part' | 'cleared'>,
  said: Named,
): string[] {
  return said.named?.part === part ? said.clearFirst.filter((one) => !cleared.includes(one)) : [];
}

/** The form's fields as an entry of the log; each that cannot be taken is refused with a sentence. */
export function decisionSchema(said: Named) {
  return fields.transform((typed, context): Body => {
    const { action, part } = typed;
    const figure = (name: 'minutes' | 'cost', words: string): number | null => {
      if (action === 'nothing') return null;
      const text = typed[action][name];
      const read = parseFigure(text);
      if (read.is === 'none' || (read.is === 'figure' && read.value < 0)) {
        const message = `${words}: “${text}” is no figure from 0 up. Type one, as 45, or leave it empty.`;
        context.addIssue({ code: 'custom', path: [action, name], message });
      }
      return read.is === 'figure' ? read.value : null;
    };
    if (action !== 'nothing' && part === '')
      context.addIssue({
        code: 'custom',
        path: ['part'],
        message: 'Part: none is chosen. Choose the one that is repaired or replaced.',
      });
    const reason = needsReason(typed, said);
    if (reason && typed.against.trim() === '')
      context.addIssue({
        code: 'custom',
        path: ['against'],
        message: `Why all the same: nothing is said. The readings do not name ${part}; say why it is changed.`,
      });
    const { named, lead } = said;
    return {
      part: action === 'nothing' ? '' : part,
      fault: named?.part === part ? named.fault : lead?.part === part ? lead.fault : '',
      action,
      why: typed.why.trim(),
      cleared: typed.cleared,
      minutes: figure('minutes', 'Minutes'),
      cost: figure('cost', 'Parts cost'),
      ...(reason ? { against: typed.against.trim() } : {}),
    };
  });
}

/** Time at the shop's rate and parts together, rounded; null where a figure is missing: nothing is made up for it. */
export function totalCost({ minutes, cost }: DecisionFields['repair'], rate: string): number | null {
  const [time, parts, hourly] = [minutes, cost, rate].map(parseFigure);
  if (time?.is !== 'figure' || hourly?.is !== 'figure' || parts?.is === 'none') return null;
  return Math.round((time.value / 60) * hourly.value + (parts?.is === 'figure' ? parts.value : 0));
}
