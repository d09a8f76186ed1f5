import type { EntryOf } from '@/core/job/entries';

/** What was put into a machine, by kind. */
export const LEDGER_KINDS: Readonly<Record<EntryOf<'ledger'>['body']['kind'], string>> = {
  jumper: 'Jumper',
  override: 'Override',
  plug: 'Plug or clamp',
  lifted: 'Lifted wire',
  other: 'Other',
};
