import type { Preferences, Test } from '../../circuit/schema';
import type { JobState } from '../reduceJob';

/** How a job's readings are weighed, wherever that happens: on its page, in the shed, in its report. */
export interface WeighOptions {
  noReach: string[];
  excluded: Test[];
  preferences: Preferences;
  /** As many tests as are listed. */
  most: number;
}

export function weighOptions(
  { noReach, skipped }: Pick<JobState, 'noReach' | 'skipped'>,
  preferences: Preferences,
  most: number,
): WeighOptions {
  return { noReach, excluded: skipped, preferences, most };
}
