import 'server-only';
import { sealData, unsealData } from 'iron-session';
import { Secret, TOTP } from 'otpauth';
import { z } from 'zod';
import { confirmCode, putCode, spendCodeStep, spendCodeWord, type AccountRow } from '@/db/people';
import { keyHash, newWord } from './secrets';
import { sealingPassword, type Signed } from './session';

/** RFC 6238 as every program of this kind takes it: six digits, half a minute. */
const PERIOD_S = 30;
const SECRET_BYTES = 20;
/** A clock may be one interval off either way. */
const WINDOW = 1;
const SPARE_WORDS = 8;
const DIGITS = /^\d{6}$/;

const sealed = z.object({ code: z.string() });

function totp(secret: Secret, name: string): TOTP {
  return new TOTP({
    issuer: 'Spiraxis',
    label: name,
    secret,
    period: PERIOD_S,
    digits: 6,
    algorithm: 'SHA1',
  });
}

/** The secret as it was sealed; null where another server sealed it, or nobody did. */
async function opened(kept: string | null): Promise<Secret | null> {
  if (kept === null) return null;
  const parsed = sealed.safeParse(await unsealData(kept, { password: sealingPassword(), ttl: 0 }));
  return parsed.success ? Secret.fromBase32(parsed.data.code) : null;
}

/** Makes a secret that is good from its first code on; what stands already is not touched: null then. */
export async function beginCode(who: Signed): Promise<{ secret: string; address: string } | null> {
  const secret = new Secret({ size: SECRET_BYTES });
  const kept = await sealData({ code: secret.base32 }, { password: sealingPassword(), ttl: 0 });
  if (!(await putCode(who.accountId, kept))) return null;
  return { secret: secret.base32.replace(/(.{4})(?=.)/g, '$1 '), address: totp(secret, who.name).toString() };
}

/** Takes the first code; from then on one is asked for. Gives the spare words, which are shown once; null where the code is wrong. */
export async function acceptCode(
  account: AccountRow,
  code: string,
  { sessionHash }: Signed,
  now: Date,
): Promise<string[] | null> {
  const step = await stepOf(account, code, now);
  if (step === null) return null;
  const words = Array.from({ length: SPARE_WORDS }, newWord);
  const done = await confirmCode(account.id, {
    at: now,
    step,
    words: words.map(keyHash),
    exceptKey: sessionHash,
  });
  return done ? words : null;
}

/** Whether what was typed is the account's code of now, or one of its spare words. Either is good once. */
export async function isCode(account: AccountRow, typed: string, now: Date): Promise<boolean> {
  const text = typed.trim().toLowerCase();
  if (!DIGITS.test(text.replaceAll(' ', ''))) return spendCodeWord(account.id, keyHash(text));
  const step = await stepOf(account, text, now);
  return step !== null && spendCodeStep(account.id, step);
}

/** The interval that a code is of; null where it is of none near now. */
async function stepOf({ code_secret, name }: AccountRow, code: string, now: Date): Promise<number | null> {
  const secret = await opened(code_secret);
  const token = code.replaceAll(' ', '');
  if (!secret || !DIGITS.test(token)) return null;
  const delta = totp(secret, name).validate({ token, timestamp: now.getTime(), window: WINDOW });
  return delta === null ? null : Math.floor(now.getTime() / (1000 * PERIOD_S)) + delta;
}
