import type { Preferences, Test } from '../../circuit/schema';
import type { JobState } from '../reduceJob';

/** How a job's readings are weighed, wherever that happens: on its page, in the shed, in its report. */
export interface WeighOptions {
  noReach: string[];
  excluded: Test[];
  preferences: Preferences;
  /** Points that stand locked; not there where nobody locks anything: then what the last reading left counts. */
  locked?: string[];
  /** As many tests as are listed. */
  most: number;
}

export function weighOptions(
  { noReach, skipped, isolated, madeSafe }: Pick<JobState, 'noReach' | 'skipped' | 'isolated' | 'madeSafe'>,
  preferences: Preferences,
  most: number,
): WeighOptions {
  // Where nobody locks anything, the readings alone say how the machine stands.
  const locked = madeSafe || isolated.size > 0 ? { locked: [...isolated.keys()] } : {};
  return { noReach, excluded: skipped, preferences, most, ...locked };
}
