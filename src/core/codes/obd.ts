const LETTERS = 'PCBU';

/** Two bytes as the five characters a person says (SAE J2012, ISO 15031-6): 0x0133 is "P0133". */
export function formatObd(word: number): string {
  const digits = (word & 0xfff).toString(16).toUpperCase().padStart(3, '0');
  return `${LETTERS[(word >> 14) & 3]}${(word >> 12) & 3}${digits}`;
}

/** Five characters as two bytes; `null` when the text is no such code. */
export function parseObd(text: string): number | null {
  const match = /^([PCBU])([0-3])([0-9A-F]{3})$/i.exec(text.trim());
  if (!match) return null;
  const letter = LETTERS.indexOf(match[1]!.toUpperCase());
  return (letter << 14) | (Number(match[2]) << 12) | parseInt(match[3]!, 16);
}

/** What the first characters say: whose list the code is on, and the group it belongs to. */
export function obdGroup(code: string): string {
  const [letter, first, second] = [code[0]!, code[1]!, code[2]!.toUpperCase()];
  const system = { P: 'powertrain', C: 'chassis', B: 'body', U: 'network' }[letter] ?? 'unknown';
  const standard =
    first === '0' || (letter === 'P' && (first === '2' || (first === '3' && second >= '4')))
      ? 'standard'
      : 'maker’s own';
  const groups: Readonly<Record<string, string>> = {
    '0': 'fuel, air and emission control',
    '1': 'fuel and air metering',
    '2': 'injector circuits',
    '3': 'ignition or misfire',
    '4': 'auxiliary emission control',
    '5': 'speed, idle and auxiliary inputs',
    '6': 'computer and outputs',
    '7': 'transmission',
    '8': 'transmission',
    '9': 'transmission',
    A: 'hybrid drive',
  };
  const group = letter === 'P' && (first === '0' || first === '2') ? groups[second] : undefined;
  return [`${system}, ${standard}`, group].filter(Boolean).join('; ');
}

/** A UDS code with its failure type and status (ISO 14229). */
export interface UdsCode {
  code: string;
  /** Two hex digits. */
  failureType: string;
  status: number | null;
}

const hex = (byte: number) => byte.toString(16).toUpperCase().padStart(2, '0');

/** Reads a positive answer to "read codes by status mask" (`59 02 …`); `null` when the bytes are no such answer. */
export function decodeUds(bytes: readonly number[]): UdsCode[] | null {
  if (bytes[0] !== 0x59 || bytes[1] !== 0x02 || (bytes.length - 3) % 4 !== 0) return null;
  const codes: UdsCode[] = [];
  for (let at = 3; at + 4 <= bytes.length; at += 4) {
    const word = bytes[at]! * 256 + bytes[at + 1]!;
    codes.push({ code: formatObd(word), failureType: hex(bytes[at + 2]!), status: bytes[at + 3]! });
  }
  return codes;
}

/** Reads an answer of the emission services (`43`, `47`, `4A`) on CAN, with its count byte; `null` when it is none. */
export function decodeEmission(bytes: readonly number[]): string[] | null {
  if (![0x43, 0x47, 0x4a].includes(bytes[0] ?? 0) || bytes.length !== 2 + 2 * (bytes[1] ?? 0)) return null;
  const codes: string[] = [];
  for (let at = 2; at + 2 <= bytes.length; at += 2) {
    const word = bytes[at]! * 256 + bytes[at + 1]!;
    if (word !== 0) codes.push(formatObd(word));
  }
  return codes;
}
