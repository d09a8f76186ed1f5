'use client';

import { useMemo, useState } from 'react';
import type { Test } from '@/core/circuit/schema';
import { testKey } from '@/core/diagnosis/observations';
import type { RankedTest } from '@/core/diagnosis/rankTests';
import { isolationPlan } from '@/core/safety/isolationPlan';
import { putIn } from '@/core/safety/putIn';
import { testGate, type TestGate } from '@/core/job/rules/testGate';
import { useDesk } from '../desk/desk';
import { gateWords, holdWords, shutWords } from '@/words/en/holds';
import { modeName, testPlace } from '@/words/en/readings';

/** What must be clear before a test is taken, whether it is, and what taking it leaves in the record. */
export function useHold(ranked: Pick<RankedTest, 'test' | 'cautions'> | undefined) {
  const { speaker, log, job } = useDesk();
  const { model } = speaker;
  const plan = useMemo(() => isolationPlan(model), [model]);
  const [clearedFor, setClearedFor] = useState('');
  const test = ranked?.test;
  const gate = useMemo<TestGate>(
    () => (test ? testGate(model, plan, log.state, test, job.me) : { state: 'free' }),
    [model, plan, log.state, test, job.me],
  );
  const worst = holdWords(ranked?.cautions ?? []);
  const opens = gateWords(gate);
  const mustTick = worst.mustTick || opens !== null;
  const shut = shutWords(gate) !== null;
  const held = test !== undefined && clearedFor === testKey(test);

  /** A bridge is in from here on, also if no reading ever comes of it. */
  const notePutIn = (setup: Test['setup']) => {
    // What is in still needs no second line; what came out goes in anew.
    const known = new Set(log.state.ledger.filter(({ out }) => !out).map(({ entry }) => entry.body.item));
    for (const body of putIn(setup)) if (!known.has(body.item)) log.write({ type: 'ledger', body });
  };

  /** Ticks the hold; where it opens points of the isolation, the record says so. */
  const tick = (ticked: boolean) => {
    if (!test || shut) return;
    setClearedFor(ticked ? testKey(test) : '');
    if (!ticked) return;
    if (test.setup.jumpers) notePutIn(test.setup);
    if (gate.state === 'open') {
      const reason = `${testPlace(speaker, test)}, ${modeName(speaker, test)}`;
      for (const point of gate.points)
        log.write({ type: 'reopened', body: { point, reason, setup: test.setup } });
    }
  };

  return {
    /** The worst thing that can happen first, then what is opened or closed for it. Where it stays shut there is nothing to tick. */
    words: { text: opens ? `${worst.text} ${opens}` : worst.text, mustTick: mustTick && !shut },
    held,
    blocked: shut || (mustTick && !held),
    shut,
    gate,
    plan,
    tick,
  };
}
