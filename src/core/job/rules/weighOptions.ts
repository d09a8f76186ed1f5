import { LOOKED_AT } from '../../circuit/circumstances';
import type { Preferences, Test } from '../../circuit/schema';
import type { Mended } from '../../diagnosis/observations';
import type { Look, Signs } from '../../diagnosis/signs';
import type { JobState } from '../reduceJob';

/** How a job's readings are weighed, wherever that happens: on its page, in the shed, in its report. */
export interface WeighOptions {
  noReach: string[];
  excluded: Test[];
  preferences: Preferences;
  /** Points that stand locked; not there where nobody locks anything: then what the last reading left counts. */
  locked?: string[];
  signs: Signs;
  /** What was repaired or renewed while the readings were taken. */
  mended: Mended[];
  /** As many tests as are listed. */
  most: number;
}

type Weighed = Pick<JobState, 'noReach' | 'skipped' | 'isolated' | 'madeSafe' | 'when' | 'looked' | 'mended'>;

export function weighOptions(
  { noReach, skipped, isolated, madeSafe, when, looked, mended }: Weighed,
  preferences: Preferences,
  most: number,
): WeighOptions {
  // Where nobody locks anything, the readings alone say how the machine stands.
  const locked = madeSafe || isolated.size > 0 ? { locked: [...isolated.keys()] } : {};
  return {
    noReach,
    excluded: skipped,
    preferences,
    most,
    ...locked,
    signs: { when, looks: looksOf(looked) },
    mended,
  };
}

/** Looks of the outside checks that no meter takes; what was not seen says nothing. */
function looksOf(looked: JobState['looked']): Look[] {
  return [...looked.values()].flatMap(({ body: { check, finding } }): Look[] => {
    const look = finding === 'notSeen' ? null : lookOf(check);
    return look ? [{ ...look, good: finding === 'good' }] : [];
  });
}

/** Looks that put a hand on what moves: made once nothing can move it. */
const BY_HAND: readonly Look['at'][] = ['rod', 'rotor'];

/** What an outside check, by its id, has a hand put to; null where no hand goes to what moves. */
export function handedBy(check: string): string | null {
  const look = lookOf(check);
  return look && BY_HAND.includes(look.at) ? (look.subject ?? '') : null;
}

/** What an outside check looks at, by its id; null for one that a reading answers. */
export function lookOf(check: string): Omit<Look, 'good'> | null {
  if (check === 'water') return { at: 'water', subject: null };
  const [at, ...words] = check.split(' ');
  const of = LOOKED_AT.find((one) => one === at);
  return of === undefined || of === 'water' ? null : { at: of, subject: words.join(' ') };
}
