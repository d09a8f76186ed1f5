'use client';

import { useMemo } from 'react';
import type { CircuitModel } from '@/core/circuit/model';
import { gaugeOn } from '@/core/circuit/medium';
import type { Setup } from '@/core/circuit/schema';
import type { GaugeUnit } from '@/core/units/quantities';
import { tryValues } from './tryValues';

/** What stands at each node while a drawing is tried; null while it is not. */
export function useTried(model: CircuitModel | null, setup: Setup, gaugeUnit: GaugeUnit) {
  return useMemo(() => {
    if (!model) return null;
    const { circuit, partIndex } = model.compiled;
    // The drawing on the screen may be a step behind the controls.
    const controls = Object.fromEntries(
      Object.entries(setup.controls ?? {}).filter(([name, position]) =>
        circuit.controls[name]?.includes(position),
      ),
    );
    const isolated = (setup.isolated ?? []).filter((ref) => partIndex.has(ref));
    return tryValues(model, { controls, isolated }, gaugeOn(model, gaugeUnit));
  }, [model, setup, gaugeUnit]);
}
