'use client';

import { useMemo } from 'react';
import { MOTIONS, type Reading } from '@/core/circuit/schema';
import { freeChecks, type FreeCheck } from '@/core/job/freeChecks';
import { Heading, PlainKey } from '@/ui/sheet';
import { answerTo } from '@/core/job/answerTo';
import { standsSafe } from '@/core/job/rules/testGate';
import { handedBy } from '@/core/job/rules/weighOptions';
import { isolationPlan } from '@/core/safety/isolationPlan';
import { StepLink } from '../desk/StepLink';
import { useDesk } from '../desk/desk';
import { FigureForm } from '../desk/FigureForm';
import { StepLayout } from '../desk/StepLayout';
import { GAUGE_NAMES } from '@/words/en/figures';
import { checkWords } from '@/words/en/checks';
import { valueWords } from '@/words/en/readings';
import { Ledger } from '../prove/Ledger';
import { PhotoBox } from '../photos/PhotoBox';
import { WireMap } from './WireMap';

/** What is seen, heard and photographed before anything is touched: free checks, pictures, the wire map. */
export function AsFoundScreen() {
  const { speaker, log } = useDesk();
  const checks = useMemo(() => freeChecks(speaker.model), [speaker]);
  const safe = useMemo(() => standsSafe(isolationPlan(speaker.model), log.state), [speaker, log.state]);
  const done = checks.filter(
    ({ id, test }) => log.state.looked.has(id) || (test && answerTo(log.state.readings, test)),
  );
  return (
    <StepLayout
      left={
        <section aria-labelledby="look">
          <Heading id="look" aside={`${done.length} of ${checks.length}, one tap each`}>
            Look and listen first
          </Heading>
          <div>
            {checks.map((check) => (
              <CheckRow key={check.id} check={check} safe={safe} />
            ))}
          </div>
        </section>
      }
      right={
        <>
          <PhotoBox />
          <Ledger found />
          <WireMap phase="found" />
        </>
      }
    />
  );
}

/** A row for a look; a hand goes to what moves once nothing can move it. */
function CheckRow({ check, safe }: { check: FreeCheck; safe: boolean }) {
  const { speaker, log } = useDesk();
  const [what, how] = checkWords(speaker, check);
  return (
    <div
      role="group"
      aria-label={`${what}, ${how}`}
      className="flex min-h-[52px] flex-wrap items-center gap-x-3 gap-y-1 border-b-[1.5px] border-rule py-1"
    >
      <span className="min-w-0 flex-1">
        <strong className="font-[700]">{what}</strong> <span className="text-[15.5px] text-ink2">{how}</span>
      </span>
      {check.test?.kind === 'pressure' ? (
        <GaugeAnswer check={check} />
      ) : check.test ? (
        <ReadingAnswer check={check} answers={check.test.kind === 'click' ? [true, false] : [...MOTIONS]} />
      ) : handedBy(check.id) !== null && !safe ? (
        <StepLink step="make-safe" className="py-2.5 underline underline-offset-4">
          Make safe first
        </StepLink>
      ) : (
        <span className="flex">
          {(['good', 'bad', 'notSeen'] as const).map((finding) => (
            <PlainKey
              key={finding}
              className="-ml-[1.5px] min-w-[84px] px-2! text-[16px]! aria-pressed:relative aria-pressed:z-10"
              aria-pressed={log.state.looked.get(check.id)?.body.finding === finding}
              onClick={() => log.write({ type: 'looked', body: { check: check.id, finding } })}
            >
              {{ good: 'good', bad: 'not good', notSeen: 'not seen' }[finding]}
            </PlainKey>
          ))}
        </span>
      )}
    </div>
  );
}

function ReadingAnswer({ check, answers }: { check: FreeCheck; answers: Reading['value'][] }) {
  const { log, speaker } = useDesk();
  const test = check.test!;
  const pinned = answerTo(log.state.readings, test);
  return (
    <span className="flex">
      {answers.map((value) => (
        <PlainKey
          key={String(value)}
          className="-ml-[1.5px] min-w-[84px] px-2! text-[16px]! aria-pressed:relative aria-pressed:z-10"
          aria-pressed={pinned?.reading.value === value}
          onClick={() =>
            pinned?.reading.value === value
              ? log.write({ type: 'withdrawal', supersedes: pinned.entry.id, body: {} })
              : log.write({
                  type: 'reading',
                  body: {
                    reading: { ...test, value } as Reading,
                    typed: valueWords(test.kind, value, speaker.gaugeUnit),
                    check: check.id,
                  },
                  ...(pinned ? { supersedes: pinned.entry.id } : {}),
                })
          }
        >
          {valueWords(test.kind, value, speaker.gaugeUnit)}
        </PlainKey>
      ))}
    </span>
  );
}

function GaugeAnswer({ check }: { check: FreeCheck }) {
  const { log, speaker } = useDesk();
  const test = check.test!;
  const pinned = answerTo(log.state.readings, test);
  return (
    <div className="flex items-center gap-2">
      <span className="fig text-pencil">
        {pinned ? valueWords(test.kind, pinned.reading.value, speaker.gaugeUnit) : ''}
      </span>
      <FigureForm
        quantity="pressure"
        label={`${GAUGE_NAMES[speaker.gaugeUnit]} at ${check.subject}`}
        onPin={({ value, typed }) =>
          log.write({
            type: 'reading',
            body: { reading: { ...test, value } as Reading, typed, check: check.id },
            ...(pinned ? { supersedes: pinned.entry.id } : {}),
          })
        }
      />
    </div>
  );
}
