'use client';

import { useMemo } from 'react';
import type { Reading, Test } from '@/core/circuit/schema';
import { swapTests, unplugTests } from '@/core/diagnosis/codeEvidence';
import { meaningLimits } from '@/core/diagnosis/meaningLimits';
import { testKey } from '@/core/diagnosis/observations';
import type { RankedTest } from '@/core/diagnosis/rankTests';
import type { Verdict } from '@/core/diagnosis/verdict';
import { yardsticks } from '@/core/diagnosis/yardsticks';
import type { PutBack } from '@/core/job/rules/putBack';
import { lazyPart } from '@/ui/lazyPart';
import { limitWords, yardstickWords } from '@/words/en/answers';
import { useDesk } from '../desk/desk';
import { GateClosed } from './GateClosed';
import { TestTag } from './TestTag';
import type { Answer } from './useAnswer';
import type { useHold } from './useHold';

// What most tests never show comes when it is called for: the screen is on the way to a tablet in the cold.
const BusAnswer = lazyPart(() => import('../bus/BusAnswer').then((one) => one.BusAnswer));
const InMachine = lazyPart(() => import('../prove/InMachine').then((one) => one.InMachine));
const ListenForClick = lazyPart(() => import('./ListenForClick').then((one) => one.ListenForClick));

/** The test that is asked for, with all that is known of its answer before it is there. */
export function AskedTag({
  ranked,
  others,
  verdict,
  own,
  back,
  inMachine,
  answer,
  hold,
  whatIf,
  onWhatIf,
  onChoose,
  onMode,
  onLetGo,
  onSkip,
}: {
  ranked: RankedTest;
  others: readonly RankedTest[];
  verdict: Verdict;
  /** Chosen by the person, not by the program. */
  own: boolean;
  back: PutBack;
  /** Something that was put in for a test is still in. */
  inMachine: boolean;
  answer: Answer;
  hold: ReturnType<typeof useHold>;
  whatIf: Reading | null;
  onWhatIf: (reading: Reading | null) => void;
  onChoose: (test: Test | null) => void;
  onMode: (kind: 'volts' | 'ohms') => void;
  onLetGo: () => void;
  onSkip: (test: Test) => void;
}) {
  const { job, speaker, log, readings } = useDesk();
  const { model } = speaker;
  const { test } = ranked;
  const { past, marks, policy } = job;
  const { baselines } = past;
  const unplug = useMemo(() => [...unplugTests(model), ...swapTests(model)], [model]);
  const limits = useMemo(() => meaningLimits(model, test), [model, test]);
  const heldAgainst = useMemo(
    () =>
      yardsticks(model, test, { readings, baselines, marks }).map((one) =>
        yardstickWords(test.kind, one, policy.timeZone, policy.gaugeUnit),
      ),
    [model, test, readings, baselines, marks, policy],
  );
  return (
    <TestTag
      speaker={speaker}
      ranked={ranked}
      others={others}
      verdict={verdict}
      own={own}
      back={back}
      lit={answer.lit}
      held={hold.held}
      hold={hold.words}
      onHeld={answer.tick}
      onChoose={onChoose}
      onMode={onMode}
      onNoReach={(node) => {
        onLetGo();
        log.write({ type: 'noReach', body: { node } });
      }}
      unplug={unplug}
      heldAgainst={heldAgainst}
      mind={limits[0] ? limitWords(speaker, limits[0]) : null}
      whatIf={whatIf}
      onWhatIf={onWhatIf}
      below={
        <>
          {inMachine ? <InMachine /> : null}
          {hold.shut ? (
            <GateClosed gate={hold.gate} plan={hold.plan} />
          ) : test.kind === 'click' ? (
            <ListenForClick key={testKey(test)} />
          ) : test.kind === 'code' ? (
            <BusAnswer test={test} onTake={answer.pinChoice} key={testKey(test)} />
          ) : null}
        </>
      }
      onSkip={onSkip}
    />
  );
}
