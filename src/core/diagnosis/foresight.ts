import { isSpent, type Edit } from '../circuit/edits';
import { fuseTaken } from '../circuit/world';
import type { CandidateTest } from './candidateTests';
import type { Hypothesis } from './hypotheses';
import { predict } from './predict';
import type { Prediction } from './prediction';

/**
 * What tests would show under hypotheses, each answer worked out once: a look under few hypotheses is the beginning of one under more.
 * Hypotheses are the same where their edits are the same list.
 */
export class Foresight {
  /** Number of each list of edits: where its answers lie. */
  private readonly numbers = new Map<readonly Edit[], number>();
  private last: { hypotheses: readonly Hypothesis[]; numbers: readonly number[] } | null = null;
  private readonly answers = new Map<CandidateTest, Prediction[]>();
  /** Whether a fuse opens, by group of tests. */
  private readonly blows = new Map<number, boolean[]>();

  /** Works out what tests of one group, read from one solution, show under each hypothesis. */
  foresee(group: readonly CandidateTest[], hypotheses: readonly Hypothesis[]): void {
    const { group: key, bound } = group[0]!;
    const blows = this.blows.get(key) ?? [];
    this.blows.set(key, blows);
    const known = group.map((candidate) => {
      const answers = this.answers.get(candidate) ?? [];
      this.answers.set(candidate, answers);
      return answers;
    });
    const numbers = this.numbersOf(hypotheses);
    for (let h = 0; h < hypotheses.length; h++) {
      const number = numbers[h]!;
      if (known.every((answers) => answers[number] !== undefined)) continue;
      const { edits } = hypotheses[h]!;
      const world = bound.solver.solve(bound.drive, edits);
      blows[number] = fuseTaken(world) >= 0;
      for (let at = 0; at < group.length; at++) {
        const candidate = group[at]!;
        known[at]![number] ??= asked(candidate, edits) ?? candidate.bound.read(world, edits);
      }
    }
  }

  /** What a test that was foreseen shows under each of the hypotheses. */
  predictions(candidate: CandidateTest, hypotheses: readonly Hypothesis[]): Prediction[] {
    const answers = this.answers.get(candidate)!;
    return this.numbersOf(hypotheses).map((number) => answers[number]!);
  }

  /** Probability that running the set-up of a group live opens a fuse. */
  blowShare({ group }: CandidateTest, hypotheses: readonly Hypothesis[]): number {
    const blows = this.blows.get(group)!;
    const numbers = this.numbersOf(hypotheses);
    return hypotheses.reduce((sum, { weight }, h) => sum + (blows[numbers[h]!] ? weight : 0), 0);
  }

  private numbersOf(hypotheses: readonly Hypothesis[]): readonly number[] {
    if (this.last?.hypotheses !== hypotheses) {
      const numbers = hypotheses.map(({ edits }) => {
        const known = this.numbers.get(edits) ?? this.numbers.size;
        this.numbers.set(edits, known);
        return known;
      });
      this.last = { hypotheses, numbers };
    }
    return this.last.numbers;
  }
}

/** Who is asked to watch a fuse puts a new one in where it is gone; null for all else. */
function asked({ bound }: CandidateTest, edits: readonly Edit[]): Prediction | null {
  if (bound.test.kind !== 'fuse' || !edits.some(isSpent)) return null;
  return predict(
    bound,
    edits.filter((edit) => !isSpent(edit)),
  );
}
