import type { Preferences } from '@/core/circuit/schema';
import type { Policy } from './policy';

/** The policy as the engine takes it. */
export function preferencesOf({ order, jumpers, liveWork, lockLine, lockControl }: Policy): Preferences {
  return {
    order,
    noJumpers: !jumpers,
    noLiveWork: !liveWork,
    lockMinutes: { line: lockLine, control: lockControl },
  };
}
