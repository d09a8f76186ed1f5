'use client';

import { useEffect } from 'react';
import type { CircuitModel } from '@/core/circuit/model';
import type { Test } from '@/core/circuit/schema';
import type { LiveReading } from '@/core/instrument/offered';
import type { LiveSource } from './liveSource';
import { useLiveMeter } from './useLiveMeter';

/** Listens to the chosen meter for a screen that loads it only where there is one. Shows nothing itself. */
export function LiveMeter({
  source,
  model,
  machine,
  functionName,
  test,
  onReading,
}: {
  source: LiveSource;
  model: CircuitModel;
  machine: string;
  functionName: string;
  test: Test | undefined;
  onReading: (reading: LiveReading) => void;
}) {
  const reading = useLiveMeter(source, model, { machine, function: functionName }, test);
  useEffect(() => onReading(reading), [reading, onReading]);
  return null;
}
