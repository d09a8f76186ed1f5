import { InputError } from '../circuit/inputError';
import type { PartOf } from '../circuit/partSchema';

/** What a controller's page calls an output's bits. */
export type DriverBits = NonNullable<PartOf<'driver'>['bits']>;

const BIT = /^(command|feedback)\s+(\S.*)$/i;

/** Bits of an output in a line: "command Clamp down, feedback Clamp is on". */
export function writeBits({ command, feedback }: DriverBits = {}): string {
  return [
    ...(command === undefined ? [] : [`command ${command}`]),
    ...(feedback === undefined ? [] : [`feedback ${feedback}`]),
  ].join(', ');
}

/** Reads such a line; nothing for an empty one. Throws {@link InputError} naming what is no bit. */
export function readBits(text: string): DriverBits | undefined {
  const pieces = text
    .split(/[,;]/)
    .map((piece) => piece.trim())
    .filter(Boolean);
  if (pieces.length === 0) return undefined;
  const bits: DriverBits = {};
  for (const piece of pieces) {
    const [, which, called] = BIT.exec(piece) ?? [];
    if (!which || !called)
      throw new InputError(
        'bits',
        `"${piece}" is no bit; write command or feedback and what the page calls it, such as command Clamp down`,
      );
    const key = which.toLowerCase() as keyof DriverBits;
    if (bits[key] !== undefined) throw new InputError('bits', `has the ${key} bit twice; leave one of them`);
    bits[key] = called;
  }
  return bits;
}
