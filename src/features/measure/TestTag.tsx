'use client';

import { capital } from '@/words/en/capital';
import { ChevronDown } from 'lucide-react';
import { useState } from 'react';
import type { Reading, Test } from '@/core/circuit/schema';
import type { RankedTest } from '@/core/diagnosis/rankTests';
import type { PutBack } from '@/core/job/rules/putBack';
import type { Verdict } from '@/core/diagnosis/verdict';
import { lazyPart } from '@/ui/lazyPart';
import { DEFERENCE, HoldSign } from '@/ui/sheet';
import { minutesWords } from '@/words/en/minutes';
import { LazyMenu } from '@/ui/LazyMenu';
import { OtherTests } from './OtherTests';
import { outcomeLetter } from './typedValue';
import { bandWords, goesToWords, ONLY_ANSWER, reasonWords, thenWords } from '@/words/en/answers';
import { modeName, pointName, testPlace, type Speaker } from '@/words/en/readings';
import { setupSteps } from '@/words/en/setupSteps';

const ProbePicture = lazyPart(() => import('./ProbePicture').then((one) => one.ProbePicture));
const WhatIf = lazyPart(() => import('./WhatIf').then((one) => one.WhatIf));

/** More would push the set-up off the tag. */
const MOST_YARDSTICKS = 2;
/** Up to so many answers leave room under them; with more there is some beside them. */
const FEW_ANSWERS = 3;

export interface TestTagProps {
  speaker: Speaker;
  ranked: RankedTest;
  others: readonly RankedTest[];
  verdict: Verdict;
  /** Chosen by the person, not by the program. */
  own: boolean;
  lit: number | null;
  /** The worst thing first, and whether it must be ticked before a value can be typed. */
  hold: { text: string; mustTick: boolean };
  held: boolean;
  onHeld: (held: boolean) => void;
  onChoose: (test: Test | null) => void;
  onMode: (kind: 'volts' | 'ohms') => void;
  onNoReach: (node: string) => void;
  onSkip: (test: Test) => void;
  /** Code readings with a plug off or two loads swapped, offered whatever they rank. */
  unplug: readonly Test[];
  /** Why its answer may not mean what it seems to. */
  mind: string | null;
  /** What its answer is held against and where that comes from, the most trusted first. */
  heldAgainst: readonly string[];
  whatIf: Reading | null;
  onWhatIf: (reading: Reading | null) => void;
  /** What goes back to how it was before it. */
  back: PutBack;
  /** More about this test, between its answers and its foot. */
  below?: React.ReactNode;
}

/** The next test: where the leads go, the set-up, what each answer would mean, and the hold. */
export function TestTag(props: TestTagProps) {
  const { speaker, ranked, others, verdict, own, lit, onChoose, onNoReach, onSkip } = props;
  const { test, outcomes } = ranked;
  const steps = setupSteps(speaker, test, props.back);
  const [supposing, setSupposing] = useState(false);
  const frame = speaker.model.compiled.circuit.frame;
  const unreachable = 'from' in test ? (test.from === frame ? test.to : test.from) : null;
  return (
    <section
      aria-label="Next test"
      className="relative flex min-h-0 min-w-0 flex-col border-2 border-ink bg-sheet"
      data-testid="next-test"
      data-test={JSON.stringify(test)}
    >
      <div className="flex min-h-[52px] shrink-0 items-center gap-x-4 border-b-[1.5px] border-rule px-4 max-tablet:px-3">
        <TestTitle {...props} />
        <p className="ml-auto text-right text-[16px] leading-5 text-copper-ink max-tablet:hidden">
          {own ? 'Your own choice' : reasonWords(ranked, verdict)}
        </p>
      </div>
      <div
        role="group"
        aria-label="Set-up and answers"
        tabIndex={0}
        className="grid min-h-0 flex-1 overflow-y-auto grid-cols-[236px_1fr] desk:max-xl:grid-cols-[180px_1fr] max-tablet:grid-cols-1"
      >
        <ol className="min-h-0 overflow-y-auto px-4 py-2 text-[16.5px] leading-[1.25] max-tablet:py-1.5">
          {steps.map((step, at) => (
            <li key={step} className="flex gap-2.5 py-[3px]">
              <span className="fig text-[15px] leading-[21px]">{at + 1}</span>
              <span>{step}</span>
            </li>
          ))}
          <ProbePicture key={JSON.stringify(test)} test={test} />
          {outcomes.length > FEW_ANSWERS ? <Yardsticks {...props} as="li" /> : null}
          {props.hold.mustTick ? null : (
            <li className="hidden pt-1 text-[15px] text-ink2 desk:max-xl:block">{DEFERENCE}</li>
          )}
        </ol>
        <div className="border-l border-rule max-tablet:border-t max-tablet:border-l-0">
          <table className="w-full border-collapse text-left">
            <thead className="text-[15px] text-ink2 max-tablet:sr-only">
              <tr className="h-7 border-b-[1.5px] border-rule">
                <th className="w-9" aria-label="Answer" />
                <th className="w-[24%] font-[550]">If it reads</th>
                <th className="font-[550]">Then</th>
                <th className="w-[26%] font-[550]">Doubt goes to</th>
              </tr>
            </thead>
            <tbody>
              {outcomes.map((outcome, at) => (
                <tr
                  key={`${String(outcome.reading)}-${at}`}
                  data-lit={lit === at}
                  className="border-b-[1.5px] border-rule align-middle last:border-b-0 data-[lit=true]:bg-pencil-t data-[lit=true]:shadow-[inset_6px_0_0_var(--pencil)]"
                >
                  <td className="py-[4px] pr-2 pl-3.5 text-[17px] font-[750]">{outcomeLetter(at)}</td>
                  <td className="fig-bold py-[4px] pr-3 text-[15.5px] leading-[19px] tablet:whitespace-nowrap">
                    {bandWords(test.kind, outcome, speaker.gaugeUnit)}
                  </td>
                  <td className="py-[4px] pr-2 text-[15.5px] leading-[19px]">{thenWords(ranked, outcome)}</td>
                  <td className="py-[4px] pr-2 text-[15.5px] leading-[19px] font-[650] text-copper-ink max-tablet:hidden">
                    {goesToWords(outcome)}
                  </td>
                </tr>
              ))}
              {outcomes.length === 1 ? (
                <tr>
                  <td colSpan={4} className="py-[4px] pr-2 pl-3.5 text-[15.5px] leading-[19px] text-ink2">
                    {ONLY_ANSWER}
                  </td>
                </tr>
              ) : null}
            </tbody>
          </table>
          {outcomes.length > FEW_ANSWERS ? null : <Yardsticks {...props} as="p" />}
        </div>
      </div>
      {supposing ? (
        <WhatIf key={JSON.stringify(test)} ranked={ranked} whatIf={props.whatIf} onWhatIf={props.onWhatIf} />
      ) : null}
      {props.below}
      {props.hold.mustTick ? <Hold {...props} /> : null}
      <div
        className={`flex min-h-[46px] shrink-0 items-stretch bg-well max-tablet:flex-wrap ${props.hold.mustTick ? 'border-t border-edge' : 'border-t-2 border-ink'}`}
      >
        {props.hold.mustTick ? (
          <p className="flex min-w-0 flex-1 items-center px-4 py-1 text-[15px] leading-[17px] text-ink2 max-tablet:basis-full">
            {DEFERENCE}
          </p>
        ) : (
          <Hold {...props} />
        )}
        <div className="ml-auto flex items-stretch max-tablet:w-full max-tablet:border-t max-tablet:border-edge">
          {own ? (
            <TagButton onClick={() => onChoose(null)}>Best test</TagButton>
          ) : unreachable ? (
            <TagButton onClick={() => onNoReach(unreachable)}>
              Can’t reach {pointName(speaker, unreachable)}
            </TagButton>
          ) : (
            <TagButton onClick={() => onSkip(test)}>Can’t do this</TagButton>
          )}
          {'from' in test || test.kind === 'amps' || test.kind === 'pressure' ? (
            <TagButton
              onClick={() => {
                setSupposing(!supposing);
                props.onWhatIf(null);
              }}
            >
              What if
            </TagButton>
          ) : null}
          <OtherTests speaker={speaker} others={others} unplug={props.unplug} onChoose={onChoose} />
        </div>
      </div>
    </section>
  );
}

/** What the answer is held against, and why it may not mean what it seems to. */
function Yardsticks({ heldAgainst, mind, as: Line }: TestTagProps & { as: 'li' | 'p' }) {
  const room = Line === 'p' ? 'px-3.5 py-1' : 'pt-1';
  return (
    <>
      {heldAgainst.slice(0, MOST_YARDSTICKS).map((line) => (
        <Line
          key={line}
          className={`${room} text-[15.5px] leading-[18px] text-verdi`}
          data-testid="held-against"
        >
          {line}
        </Line>
      ))}
      {mind ? (
        <Line className={`${room} text-[15.5px] leading-[18px] text-copper-ink`} data-testid="mind">
          {mind}
        </Line>
      ) : null}
    </>
  );
}

function TestTitle({ speaker, ranked, onMode }: TestTagProps) {
  const { test, minutes } = ranked;
  const mode = modeName(speaker, test);
  const time = minutesWords(minutes);
  if (!('from' in test)) {
    return (
      <h2 className="flex min-w-0 items-baseline gap-3 text-[21px] font-[800]">
        <span className="fig-bold text-[19px]">{testPlace(speaker, test)}</span>
        <span className="truncate text-[17px] font-[600]">
          {mode}, {time}
        </span>
      </h2>
    );
  }
  return (
    <h2 className="flex min-w-0 items-center gap-2.5 text-[21px] font-[800]">
      <Dot ink="pencil">{pointName(speaker, test.from)}</Dot>
      to
      <Dot ink="ink">{pointName(speaker, test.to)}</Dot>
      <LazyMenu
        trigger={
          <button
            type="button"
            className="ml-1 flex min-h-11 items-center gap-1 text-[17px] font-[600] whitespace-nowrap"
            aria-label={`${mode}, ${time}. Change the meter mode`}
          >
            {capital(mode)}, {time}
            <ChevronDown size={15} aria-hidden />
          </button>
        }
      >
        {({ Panel, Item }) => (
          <Panel>
            <Item onSelect={() => onMode('volts')}>Volts, power on</Item>
            <Item onSelect={() => onMode('ohms')}>Ohms, power off</Item>
          </Panel>
        )}
      </LazyMenu>
    </h2>
  );
}

function Dot({ ink, children }: { ink: 'pencil' | 'ink'; children: string }) {
  return (
    <span
      className={`fig-bold flex h-8 min-w-8 items-center justify-center rounded-full px-1.5 text-[16px] text-sheet ${
        ink === 'pencil' ? 'bg-pencil' : 'bg-ink'
      }`}
    >
      {children}
    </span>
  );
}

/** What can hurt. One that must be ticked has a row to itself, so that it reads in one go and leaves the answers their room. */
function Hold({ hold: { text, mustTick }, held, onHeld }: TestTagProps) {
  return (
    <div
      className={`flex min-w-0 items-center gap-3 px-4 py-1.5 ${mustTick ? 'shrink-0 border-t-2 border-ink bg-well' : 'flex-1'}`}
    >
      <HoldSign />
      <p className="min-w-0 text-[15.5px] leading-[18px] font-[650]">
        {text}
        {mustTick ? null : <span className="font-[550] text-ink2 desk:max-xl:hidden"> {DEFERENCE}</span>}
      </p>
      {mustTick ? (
        <label className="-my-1.5 ml-auto flex min-h-11 shrink-0 items-center gap-2 border-l border-edge pl-4 text-[16px] font-[700]">
          <input
            type="checkbox"
            className="size-6 accent-pencil"
            checked={held}
            onChange={(event) => onHeld(event.target.checked)}
            data-hold
          />
          Clear
        </label>
      ) : null}
    </div>
  );
}

function TagButton({ children, onClick }: { children: React.ReactNode; onClick: () => void }) {
  return (
    <button
      type="button"
      onClick={onClick}
      className="min-h-11 flex-1 border-l border-edge bg-sheet px-3.5 text-[16px] font-[650] whitespace-nowrap"
    >
      {children}
    </button>
  );
}
