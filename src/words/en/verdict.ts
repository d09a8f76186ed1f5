import type { Verdict } from '@/core/diagnosis/verdict';
import { capital } from './capital';
import { listWords } from './listWords';

/** No reading makes a part certain: above this a share is said to be over it, not rounded up to all. */
const NEARLY_ALL = 0.99;

/** A share of the doubt: "87 %", "over 99 %". */
export function shareWords(share: number): string {
  return share > NEARLY_ALL ? `over ${100 * NEARLY_ALL} %` : `${Math.round(share * 100)} %`;
}

const MOST_LISTED = 4;

/** Why the verdict is what it is, in a sentence; a reading by its number where it is not `quoted`. */
export function verdictWhy(
  verdict: Verdict,
  quoted: (reading: number) => string = (reading) => `reading ${reading + 1}`,
): string {
  switch (verdict.state) {
    case 'name':
      return (
        `${capital(shareWords(verdict.share))} of the doubt is on ${verdict.part}, and ` +
        (verdict.proofs.readings.length > 1
          ? `${verdict.proofs.readings.length} readings prove it, one of them on the part itself.`
          : 'a reading on the part itself proves it; nothing else is left.') +
        (verdict.notCleared.length > 0
          ? ` No test at hand shows that ${listWords(verdict.notCleared, 'and', MOST_LISTED)} ${verdict.notCleared.length > 1 ? 'are' : 'is'} good as well.`
          : '')
      );
    case 'noFault':
      return 'Every reading is what a sound circuit gives.';
    case 'unexplained':
      return `No single or double fault fits all readings; ${quoted(verdict.reading)} fits worst. It, or the drawing, is wrong.`;
    case 'keepTesting': {
      const { part = '', share = 0, proofs } = verdict;
      switch (verdict.because) {
        case 'noReading':
          return 'No reading yet.';
        case 'noSuspect':
          return 'No suspect.';
        case 'tooLittle':
          return `${part} leads with ${shareWords(share)}; ${shareWords(verdict.needed)} is needed.`;
        case 'misfit':
          return `${part} stands clear, but ${quoted(verdict.retake)} does not fit it; take that one again.`;
        case 'complaintLeft':
          return (
            `${part} stands clear, but would leave ${quoted(verdict.reading)} unexplained` +
            (verdict.again
              ? ', and so it was when it was watched again: something else is wrong as well, or the drawing is.'
              : proofs && proofs.have < proofs.need
                ? '; find out why before it is named.'
                : '; watch that once more before it is named.')
          );
        case 'wayNotShown':
          return `${part} is proved bad; that ${listWords(verdict.parts, 'and', MOST_LISTED)} ${verdict.parts.length > 1 ? 'are' : 'is'} good has not been shown yet.`;
        case 'programOpen':
          return `${verdict.part} leads, and nobody has looked whether its program asks for it at all: its page says it.`;
        case 'rivalOpen':
          return `${part} stands clear, but ${verdict.rival} might still be it with ${shareWords(verdict.rivalShare)}, and nothing has been read on it.`;
        case 'proofMissing':
          return proofs?.onPart
            ? `${part} stands clear; one more reading of another kind or place is needed.`
            : `${part} stands clear; a reading on ${part} itself is needed before it is named.`;
      }
    }
  }
}
