import type { Verdict } from '@/core/diagnosis/verdict';
import { verdictWhy } from './verdict';

const proofs = { have: 1, need: 2, readings: [0, 3], onPart: false };
const testing = { state: 'keepTesting', part: 'Y8', share: 0.94, proofs } as const;

describe('why the verdict is what it is', () => {
  const named: Verdict = {
    state: 'name',
    part: 'Y8',
    fault: 'open',
    share: 0.987,
    proofs,
    clearFirst: [],
    notCleared: [],
    spent: [],
  };
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
    [named, '99 % of the doubt is on Y8, and 2 readings prove it, one of them on the part itself.'],
    [
      { ...named, share: 0.9997 },
      'Over 99 % of the doubt is on Y8, and 2 readings prove it, one of them on the part itself.',
    ],
    [
      { ...named, notCleared: ['W1', 'W2'] },
      '99 % of the doubt is on Y8, and 2 readings prove it, one of them on the part itself. No test at hand shows that W1 and W2 are good as well.',
    ],
    [
      { ...testing, proofs: { ...proofs, have: 2 }, because: 'complaintLeft', reading: 1, again: false },
      'Y8 stands clear, but would leave reading 2 unexplained; watch that once more before it is named.',
    ],
    [
      {
        ...testing,
        proofs,
        because: 'complaintLeft',
        reading: 1,
        again: false,
      },
      'Y8 stands clear, but would leave reading 2 unexplained; find out why before it is named.',
    ],
    [
      { ...testing, because: 'complaintLeft', reading: 1, again: true },
      'Y8 stands clear, but would leave reading 2 unexplained, and so it was when it was watched again: something else is wrong as well, or the drawing is.',
    ],
    [
      { ...testing, because: 'wayNotShown', parts: ['G1', 'F7', 'W1', 'W2', 'S3'] },
      'Y8 is proved bad; that G1, F7, W1 and 2 more are good has not been shown yet.',
    ],
    [
      { ...testing, because: 'rivalOpen', rival: 'H1', rivalShare: 0.054 },
      'Y8 stands clear, but H1 might still be it with 5 %, and nothing has been read on it.',
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
