'use client';

import { Check, X } from 'lucide-react';
import type { Reading } from '@/core/circuit/schema';
import type { RankedTest } from '@/core/diagnosis/rankTests';
import type { Outlook } from '@/workers/protocol';
import { DEFERENCE, HoldSign } from '@/ui/sheet';
import { looksLeft } from '@/core/job/looksLeft';
import { LEAST_LEFT, leftBetween } from '@/core/diagnosis/leftBetween';
import type { Suspect } from '@/core/diagnosis/suspects';
import { checkWords } from '@/words/en/checks';
import { BeforeChange } from '../desk/BeforeChange';
import { useDesk } from '../desk/desk';
import { StepLink } from '../desk/StepLink';
import {
  badWords,
  evidenceWords,
  causeWords,
  clearWords,
  faultWords,
  proofLines,
  provedWords,
} from '@/words/en/findings';
import { capital } from '@/words/en/capital';
import { leftTitle, leftWords } from '@/words/en/leftBetween';
import { shareWords, verdictWhy } from '@/words/en/verdict';
import { partWords, readingWords, testPlace, modeName, type Speaker } from '@/words/en/readings';

/** In place of the next test when the evidence is enough: what it is, why, and what to clear before a new part goes in. */
export function VerdictTag({
  speaker,
  outlook,
  readings,
  next,
  onGoOn,
}: {
  speaker: Speaker;
  outlook: Outlook;
  readings: readonly Reading[];
  next: RankedTest | undefined;
  onGoOn: () => void;
}) {
  const { verdict, suspects } = outlook.diagnosis;
  if (verdict.state === 'keepTesting') return <NothingLeft speaker={speaker} suspects={suspects} />;
  const suspect = verdict.state === 'name' ? suspects.find(({ part }) => part === verdict.part)! : null;
  return (
    <section
      aria-label="Verdict"
      data-testid="verdict"
      data-state={verdict.state}
      className="flex min-h-0 min-w-0 flex-col border-2 border-ink bg-sheet"
    >
      <div className="flex min-h-[52px] shrink-0 items-center gap-3 border-b-[1.5px] border-rule px-4">
        {verdict.state === 'name' && suspect ? (
          <>
            <span className="flex items-center gap-2 bg-stamp px-3 py-1 text-[18px] font-[780] text-sheet">
              <X size={20} strokeWidth={3.5} aria-hidden /> {capital(provedWords(verdict.fault))}
            </span>
            <h2 className="truncate text-[21px] font-[800]">{partWords(speaker, verdict.part)}</h2>
            <p className="ml-auto text-right text-[16px] text-stamp">
              {badWords(speaker, suspects, verdict.part)}
            </p>
          </>
        ) : verdict.state === 'noFault' ? (
          <h2 className="flex items-center gap-2 text-[21px] font-[800] text-verdi">
            <Check size={22} strokeWidth={3} aria-hidden /> Nothing wrong found here
          </h2>
        ) : (
          <h2 className="text-[21px] font-[800]">The readings and the drawing do not agree</h2>
        )}
      </div>
      <div className="min-h-0 flex-1 overflow-y-auto px-4 py-2 text-[16.5px]">
        {verdict.state === 'name' && suspect ? (
          <dl className="grid grid-cols-[120px_1fr] gap-x-3 gap-y-1.5">
            <dt className="font-[750]">Proved by</dt>
            <dd>
              {proofLines(speaker, suspect, verdict.proofs, readings).map((line) => (
                <p key={line}>{line}</p>
              ))}
            </dd>
            <dt className="font-[750]">Against</dt>
            <dd>{evidenceWords(speaker, suspect.against, readings)}</dd>
            <dt className="font-[750]">First clear</dt>
            <dd>
              {verdict.clearFirst.length > 0
                ? verdict.clearFirst.map((one) => <p key={one.part + one.reason}>{clearWords(one)}</p>)
                : causeWords(speaker, verdict.part, suspect.fault)}
            </dd>
            <dt className="font-[750]">Doubt</dt>
            <dd>{capital(shareWords(verdict.share))} on this part, by the readings above.</dd>
          </dl>
        ) : null}
        {verdict.state === 'noFault' ? (
          <>
            <p>
              {verdictWhy(verdict)} If the complaint is real it comes and goes, or sits where nothing was
              read.
            </p>
            {verdict.unseen.length > 0 ? (
              <p className="mt-2">
                Not looked at: {[...new Set(verdict.unseen.map(({ part }) => part))].join(', ')}.
              </p>
            ) : null}
          </>
        ) : null}
        {verdict.state === 'unexplained' ? (
          <p>
            Fits worst: <strong>{readingWords(speaker, readings[verdict.reading]!)}</strong>. Take it again in
            the same set-up. If it stays, compare the wires with the drawing: it would need{' '}
            {verdict.wouldNeed.map((one) => `${one.part} ${faultWords(speaker, one)}`).join(', or ')}.
          </p>
        ) : null}
      </div>
      <div className="flex min-h-[48px] shrink-0 items-stretch border-t-2 border-ink bg-well">
        <div className="flex flex-1 items-center gap-3 px-4 py-1.5">
          <ChangeHold />
        </div>
        {next ? (
          <button
            type="button"
            onClick={onGoOn}
            className="min-h-11 border-l border-edge bg-sheet px-4 text-[16px] font-[650]"
          >
            One more test: {testPlace(speaker, next.test)}, {modeName(speaker, next.test)}
          </button>
        ) : null}
      </div>
    </section>
  );
}

/** What goes before any change, beside its sign. */
function ChangeHold() {
  return (
    <>
      <HoldSign />
      <p className="text-[15.5px] leading-[18px] font-[650]">
        <BeforeChange /> <span className="font-[550] text-ink2">{DEFERENCE}</span>
      </p>
    </>
  );
}

function NothingLeft({ speaker, suspects }: { speaker: Speaker; suspects: readonly Suspect[] }) {
  const { log } = useDesk();
  const between = leftBetween(speaker.model, suspects);
  const left = looksLeft(
    speaker.model,
    log.state,
    suspects.filter(({ share }) => share >= LEAST_LEFT),
  );
  return (
    <section aria-label="Next test" className="border-2 border-ink bg-sheet p-5" data-testid="nothing-left">
      <h2 className="text-[21px] font-[800]">{leftTitle(between)}</h2>
      {leftWords(between).map((line) => (
        <p key={line} className="mt-2">
          {line}
        </p>
      ))}
      {log.state.noReach.length + log.state.skipped.length > 0 ? (
        <p className="mt-2">
          What was marked out of reach or passed over may be worth it after all: press its point on the path.
        </p>
      ) : null}
      <div className="mt-3 flex items-center gap-3">
        <ChangeHold />
      </div>
      {left.length > 0 ? (
        <>
          <p className="mt-2">Not looked at yet, and it would tell:</p>
          <ul className="mt-1">
            {left.map((check) => {
              const [what, how] = checkWords(speaker, check);
              return (
                <li key={check.id}>
                  <strong className="font-[700]">{what}</strong> <span className="text-ink2">{how}</span>
                </li>
              );
            })}
          </ul>
          <StepLink step="as-found" className="inline-block min-h-11 py-2.5 underline underline-offset-4">
            Look and listen
          </StepLink>
        </>
      ) : null}
    </section>
  );
}
