import 'server-only';
import type { Entry } from '@/core/job/entries';
import type { Person } from '@/core/people/roles';
import { isStillGood, WITNESS_MINUTES } from '@/core/people/session';
import { findWitness, insertWitness, spendWitness } from '@/db/people';
import type { Signed } from './session';

/** A second person who gave their PIN for an entry. */
export interface Witness {
  accountId: string;
  person: Person;
}

/**
 * Who stood by, entry by entry: a PIN given to this writer a moment ago, and used for no other entry. One that is none of
 * that counts as nobody, and the rules of the core say what follows.
 */
export async function witnessesOf(
  entries: readonly Entry[],
  who: Signed,
  now: Date,
): Promise<Map<string, Witness>> {
  const found = new Map<string, Witness>();
  for (const { id, witness } of entries) {
    if (witness === undefined) continue;
    const given = await findWitness(witness);
    if (!given || given.writerId !== who.accountId || given.account.closed_at !== null) continue;
    // What was used for this very entry is good however late it is sent again.
    if (given.entryId !== id && !isStillGood(given.madeAt, WITNESS_MINUTES, now)) continue;
    if (!(await spendWitness(witness, id))) continue;
    const { id: accountId, name, role, licences } = given.account;
    found.set(id, { accountId, person: { name, role, licences } });
  }
  return found;
}

/** Keeps that somebody gave their PIN beside a writer; gives what the entry names it by. */
export function giveWitness(accountId: string, writer: Signed, now: Date): Promise<string> {
  return insertWitness(accountId, writer.accountId, now);
}
