'use client';

import { useMemo } from 'react';
import { stillToTakeOut } from '@/core/job/rules/ledgerStanding';
import { useDesk } from '../desk/desk';
import { LedgerItems } from './LedgerItems';

/** What was put in or taken off for the tests and is not shown to be right again; nothing where all of it is. */
export function InMachine() {
  const { log, speaker } = useDesk();
  const some = useMemo(() => stillToTakeOut(speaker.model, log.state).length > 0, [speaker, log.state]);
  if (!some) return null;
  return (
    <section
      aria-label="In the machine now"
      className="shrink-0 border-t-[1.5px] border-rule bg-copper-t px-4"
    >
      <LedgerItems />
    </section>
  );
}
