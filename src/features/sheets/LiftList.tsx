'use client';

import { useMemo } from 'react';
import { ledgerStanding } from '@/core/job/rules/ledgerStanding';
import { workStanding } from '@/core/job/rules/testGate';
import { isolationPlan } from '@/core/safety/isolationPlan';
import type { JobSheet } from '@/core/sheets/onCircuit/jobSheet';
import { liftPlan } from '@/core/sheets/onCircuit/liftPlan';
import { Heading, Hold } from '@/ui/sheet';
import { changeWords } from '@/words/en/holds';
import { useDesk } from '../desk/desk';

/** What comes off before a tester goes on, each with a tick that stands in the ledger until it is back. */
export function LiftList({ sheet }: { sheet: JobSheet }) {
  const { speaker, log } = useDesk();
  const { model } = speaker;
  const { state } = log;
  const standing = useMemo(() => workStanding(isolationPlan(model), state), [model, state]);
  const safe = standing.state === 'safe';
  const isOff = useMemo(
    () =>
      new Set(
        state.ledger
          .filter((line) => ledgerStanding(model, line, state).state === 'in')
          .map(({ entry }) => entry.body.item),
      ),
    [model, state],
  );
  const plan = useMemo(() => liftPlan(model, sheet, isOff), [model, sheet, isOff]);
  if (!plan) return null;
  return (
    <section aria-labelledby="lift" className="pt-2 print:hidden">
      <Heading id="lift" aside={`${plan.ready} of ${plan.open} places can be read as it stands`}>
        Off before the tester
      </Heading>
      <Hold>{changeWords(standing)}</Hold>
      <ul>
        {plan.off.map(({ body, places }) => {
          const off = isOff.has(body.item);
          return (
            <li key={body.item} className="border-b-[1.5px] border-rule" data-testid="lift" data-off={off}>
              <label className="flex min-h-11 items-center gap-3">
                <input
                  type="checkbox"
                  className="size-6 shrink-0 accent-pencil"
                  checked={off}
                  disabled={off || !safe}
                  onChange={() => log.write({ type: 'ledger', body })}
                />
                <strong className="font-[700]">{body.item}</strong>
                <span className="ml-auto text-right text-[15.5px] text-ink2">
                  {off
                    ? 'in the ledger until it is back'
                    : `for ${places === 1 ? 'one place' : `${places} places`}`}
                </span>
              </label>
            </li>
          );
        })}
      </ul>
      {plan.electronic.length > 0 ? (
        <p className="py-2 text-[15.5px]">
          No test volts may reach <span className="fig-bold">{plan.electronic.join(', ')}</span>.
        </p>
      ) : null}
    </section>
  );
}
