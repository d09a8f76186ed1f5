'use client';

import { useState } from 'react';
import { decisionNow } from '@/core/job/worksOf';
import { useDesk } from '../desk/desk';
import { WorksDone } from '../fix/WorksDone';
import { StepLayout } from '../desk/StepLayout';
import { DecisionDone } from './DecisionDone';
import { DecisionForm } from './DecisionForm';
import { Evidence } from './Evidence';
import { Opinion } from './Opinion';

/** The part named by evidence, what must be cleared first, repair or replace, and a second opinion. */
export function DecideScreen() {
  const { outlook, log } = useDesk();
  const { fixes } = log.state;
  const decision = decisionNow(log.state);
  const [changing, setChanging] = useState(false);
  return (
    <StepLayout
      part={outlook?.diagnosis.verdict.state === 'name' ? outlook.diagnosis.verdict.part : null}
      left={<Evidence />}
      right={
        <>
          {decision && !changing ? (
            <DecisionDone decision={decision} onChange={() => setChanging(true)} />
          ) : (
            <DecisionForm
              onDone={() => setChanging(false)}
              onLeave={decision ? () => setChanging(false) : null}
            />
          )}
          {decision ? <Opinion decision={decision} /> : null}
          {fixes.length > 0 ? <WorksDone /> : null}
        </>
      }
    />
  );
}
