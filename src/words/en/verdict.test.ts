import type { Verdict } from '@/core/diagnosis/verdict';
import { verdictWhy } from './verdict';

const proofs = { have: 1, need: 2, readings: [0, 3], onPart: false };
const testing = { state: 'keepTesting', part: 'Y8', share: 0.94, proofs } as const;

describe('why the verdict is what it is', () => {
  it.each<[Verdict, string]>([
    [{ state: 'keepTesting', because: 'noReading' }, 'No reading yet.'],
    [{ state: 'keepTesting', because: 'noSuspect' }, 'No suspect.'],
    [{ ...testing, share: 0.164, because: 'tooLittle', needed: 0.9 }, 'Y8 leads with 16 %; 90 % is needed.'],
    [
      { ...testing, because: 'misfit', retake: 1 },
      'Y8 stands clear, but reading 2 does not fit it; take that one again.',
    ],
    [
      { ...testing, because: 'proofMissing' },
      'Y8 stands clear; a reading on Y8 itself is needed before it is named.',
    ],
    [
      { ...testing, proofs: { ...proofs, onPart: true }, because: 'proofMissing' },
      'Y8 stands clear; one more reading of another kind or place is needed.',
    ],
    [
      { state: 'name', part: 'Y8', fault: 'open', share: 0.987, proofs, clearFirst: [] },
      '99 % of the doubt is on Y8, and 2 readings prove it, one of them on the part itself.',
    ],
    [{ state: 'noFault', share: 0.95, unseen: [] }, 'Every reading is what a sound circuit gives.'],
    [
      { state: 'unexplained', reading: 2, wouldNeed: [] },
      'No single or double fault fits all readings; reading 3 fits worst. It, or the drawing, is wrong.',
    ],
  ])('%j: %s', (verdict, words) => {
    expect(verdictWhy(verdict)).toBe(words);
  });
});
