'use client';

import { useSearchParams } from 'next/navigation';
import { useCallback, useEffect, useState } from 'react';
import type { Test } from '@/core/circuit/schema';
import { testKey } from '@/core/diagnosis/observations';
import type { RankedTest } from '@/core/diagnosis/rankTests';
import { useDesk } from '../desk/desk';
import { chosenTest, NO_TEST, testToParams } from './testAddress';

/** The test that is asked for: the best one, one of the list, or one of the person's own, which the address keeps. */
export interface AskedTest {
  /** A test was chosen instead of the best one. */
  chosen: Test | null;
  ranked: RankedTest | undefined;
  /** Why a test of one's own cannot be taken; empty where it can. */
  trouble: string;
  laneId: string | null;
  /** Keeps what was chosen in the address, so that a reload and a shared link show the same. */
  go: (changes: Record<string, string | null>) => void;
  /** Asks for a test, or for the best one again. */
  ask: (wanted: Test | null) => void;
  /**
   * Somebody has begun on the test that is asked for: said that all is clear, or typed. What arrives meanwhile (a point
   * opened for this very test, another one's reading) does not put another test under their hands.
   */
  begin: () => void;
  /** They have let go of it. */
  letGo: () => void;
}

export function useAskedTest(goOn: boolean): AskedTest {
  const { speaker, outlook, evaluate } = useDesk();
  const params = useSearchParams();
  const [own, setOwn] = useState<RankedTest | null>(null);
  const [trouble, setTrouble] = useState('');
  const [inHand, setInHand] = useState<RankedTest | null>(null);

  const next = outlook?.diagnosis.next ?? [];
  const chosen = chosenTest(params, speaker, next);
  const wanted = chosen ?? inHand?.test ?? null;
  const wantedKey = wanted ? testKey(wanted) : '';
  // As text, so that the same test on the next render is the same.
  const wantedText = wanted ? JSON.stringify(wanted) : '';
  const listed = wanted ? next.find(({ test }) => testKey(test) === wantedKey) : undefined;
  const isListed = listed !== undefined;

  // A test of the person's own is worked out like any other, after every reading.
  useEffect(() => {
    let current = true;
    setTrouble('');
    if (wantedText === '' || isListed) {
      setOwn(null);
      return;
    }
    void evaluate(JSON.parse(wantedText) as Test).then((answer) => {
      if (!current) return;
      if (typeof answer === 'string') setTrouble(answer);
      else setOwn(answer);
    });
    return () => {
      current = false;
    };
  }, [wantedText, isListed, evaluate]);

  const state = outlook?.diagnosis.verdict.state ?? 'keepTesting';
  const concluded = state !== 'keepTesting' && !wanted && !goOn;
  // While another test of one's own is worked out, the one before it is not the one that would be pinned.
  const mine = [own, inHand].find((one) => one && testKey(one.test) === wantedKey) ?? undefined;
  const ranked = concluded ? undefined : wanted ? (listed ?? mine) : next[0];

  const go = useCallback((changes: Record<string, string | null>) => {
    const url = new URL(window.location.href);
    for (const [key, value] of Object.entries(changes)) {
      if (value === null) url.searchParams.delete(key);
      else url.searchParams.set(key, value);
    }
    window.history.replaceState(null, '', url);
  }, []);
  const ask = useCallback(
    (wanted: Test | null) => {
      setInHand(null);
      go(wanted ? testToParams(speaker, wanted) : NO_TEST);
    },
    [go, speaker],
  );
  const begin = () => setInHand(ranked ?? null);
  const letGo = useCallback(() => setInHand(null), []);
  return { chosen, ranked, trouble, laneId: params.get('lane'), go, ask, begin, letGo };
}
