import type { Reading, Setup } from '@/core/circuit/schema';
import type { CoilFeatures } from '@/core/trace/coilFeatures';
import type { CoilCondition } from '@/core/trace/conditions';
import { CONDITION_WORDS } from '@/words/en/conditions';
import { quantity } from '@/words/en/readings';

/**
 * What a trace of the fault counts as: the current it settles at, and of a plunger what its shape is named or, where it has no name, whether it
 * moved. Each with how it stands in the record.
 */
export function readingsOfTrace(
  part: string,
  setup: Setup,
  {
    settledAmps,
    plunger,
  }: {
    settledAmps: number | null;
    /** Null of what is watched for its start or its pulses. */
    plunger: { named: CoilCondition | null; moved: CoilFeatures['moved'] } | null;
  },
): { reading: Reading; typed: string }[] {
  const readings: { reading: Reading; typed: string }[] = [];
  if (settledAmps !== null)
    readings.push({
      reading: { kind: 'amps', through: part, setup, value: settledAmps },
      typed: `trace settles at ${quantity('amps', settledAmps)}`,
    });
  if (!plunger) return readings;
  const { named, moved } = plunger;
  if (named !== null)
    readings.push({
      reading: { kind: 'trace', part, setup, value: named },
      typed: `trace: ${CONDITION_WORDS[named]}`,
    });
  else if (moved !== null)
    readings.push({
      reading: { kind: 'click', part, setup, value: moved },
      typed: moved ? 'trace: it moved' : 'trace: no dip',
    });
  return readings;
}
