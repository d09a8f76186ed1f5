import { isSpent, type Edit } from '../circuit/edits';
import type { World } from '../circuit/world';
import type { CandidateTest } from './candidateTests';
import type { Hypothesis } from './hypotheses';
import { predict } from './predict';
import type { Prediction } from './prediction';

/**
 * What tests would show under hypotheses, each answer worked out once: a look under few hypotheses is the beginning of one under more.
 * Hypotheses are the same where their edits are the same list.
 */
export class Foresight {
  private readonly answers = new Map<CandidateTest, Map<readonly Edit[], Prediction>>();
  /** Whether a fuse opens, by group of tests. */
  private readonly blows = new Map<number, Map<readonly Edit[], boolean>>();

  /** Works out what tests of one group, read from one solution, show under each hypothesis. */
  foresee(group: readonly CandidateTest[], hypotheses: readonly Hypothesis[]): void {
    const { group: key, bound } = group[0]!;
    const blows = this.blows.get(key) ?? new Map<readonly Edit[], boolean>();
    this.blows.set(key, blows);
    const known = group.map((candidate) => {
      const answers = this.answers.get(candidate) ?? new Map<readonly Edit[], Prediction>();
      this.answers.set(candidate, answers);
      return answers;
    });
    for (const { edits } of hypotheses) {
      if (known.every((answers) => answers.has(edits))) continue;
      const world = bound.solver.solve(bound.drive, edits);
      blows.set(edits, opensFuse(world));
      group.forEach((candidate, at) => {
        if (!known[at]!.has(edits))
          known[at]!.set(edits, asked(candidate, edits) ?? candidate.bound.read(world, edits));
      });
    }
  }

  /** What a test that was foreseen shows under each of the hypotheses. */
  predictions(candidate: CandidateTest, hypotheses: readonly Hypothesis[]): Prediction[] {
    const answers = this.answers.get(candidate)!;
    return hypotheses.map(({ edits }) => answers.get(edits)!);
  }

  /** Probability that running the set-up of a group live opens a fuse. */
  blowShare({ group }: CandidateTest, hypotheses: readonly Hypothesis[]): number {
    const blows = this.blows.get(group)!;
    return hypotheses.reduce((sum, { edits, weight }) => sum + (blows.get(edits) ? weight : 0), 0);
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

function opensFuse({ fuseLoad }: World): boolean {
  for (const load of fuseLoad.values()) if (load > 1) return true;
  return false;
}
