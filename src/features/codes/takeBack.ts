import type { BookRow } from '@/core/codes/bookRow';
import { codeKey, lookUp, meansOf } from '@/core/codes/codeBook';
import { codeReading, type CodedDriver } from '@/core/diagnosis/codeEvidence';
import type { Entry } from '@/core/job/entries';
import { orderLog, type JobCode, type JobState } from '@/core/job/reduceJob';
import { answerTo } from '@/core/job/answerTo';
import type { Draft } from '../desk/log/JobLog';

/**
 * What takes a code back that never was: its entries are withdrawn, and it leaves the reading it was evidence in. All of
 * it stays in the record, struck through.
 */
export function takeBack(
  { key, entry }: JobCode,
  entries: readonly Entry[],
  state: Pick<JobState, 'readings'>,
  drivers: readonly CodedDriver[],
  book: readonly BookRow[],
): Draft[] {
  const { ordered, superseded } = orderLog(entries);
  const own = ordered.filter(
    (one) => one.type === 'code' && !superseded.has(one.id) && codeKey(one.body) === key,
  );
  const withdrawn = own.map(({ id }): Draft => ({ type: 'withdrawal', supersedes: id, body: {} }));
  const driver = drivers.find(({ part }) => part === entry.body.part);
  const mode = lookUp(book, entry.body)[0]?.means ?? meansOf(entry.body);
  if (!driver || mode === null) return withdrawn;
  const pinned = answerTo(state.readings, { kind: 'code', part: driver.part, setup: driver.setup });
  const modes = pinned?.reading.value;
  if (!pinned || !Array.isArray(modes) || !modes.includes(mode)) return withdrawn;
  const left = modes.filter((one) => one !== mode);
  if (left.length === 0) return [...withdrawn, { type: 'withdrawal', supersedes: pinned.entry.id, body: {} }];
  const reading = codeReading(driver, left);
  return [
    ...withdrawn,
    { type: 'reading', body: { reading, typed: left.join(', ') }, supersedes: pinned.entry.id },
  ];
}
