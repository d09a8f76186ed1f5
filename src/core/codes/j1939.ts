/** Active faults (DM1) and previously active ones (DM2). */
export const DM1 = 65226;
export const DM2 = 65227;

/** One trouble code of J1939-73. */
export interface J1939Code {
  spn: number;
  fmi: number;
  /** Occurrences, 0 to 126; `null` where the sender does not count. */
  count: number | null;
  /** Conversion method bit: set by the three older layouts, which the bytes alone cannot tell apart. */
  oldMethod: boolean;
  /** What the number would be under each older layout; empty for the present one. */
  others: { method: 1 | 2 | 3; spn: number }[];
}

export interface Lamps {
  malfunction: number;
  stop: number;
  warning: number;
  protect: number;
}

export interface DmMessage {
  lamps: Lamps;
  flash: Lamps;
  codes: J1939Code[];
  /** Bytes at the end that make no whole code. */
  leftOver: number;
}

export type Method = 1 | 2 | 3 | 4;

/** Four bytes of a code by its layout. Method 4 is the present one. */
export function encodeJ1939(spn: number, fmi: number, count: number, method: Method = 4): number[] {
  const mode = fmi & 31;
  const last = (method === 4 ? 0 : 128) | (count & 127);
  if (method === 1) return [(spn >> 11) & 255, (spn >> 3) & 255, ((spn & 7) << 5) | mode, last];
  if (method === 2) return [(spn >> 3) & 255, (spn >> 11) & 255, ((spn & 7) << 5) | mode, last];
  return [spn & 255, (spn >> 8) & 255, ((spn >> 16) << 5) | mode, last];
}

/** Reads four bytes. With the method bit set the number is given as method 3 and all three readings stand in `others`. */
export function decodeJ1939(bytes: ArrayLike<number>, at = 0): J1939Code {
  const [a, b, c, d] = [bytes[at]!, bytes[at + 1]!, bytes[at + 2]!, bytes[at + 3]!];
  const spn = a + 256 * b + 65536 * (c >> 5);
  const oldMethod = d >> 7 === 1;
  const count = d & 127;
  return {
    spn,
    fmi: c & 31,
    count: count === 127 ? null : count,
    oldMethod,
    others: oldMethod
      ? [
          { method: 1, spn: a * 2048 + b * 8 + (c >> 5) },
          { method: 2, spn: b * 2048 + a * 8 + (c >> 5) },
          { method: 3, spn },
        ]
      : [],
  };
}

/** Reads a DM1 or DM2 payload: lamps, then codes. Fill bytes and the empty code are no faults. */
export function decodeDm(payload: ArrayLike<number>): DmMessage {
  const codes: J1939Code[] = [];
  // A single code is padded to one frame; only two bytes of padding can follow it.
  const length = payload.length === 8 ? 6 : payload.length;
  let at = 2;
  for (; at + 4 <= length; at += 4) {
    const four = [payload[at]!, payload[at + 1]!, payload[at + 2]!, payload[at + 3]!];
    if (four.every((byte) => byte === 0) || four.every((byte) => byte === 255)) continue;
    codes.push(decodeJ1939(four));
  }
  const leftOver = Math.max(0, length - at);
  return { lamps: lampsOf(payload[0] ?? 255), flash: lampsOf(payload[1] ?? 255), codes, leftOver };
}

function lampsOf(byte: number): Lamps {
  return {
    malfunction: (byte >> 6) & 3,
    stop: (byte >> 4) & 3,
    warning: (byte >> 2) & 3,
    protect: byte & 3,
  };
}

/** Payload of a DM1 or DM2 message, unpadded from two codes on. */
export function encodeDm(lamps: readonly [number, number], codes: readonly (readonly number[])[]): number[] {
  const body = codes.length === 0 ? [0, 0, 0, 0] : codes.flat();
  const payload = [...lamps, ...body];
  return codes.length <= 1 ? [...payload, 255, 255] : payload;
}
