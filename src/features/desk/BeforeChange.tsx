'use client';

import { useMemo } from 'react';
import { isolationPlan } from '@/core/safety/isolationPlan';
import { workStanding } from '@/core/job/rules/testGate';
import { changeWords } from '@/words/en/holds';
import { useDesk } from './desk';

/** What goes before any change to the machine, as the isolation stands now. */
export function BeforeChange() {
  const { speaker, log } = useDesk();
  const plan = useMemo(() => isolationPlan(speaker.model), [speaker.model]);
  return changeWords(workStanding(plan, log.state));
}
