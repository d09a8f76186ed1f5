'use client';

import type { EntryOf } from '@/core/job/entries';
import { Heading, PlainKey } from '@/ui/sheet';
import { decisionWords } from '@/words/en/works';
import { useDesk } from '../desk/desk';

/** What was decided, and by whom. */
export function DecisionDone({
  decision,
  onChange,
}: {
  decision: EntryOf<'decision'>;
  onChange: () => void;
}) {
  const { speaker } = useDesk();
  const { body } = decision;
  return (
    <section aria-labelledby="decided">
      <Heading id="decided" aside={`by ${decision.person}`}>
        Decided
      </Heading>
      <div className="space-y-1 py-3 text-[17px]" data-testid="decided">
        <p className="text-[18px] font-[700]">{decisionWords(speaker, body)}</p>
        {body.why ? <p>{body.why}</p> : null}
        {body.against ? <p className="text-copper-ink">Against the count: {body.against}</p> : null}
        {body.cleared.map((one) => (
          <p key={one} className="text-verdi">
            ✓ {one}
          </p>
        ))}
        <p className="fig text-[15.5px] text-ink2">
          {[
            body.minutes === null ? '' : `${body.minutes} min`,
            body.cost === null ? '' : `parts ${body.cost}`,
          ]
            .filter(Boolean)
            .join(', ')}
        </p>
      </div>
      <PlainKey onClick={onChange}>Decide again</PlainKey>
    </section>
  );
}
