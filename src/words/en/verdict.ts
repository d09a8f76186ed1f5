import type { Verdict } from '@/core/diagnosis/verdict';

const percent = (share: number) => `${Math.round(share * 100)} %`;

/** Why the verdict is what it is, in a sentence. */
export function verdictWhy(verdict: Verdict): string {
  switch (verdict.state) {
    case 'name':
      return `${percent(verdict.share)} of the doubt is on ${verdict.part}, and ${verdict.proofs.readings.length} readings prove it, one of them on the part itself.`;
    case 'noFault':
      return 'Every reading is what a sound circuit gives.';
    case 'unexplained':
      return `No single or double fault fits all readings; reading ${verdict.reading + 1} fits worst. It, or the drawing, is wrong.`;
    case 'keepTesting': {
      const { part = '', share = 0, proofs } = verdict;
      switch (verdict.because) {
        case 'noReading':
          return 'No reading yet.';
        case 'noSuspect':
          return 'No suspect.';
        case 'tooLittle':
          return `${part} leads with ${percent(share)}; ${percent(verdict.needed)} is needed.`;
        case 'misfit':
          return `${part} stands clear, but reading ${verdict.retake + 1} does not fit it; take that one again.`;
        case 'proofMissing':
          return proofs?.onPart
            ? `${part} stands clear; one more reading of another kind or place is needed.`
            : `${part} stands clear; a reading on ${part} itself is needed before it is named.`;
      }
    }
  }
}
