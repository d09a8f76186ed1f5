import type { CoilCondition } from '@/core/trace/conditions';

/** What each condition of a coil is called in a list, and where its trace is told as a reading. */
export const CONDITION_WORDS: Readonly<Record<CoilCondition, string>> = {
  sound: 'as it was when it was sound',
  nothing: 'nothing flows',
  starved: 'too little reaches it',
  shortedTurns: 'turns shorted',
  jammedOut: 'stays out',
  jammedIn: 'stays in',
  slow: 'moves late, held up on its way',
  weakSpring: 'moves early, spring weak',
  bare: 'suppression gone',
};
