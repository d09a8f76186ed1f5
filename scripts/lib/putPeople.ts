import { DEMO_PEOPLE, DEMO_PIN } from '../../demo/people';
import { samePerson } from '../../src/core/people/roles';
import { personName } from '../../src/core/people/secrets';
import { ONE_TIME_HOURS } from '../../src/core/people/session';
import { insertAccount, listAccounts, putSecret } from '../../src/db/people';
import { hashSecret, newWord } from '../../src/features/people/secrets';

const HOUR_MS = 3_600_000;

/** The people of the demonstration, where nobody works here yet. */
export async function putDemoPeople(now: number): Promise<void> {
  if ((await listAccounts()).length > 0) return;
  for (const one of DEMO_PEOPLE)
    await insertAccount({ ...one, pinHash: await hashSecret(DEMO_PIN), at: new Date(now) });
}

/**
 * The first lead of a shed of one's own, where nobody works here yet: gives the word to sign in with, once. Throws where `called` is no
 * name that can sign.
 */
export async function putFirstLead(
  now: number,
  called = process.env.SPIRAXIS_LEAD || 'Lead',
): Promise<{ name: string; word: string } | null> {
  if ((await listAccounts()).length > 0) return null;
  const said = personName.safeParse(called);
  if (!said.success) throw new Error(`the lead’s name "${called}" ${said.error.issues[0]!.message}`);
  const [name, word] = [said.data, newWord()];
  const id = await insertAccount({
    name,
    role: 'lead',
    licences: [],
    passwordHash: await hashSecret(word),
    oneTimeUntil: new Date(now + ONE_TIME_HOURS * HOUR_MS),
    at: new Date(now),
  });
  return id === null ? null : { name, word };
}

/**
 * A new word for a lead, for a shed that came without anybody's secrets and for a last lead who lost theirs: the first of the leads, or
 * the one that is named. Password, PIN and code are good no longer. Null where there is no such lead.
 */
export async function putWordForLead(
  now: number,
  called?: string,
): Promise<{ name: string; word: string } | null> {
  const lead = (await listAccounts()).find(
    ({ role, closed_at, name }) =>
      role === 'lead' && closed_at === null && (called === undefined || samePerson(name, called)),
  );
  if (!lead) return null;
  const word = newWord();
  const oneTimeUntil = new Date(now + ONE_TIME_HOURS * HOUR_MS);
  await putSecret(lead.id, { passwordHash: await hashSecret(word), oneTimeUntil }, { at: new Date(now) });
  return { name: lead.name, word };
}
