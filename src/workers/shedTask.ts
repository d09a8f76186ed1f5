import { gaugeOn } from '@/core/circuit/medium';
import { CircuitModel } from '@/core/circuit/model';
import { findLanes } from '@/core/path/lanes';
import { placeTitles } from '@/words/en/trends';
import type { Circuit } from '@/core/circuit/schema';
import { functionTrends, type PlaceMeasure, type Repair, type TitledTrend } from '@/core/shed/functionTrends';
import { exposureOf, learnOdds, type LearntOdds, type ProvedFault } from '@/core/shed/learntOdds';
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
export function shedTask(task: ShedTask): { trends: TitledTrend[] } | { learnt: LearntOdds } {
  if (task.do === 'trends') {
    const model = new CircuitModel(task.circuit);
    // A title says no pressure: the unit of gauges is of no account here.
    const speaker = { model, lanes: findLanes(model), gaugeUnit: gaugeOn(model, 'bar') };
    const trends = functionTrends(model, task.measures, task.repairs, task.marks);
    const titles = placeTitles(speaker, trends);
    return { trends: trends.map((one, k) => ({ ...one, title: titles[k]! })) };
  }
  const exposures = task.types.map(({ circuit }) => exposureOf(new CircuitModel(circuit)));
  return {
    learnt: learnOdds(
      exposures,
      task.types.map(({ key }) => key),
      task.jobs,
    ),
  };
}
