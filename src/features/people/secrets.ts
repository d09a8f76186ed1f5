import { createHash, randomBytes, randomInt } from 'node:crypto';
import { hash, verify } from '@node-rs/argon2';

/** OWASP's least for argon2id, which is this package's own choice of kind: 19 MiB, two rounds, one lane. */
const COST = { memoryCost: 19_456, timeCost: 2, parallelism: 1 };
const KEY_BYTES = 32;

export function hashSecret(secret: string): Promise<string> {
  return hash(secret.normalize('NFC'), COST);
}

/** A hash that no secret fits, so that a name nobody bears takes as long as one that somebody does. */
let nobody: Promise<string> | null = null;

/** Whether a secret is the one that was kept. Where nothing was kept it takes as long, and is not. */
export async function isSecret(kept: string | null, secret: string): Promise<boolean> {
  const against = kept ?? (await (nobody ??= hashSecret(randomBytes(KEY_BYTES).toString('base64'))));
  const fits = await verify(against, secret.normalize('NFC'));
  return fits && kept !== null;
}

/** A key that nobody guesses. */
export function newKey(): string {
  return randomBytes(KEY_BYTES).toString('base64url');
}

/** How a key is kept: who reads the table has no key. It is random, so that nothing slower is needed. */
export function keyHash(key: string): string {
  return createHash('sha256').update(key).digest('hex');
}

/** Letters and digits that are not taken for one another when they are read aloud or from paper. */
const PLAIN = 'abcdefghjkmnpqrstuvwxyz23456789';
const GROUPS = 4;
const GROUP_LETTERS = 4;

/** A word for one first sign-in: 79 bits, in groups that can be written on paper. */
export function newWord(): string {
  const group = () => Array.from({ length: GROUP_LETTERS }, () => PLAIN[randomInt(PLAIN.length)]).join('');
  return Array.from({ length: GROUPS }, group).join('-');
}
