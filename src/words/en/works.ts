import type { EntryOf } from '@/core/job/entries';
import { partWords, type Speaker } from './readings';

type Fix = EntryOf<'fix'>['body'];
type Decision = EntryOf<'decision'>['body'];

/** What was decided, and on what: "Repair X8.1 coil plug pin 1". */
export function decisionWords(speaker: Speaker, { action, part }: Decision): string {
  const what = { repair: 'Repair', replace: 'Replace', nothing: 'Change nothing' }[action];
  return part ? `${what} ${partWords(speaker, part)}` : what;
}

/** What was done, and to what: "X8.1 coil plug pin 1: crimped anew". */
export function workWords(speaker: Speaker, { part, work }: Fix): string {
  return part ? `${partWords(speaker, part)}: ${work}` : work;
}

/** What was fitted for it and how, each in a few words. */
export function fittedWords({ spare, serial, dated, torque, seals, untested }: Fix): string[] {
  return [
    spare && `spare ${spare}`,
    serial && `serial ${serial}`,
    dated && `dated ${dated}`,
    torque && `torque ${torque}`,
    seals && `seals ${seals}`,
    untested && `spare not read on the bench, because ${untested}`,
  ].flatMap((one) => (one ? [one] : []));
}

/** Said of a work after which a proof failed. */
export const STILL_WRONG = 'something was still wrong after it';
