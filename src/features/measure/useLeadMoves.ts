'use client';

import { useCallback } from 'react';
import type { Test } from '@/core/circuit/schema';
import { useDesk } from '../desk/desk';
import { movedLeads, nextPoint, type LeadNodes } from './movedLeads';
import { ownSetup } from './testAddress';
import type { PathOfTest } from './usePathOfTest';

/** Moves the leads along the path, which makes a test of one's own of what was asked for. */
export function useLeadMoves({ pair, leads, lane, view }: PathOfTest, choose: (test: Test) => void) {
  const { model } = useDesk().speaker;
  const { compiled } = model;
  const { layout } = view;
  const setup = lane?.setup;

  /** Moves the nearer lead, or the given one, to a node; leads never stand on the same point. */
  const moveLead = useCallback(
    (node: number, which?: keyof LeadNodes) => {
      if (!layout) return;
      if (compiled.domains[node] === 'fluid') {
        if (node !== compiled.atmosphere)
          choose({ kind: 'pressure', at: compiled.nodeNames[node]!, setup: setup ?? {} });
        return;
      }
      const base = leads ?? { plus: layout.points[0]!.node, minus: compiled.frame };
      const moved = movedLeads(layout, base, node, which);
      if (!moved) return;
      const kind = pair?.kind === 'ohms' ? 'ohms' : 'volts';
      choose({
        kind,
        from: compiled.nodeNames[moved.plus]!,
        to: compiled.nodeNames[moved.minus]!,
        setup: pair && pair.kind === kind ? pair.setup : ownSetup(model, kind, setup ?? {}),
      });
    },
    [choose, compiled, setup, layout, leads, model, pair],
  );
  return {
    moveLead,
    /** The next point along the path for the red lead, or for the black one. */
    stepPoint: (direction: 1 | -1, black: boolean) => {
      if (!layout) return;
      const from = black ? (leads?.minus ?? compiled.frame) : (leads?.plus ?? layout.points[0]!.node);
      moveLead(nextPoint(layout, from, direction), black ? 'minus' : 'plus');
    },
    /** Asks the same two points for something else. */
    setMode: (kind: 'volts' | 'ohms') => {
      if (pair) choose({ kind, from: pair.from, to: pair.to, setup: ownSetup(model, kind, setup ?? {}) });
    },
  };
}
