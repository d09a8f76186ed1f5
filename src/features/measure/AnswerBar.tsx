'use client';

import { useState } from 'react';
import type { Test } from '@/core/circuit/schema';
import type { RankedTest } from '@/core/diagnosis/rankTests';
import type { PutBack } from '@/core/job/rules/putBack';
import { lazyPart } from '@/ui/lazyPart';
import { useDesk } from '../desk/desk';
import { Keyline, meaningOf } from './Keyline';
import type { Answer } from './useAnswer';
import type { useHold } from './useHold';
import type { MeterInUse } from './useMeterInUse';

const HandsFull = lazyPart(() => import('./HandsFull').then((one) => one.HandsFull));

/** The keyline along the bottom edge, and the same figure in the large for who has no hand free. */
export function AnswerBar({
  ranked,
  answer,
  hold,
  meter,
  back,
  onMeter,
  onNotTried,
}: {
  /** Nothing stands there while none is asked for. */
  ranked: RankedTest | undefined;
  answer: Answer;
  hold: ReturnType<typeof useHold>;
  meter: MeterInUse;
  back: PutBack;
  onMeter: () => void;
  onNotTried: (test: Test) => void;
}) {
  const { speaker } = useDesk();
  const [folded, setFolded] = useState(true);
  const [large, setLarge] = useState(false);
  const { text, check, askAgain, onPin } = answer;
  const { blocked, shut } = hold;
  if (!ranked) return null;
  const said = { speaker, ranked, check, askAgain, blocked, shut, live: meter.live };
  return (
    <>
      <Keyline
        {...said}
        text={text}
        folded={folded}
        onFold={() => setFolded(!folded)}
        onKey={answer.onKey}
        onErase={answer.onErase}
        meterName={meter.profile.name}
        onMeter={onMeter}
        onLarge={() => setLarge(true)}
        onPin={onPin}
        onChoice={answer.pinChoice}
        onNotTried={() => onNotTried(ranked.test)}
      />
      {large ? (
        <HandsFull
          speaker={speaker}
          ranked={ranked}
          text={text}
          meaning={meaningOf(said)}
          live={meter.live}
          hold={hold.words}
          back={back}
          blocked={blocked}
          onPin={onPin}
          onClose={() => setLarge(false)}
        />
      ) : null}
    </>
  );
}
