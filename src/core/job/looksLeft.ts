import type { CircuitModel } from '../circuit/model';
import { lookSaysOf } from '../diagnosis/signs';
import type { Suspect } from '../diagnosis/suspects';
import { freeChecks, type FreeCheck } from './freeChecks';
import type { JobState } from './reduceJob';
import { lookOf } from './rules/weighOptions';

/** Outside checks that nobody has made yet, and that would say something of one of these suspects. */
export function looksLeft(
  model: CircuitModel,
  { looked }: Pick<JobState, 'looked'>,
  suspects: readonly Pick<Suspect, 'part' | 'fault'>[],
): FreeCheck[] {
  const { compiled } = model;
  return freeChecks(model).filter(({ id, test }) => {
    const finding = looked.get(id)?.body.finding;
    if (test !== null || (finding !== undefined && finding !== 'notSeen')) return false;
    const look = lookOf(id);
    return (
      look !== null &&
      suspects.some(({ part, fault }) =>
        lookSaysOf(look, compiled.parts[compiled.partIndex.get(part)!]!.part, fault),
      )
    );
  });
}
