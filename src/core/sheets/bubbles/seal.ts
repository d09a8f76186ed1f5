/** What bubbles at both end stops of a piston say of its seal (reference `fluid-power.md` section 3). */
export type SealFinding = 'tight' | 'rodLipOrCapBore' | 'capLipOrRodBore' | 'failed';

/** `true` where bubbles come at that end; null while one end was not tried: a piston that is tight at one end may leak at the other. */
export function tellSeal(retracted: boolean | null, extended: boolean | null): SealFinding | null {
  if (retracted === null || extended === null) return null;
  if (retracted && extended) return 'failed';
  if (retracted) return 'rodLipOrCapBore';
  return extended ? 'capLipOrRodBore' : 'tight';
}
