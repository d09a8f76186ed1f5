import 'server-only';
import { RateLimiterMemory, RateLimiterRes } from 'rate-limiter-flexible';
import { inThisShed, ofProcess } from '@/db/shed';
import type { Signed } from '../people/session';
import { Refused } from './failure';

/** Far more than hands can do: twenty a second for a minute. What is above it is a loop, or somebody who wants to break it. */
const USUAL_A_MINUTE = 1200;
const MOST_A_MINUTE = callsAMinute(process.env.SPIRAXIS_CALLS_A_MINUTE);

/** What the keeper set; the usual where that is no whole number from 1: a slip of the pen takes no limit away. */
export function callsAMinute(set: string | undefined): number {
  return set !== undefined && /^[1-9]\d{0,8}$/.test(set) ? Number(set) : USUAL_A_MINUTE;
}

const calls = ofProcess('calls', () => new RateLimiterMemory({ points: MOST_A_MINUTE, duration: 60 }));

/** Counts one call of somebody on a device. Throws {@link Refused} with 429 where there were too many. */
export async function countCall({ accountId, device }: Signed): Promise<void> {
  try {
    await calls.consume(inThisShed(`${accountId} ${device.id}`));
  } catch (error) {
    if (!(error instanceof RateLimiterRes)) throw error;
    const seconds = Math.max(1, Math.ceil(error.msBeforeNext / 1000));
    throw new Refused(
      429,
      'too-many',
      `Over ${MOST_A_MINUTE} calls a minute came from this device. Nothing was lost; go on in ${seconds} s.`,
      seconds,
    );
  }
}
