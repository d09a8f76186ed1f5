import { InputError } from '../circuit/inputError';
import type { PartOf } from '../circuit/partSchema';

/** When a driver sets each failure mode: by its number. */
export type DriverCodes = NonNullable<PartOf<'driver'>['codes']>;

const LIMIT = /(under|over|<|>)\s*(\d+(?:[.,]\d+)?)\s*A?/gi;
const CODE = new RegExp(`^(\\d{1,2})((?:\\s*${LIMIT.source})+)$`, 'i');

/** Codes of a driver in a line: "5 under 0.1, 6 over 2.2". */
export function writeCodes(codes: DriverCodes = {}): string {
  return Object.entries(codes)
    .map(([mode, { belowAmps, aboveAmps }]) =>
      [
        mode,
        ...(belowAmps === undefined ? [] : [`under ${belowAmps}`]),
        ...(aboveAmps === undefined ? [] : [`over ${aboveAmps}`]),
      ].join(' '),
    )
    .join(', ');
}

/** Reads such a line; nothing for an empty one. Throws {@link InputError} naming the code that is none. */
export function readCodes(text: string): DriverCodes | undefined {
  // Where nothing has a point, a comma between two digits is a decimal one.
  const pieces = text
    .split(text.includes('.') ? /[,;]/ : /,(?!\d)|,(?<!\d,)|;/)
    .map((piece) => piece.trim())
    .filter(Boolean);
  if (pieces.length === 0) return undefined;
  return Object.fromEntries(
    pieces.map((piece) => {
      const match = CODE.exec(piece);
      if (!match)
        throw new InputError(
          'codes',
          `"${piece}" is no code; write the mode and its current, such as 5 under 0.1, 6 over 2.2`,
        );
      const limits = [...match[2]!.matchAll(LIMIT)].map(([, side, amps]) => [
        side === '<' || side!.toLowerCase() === 'under' ? 'belowAmps' : 'aboveAmps',
        Number(amps!.replace(',', '.')),
      ]);
      return [String(Number(match[1])), Object.fromEntries(limits)];
    }),
  );
}
