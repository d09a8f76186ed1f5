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

/** What a thing left in the machine does to it: guards out of action, or a part bypassed with its danger. */
export function defectHarm({ guards, bypass }: SafetyDefect): string {
  return [
    ...(guards.length > 0 ? [`${guards.join(', ')} out of action`] : []),
    ...(bypass ? [`${bypass.part} bypassed. ${bypass.danger}`] : []),
  ].join('; ');
}

/** A safety defect in a line. */
export function defectWords(defect: SafetyDefect): string {
  return `${defect.item}${defect.found ? ', found in the machine' : ''}: ${defectHarm(defect)}`;
}

/** An output that somebody set on the controller's page. */
export function forcedItem(output: string): string {
  return `${output} overridden on the controller’s page`;
}
