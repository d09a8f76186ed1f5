import type { Entry } from '../entries';
import { overtakes } from './overtakes';

/**
 * Entries that say "as it stands now": they count only against the newest state. What an entry of a type must not have
 * missed, by type; a type that is not here only adds to the record, and late is as good as early.
 */
const MUST_HAVE_SEEN: Readonly<Partial<Record<Entry['type'], (own: Entry, newer: Entry) => boolean>>> = {
  madeSafe: (_own, { type }) => SAFETY.includes(type),
  reopened: (own, newer) => aboutPoint(own) === aboutPoint(newer) || newer.type === 'madeSafe',
  ledgerOut: (own, newer) => aboutItem(own) === aboutItem(newer),
  ledgerSeen: (own, newer) => aboutItem(own) === aboutItem(newer),
  // What was shown of a machine that somebody has worked on since shows nothing of it.
  proof: (_own, { type }) => type === 'fix',
  handOver: (_own, newer) => overtakes(newer),
};
const SAFETY: readonly Entry['type'][] = [
  'isolation',
  'reopened',
  'madeSafe',
  'joined',
  'redrawn',
  'withdrawal',
];

const aboutPoint = (entry: Entry) =>
  entry.type === 'isolation' || entry.type === 'reopened' ? entry.body.point : Symbol('no point');
const aboutItem = (entry: Entry) =>
  entry.type === 'ledger' || entry.type === 'ledgerOut' || entry.type === 'ledgerSeen'
    ? entry.body.item
    : Symbol('no item');

export function needsNewest({ type }: Entry): boolean {
  return type in MUST_HAVE_SEEN;
}

/**
 * Entries that the writer of `own` had not seen and that change what it says. `newer` are those that the server numbered
 * after the number it was written against; the writer's own that were waiting then it had seen.
 */
export function missedBy(own: Entry, newer: readonly Entry[]): Entry[] {
  const changes = MUST_HAVE_SEEN[own.type];
  if (!changes) return [];
  const seen = new Set(own.against?.own ?? []);
  return newer.filter((entry) => entry.id !== own.id && !seen.has(entry.id) && changes(own, entry));
}
