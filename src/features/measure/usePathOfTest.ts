'use client';

import { useMemo } from 'react';
import type { Test } from '@/core/circuit/schema';
import { chooseLane, drivenAs } from '@/core/path/chooseLane';
import { evenStandings } from '@/core/path/evenStandings';
import { useDesk } from '../desk/desk';
import { pinsOf } from './pins';
import { usePathView } from './usePathView';

export type PathOfTest = ReturnType<typeof usePathOfTest>;

/**
 * What of a test stands on the path: its leads or its gauge, the lane that it is on, and what was read there.
 *
 * @param laneId the lane that somebody called up; null where the test says which
 * @param low whether the path gives room to what stands under it
 */
export function usePathOfTest(test: Test | undefined, laneId: string | null, low: boolean) {
  const { speaker, outlook, readings } = useDesk();
  const { model, lanes } = speaker;
  const { nodeIndex, parts } = model.compiled;
  const pair = test && 'from' in test ? test : null;
  const leads = useMemo(
    () => (pair ? { plus: nodeIndex.get(pair.from)!, minus: nodeIndex.get(pair.to)! } : null),
    [pair, nodeIndex],
  );
  const gauge =
    test && (test.kind === 'pressure' || test.kind === 'flow') ? (nodeIndex.get(test.at) ?? null) : null;
  const asked = useMemo(
    () => (leads ? [leads.plus, leads.minus] : gauge === null ? [] : [gauge]),
    [leads, gauge],
  );
  const standings = useMemo(() => outlook?.standings ?? evenStandings(parts.length), [outlook, parts]);
  const lane = useMemo(() => {
    const called = lanes.lanes.find(({ id }) => id === laneId);
    const setup = test?.setup;
    return called
      ? drivenAs(lanes, called, [setup])
      : chooseLane(lanes, { asked, setup, standings }, readings);
  }, [lanes, laneId, test, asked, standings, readings]);
  const view = usePathView(speaker, lane, standings, asked, low);
  const { pins, spans } = useMemo(
    () => (lane ? pinsOf(speaker, lane, readings) : { pins: [], spans: [] }),
    [speaker, lane, readings],
  );
  return { pair, leads, gauge, standings, lane, view, pins, spans };
}
