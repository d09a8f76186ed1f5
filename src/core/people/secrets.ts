import { z } from 'zod';

/** A PIN: short, for gloves, and only on a device of the shed. */
export const LEAST_PIN_DIGITS = 4;
const MOST_PIN_DIGITS = 8;
/** OWASP ASVS 2.1.1: at least twelve characters, and room for a sentence. */
export const LEAST_PASSWORD_LETTERS = 12;
const MOST_PASSWORD_LETTERS = 128;

/** Digits that are one digit again and again, or go up or down by one. */
function isRun(digits: string): boolean {
  const steps = [...digits].slice(1).map((digit, at) => Number(digit) - Number(digits[at]));
  return steps.every((step) => step === steps[0]) && Math.abs(steps[0] ?? 0) <= 1;
}

export const pinSchema = z
  .string()
  .regex(
    new RegExp(`^\\d{${LEAST_PIN_DIGITS},${MOST_PIN_DIGITS}}$`),
    `is no PIN; give ${LEAST_PIN_DIGITS} to ${MOST_PIN_DIGITS} digits`,
  )
  .refine((pin) => !isRun(pin), 'is one that everybody tries first; take digits that do not run');

export const passwordSchema = z
  .string()
  .min(
    LEAST_PASSWORD_LETTERS,
    `is short; take ${LEAST_PASSWORD_LETTERS} characters or more, a sentence is best`,
  )
  .max(MOST_PASSWORD_LETTERS, `is over ${MOST_PASSWORD_LETTERS} characters; make it shorter`)
  .refine((word) => word.isWellFormed(), 'holds half a character; type it again');

/** A name as it signs: kept for good, since what it signed stands for good. */
export const personName = z
  .string()
  .trim()
  .min(1, 'is empty; write the name as it signs')
  .max(60, 'has over 60 characters; make it shorter')
  .refine((name) => name.isWellFormed() && !/\p{Cc}/u.test(name), 'holds characters that are no text');
