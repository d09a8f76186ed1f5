import type { Entry, EntryOf } from '../entries';

/**
 * What, arriving after a machine was handed over, whoever handed it over did not know and would have had to: a tablet in a dead spot had a
 * jumper in, or a lock on. Complete by type: an entry that nobody thought of does not pass in silence.
 */
const OVERTAKES: { readonly [T in Entry['type']]: boolean | ((entry: EntryOf<T>) => boolean) } = {
  complaint: true,
  code: ({ body }) => body.present,
  reading: true,
  trace: false,
  retest: false,
  joined: true,
  redrawn: true,
  noReach: false,
  skippedTest: false,
  isolation: true,
  // What is opened, out or seen to be out takes nothing from a machine that was shown sound.
  reopened: false,
  madeSafe: false,
  photo: false,
  wire: ({ body }) => body.phase === 'found',
  looked: false,
  ledger: true,
  ledgerOut: false,
  ledgerSeen: false,
  decision: true,
  opinion: ({ body }) => body.says === 'sendBack',
  fix: true,
  spareTest: false,
  proof: ({ body }) => !body.done,
  handOver: false,
  withdrawal: true,
};

/**
 * Whether a hand-over that did not know of an entry is none: it is refused where the entry came first, and stands no more where it came
 * later; the machine is in hand again until somebody who knows it hands it over.
 */
export function overtakes(entry: Entry): boolean {
  const rule = OVERTAKES[entry.type] as boolean | ((entry: Entry) => boolean);
  return typeof rule === 'boolean' ? rule : rule(entry);
}
