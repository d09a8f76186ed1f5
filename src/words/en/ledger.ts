import type { EntryOf } from '@/core/job/entries';
import type { SafetyDefect } from '@/core/job/rules/ledgerStanding';

/** What was put into a machine, by kind. */
export const LEDGER_KINDS: Readonly<Record<EntryOf<'ledger'>['body']['kind'], string>> = {
  jumper: 'Jumper',
  override: 'Override',
  plug: 'Plug or clamp',
  lifted: 'Lifted wire or line',
  other: 'Other',
};

/** A guard that is out of action, in a line. */
export function defectWords({ item, guards, found }: SafetyDefect): string {
  return `${item}${found ? ', found in the machine' : ''}: ${guards.join(', ')} out of action`;
}

/** An output that somebody set on the controller's page. */
export function forcedItem(output: string): string {
  return `${output} overridden on the controller’s page`;
}
