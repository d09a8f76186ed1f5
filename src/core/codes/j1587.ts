const DIAGNOSTIC = 194;

/** A fault of SAE J1587 as sent in parameter 194. */
export interface J1587Code {
  /** Sender. */
  mid: number;
  /** Number of the measured thing (`pid`) or of the part (`sid`). */
  number: number;
  isPart: boolean;
  failureMode: number;
  active: boolean;
  /** Occurrences; `null` where not counted. */
  count: number | null;
}

/** Reads a message of sender, parameter 194 and checksum; `null` when it is none or its checksum is wrong. */
export function decodeJ1587(bytes: readonly number[]): J1587Code[] | null {
  if (bytes.length < 5 || bytes.length > 21 || bytes[1] !== DIAGNOSTIC) return null;
  if (bytes.reduce((sum, byte) => sum + byte, 0) % 256 !== 0) return null;
  const length = bytes[2]!;
  const codes: J1587Code[] = [];
  const end = Math.min(3 + length, bytes.length - 1);
  for (let at = 3; at + 2 <= end;) {
    const [number, character] = [bytes[at]!, bytes[at + 1]!];
    const counted = (character & 0x80) !== 0;
    codes.push({
      mid: bytes[0]!,
      number,
      isPart: (character & 0x10) !== 0,
      failureMode: character & 15,
      active: (character & 0x40) === 0,
      count: counted ? (bytes[at + 2] ?? null) : null,
    });
    at += counted ? 3 : 2;
  }
  return codes;
}

/** The message for one fault, checksum last. */
export function encodeJ1587({ mid, number, isPart, failureMode, active, count }: J1587Code): number[] {
  const character =
    (count === null ? 0 : 0x80) | (active ? 0 : 0x40) | 0x20 | (isPart ? 0x10 : 0) | (failureMode & 15);
  const item = count === null ? [number, character] : [number, character, count];
  const body = [mid, DIAGNOSTIC, item.length, ...item];
  const sum = body.reduce((total, byte) => total + byte, 0);
  return [...body, (256 - (sum % 256)) % 256];
}
