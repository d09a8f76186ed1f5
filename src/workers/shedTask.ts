import { CircuitModel } from '@/core/circuit/model';
import type { Circuit } from '@/core/circuit/schema';
import { functionTrends, type PlaceMeasure, type PlaceTrend, type Repair } from '@/core/shed/functionTrends';
import {
  exposureOf,
  learnOdds,
  type LearntOdds,
  type ProvedFault,
} from '@/core/shed/learntOdds';
import type { ShopMarks } from '@/core/tables/marks';

export type ShedTask =
  | {
      do: 'trends';
      circuit: Circuit;
      measures: readonly PlaceMeasure[];
      repairs: readonly Repair[];
      marks: ShopMarks;
    }
  | { do: 'learn'; types: readonly { key: string; circuit: Circuit }[]; jobs: readonly ProvedFault[] };

/** What is worked out over many jobs at once. */
export function shedTask(task: ShedTask): { trends: PlaceTrend[] } | { learnt: LearntOdds } {
  if (task.do === 'trends')
    return {
      trends: functionTrends(new CircuitModel(task.circuit), task.measures, task.repairs, task.marks),
    };
  const exposures = task.types.map(({ circuit }) => exposureOf(new CircuitModel(circuit)));
  return {
    learnt: learnOdds(
      exposures,
      task.types.map(({ key }) => key),
      task.jobs,
    ),
  };
}
