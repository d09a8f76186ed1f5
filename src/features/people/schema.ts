import { z } from 'zod';
import { LICENCES, ROLES } from '@/core/people/roles';
import { passwordSchema, personName, pinSchema } from '@/core/people/secrets';

const tried = (most: number) => z.string().min(1).max(most);
const NAME = z.string().trim().min(1, 'Say who it is.').max(60);

/** How somebody proves who they are: a PIN on a device of the shed, a password anywhere, nothing in the demonstration. */
export const signInSchema = z.union([
  z.strictObject({ name: NAME, pin: tried(20) }),
  z.strictObject({ name: NAME, password: tried(200), code: tried(40).optional() }),
  z.strictObject({ name: NAME, demo: z.literal(true) }),
]);
export type SignInAsked = z.infer<typeof signInSchema>;

/** A code beside the password: six digits, or a spare word. */
export const codeSchema = z.string().trim().min(1, 'Type the code that your program shows.').max(40);

/** A second person beside somebody who is signed in. */
export const witnessSchema = z.strictObject({ name: NAME, pin: tried(20) });

export const ownSecretSchema = z.union([
  z.strictObject({ now: z.string().max(200), pin: pinSchema }),
  z.strictObject({ now: z.string().max(200), password: passwordSchema }),
]);

export const newAccountSchema = z.object({
  name: personName,
  role: z.enum(ROLES),
  licences: z.array(z.enum(LICENCES)).max(LICENCES.length),
});

export const accountChangeSchema = z.object({
  role: z.enum(ROLES),
  licences: z.array(z.enum(LICENCES)).max(LICENCES.length),
  closed: z.boolean(),
});

export const deviceName = z.string().trim().max(60, 'has over 60 characters; make it shorter');
