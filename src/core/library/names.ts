import { z } from 'zod';

/**
 * What things of a shed may be called. One place for the forms, the server and an archive from another shed: what could not
 * be typed cannot be taken in either.
 */
export const machineNames = z.object({
  code: z
    .string()
    .trim()
    .min(1, 'Give the machine a short code, such as G-5.')
    .max(20, 'A code has at most 20 characters.')
    // A dot alone, or two, means something else in an address.
    .regex(
      /^[\p{L}\p{N}][\p{L}\p{N}._ -]*$/u,
      'A code is letters, figures, dots and dashes, a letter or figure first.',
    ),
  name: z.string().trim().min(2, 'Say what the machine is.').max(120, 'A name has at most 120 characters.'),
});
/** Class of equipment, in the shop's own words; empty where nobody said. */
export const equipmentName = z
  .string()
  .trim()
  .max(60, 'A class of equipment has at most 60 characters.')
  .regex(/^[^|]*$/, 'A class of equipment has no upright stroke in it.');
export const functionName = z
  .string()
  .trim()
  .min(2, 'Give the function a name.')
  .max(160, 'A name has at most 160 characters.');
export const sheetName = z
  .string()
  .trim()
  .min(1, 'Give the sheet a name.')
  .max(120, 'A name has at most 120 characters.');
const share = z.number().min(0).max(1);
/** A part's pin: where on its sheet it stands, as shares of width and height. */
export const sheetPin = z.object({ part: z.string().trim().min(1).max(60), x: share, y: share });
