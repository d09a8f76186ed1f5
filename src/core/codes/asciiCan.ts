import { questionFrame, type BusQuestion } from './requests';

/**
 * The public ASCII protocol of serial CAN adapters: a letter and its figures, each line ended by a carriage return. Frames are told as bus
 * logs write them, so that one reader serves both.
 */

/** Bit rates by their command, bits a second. */
export const CAN_BIT_RATES = {
  10_000: 'S0',
  20_000: 'S1',
  50_000: 'S2',
  100_000: 'S3',
  125_000: 'S4',
  250_000: 'S5',
  500_000: 'S6',
  800_000: 'S7',
  1_000_000: 'S8',
} as const;
export type CanBitRate = keyof typeof CAN_BIT_RATES;

export function isCanBitRate(value: number): value is CanBitRate {
  return Object.hasOwn(CAN_BIT_RATES, value);
}

/**
 * What opens an adapter: closed first, whatever it was left in, its bit rate, and open to listen only. So nothing is sent onto a bus, not
 * even an acknowledgement.
 */
export function openingCommands(bitRate: CanBitRate): string[] {
  return ['C', CAN_BIT_RATES[bitRate], 'L'];
}

/** What asks one question of the bus: closed, open to talk, the frame. The adapter is opened to listen only again once it was answered. */
export function askingCommands(bitRate: CanBitRate, question: BusQuestion): string[] {
  const [id, data] = questionFrame(question);
  const hex = (value: number, digits: number) => value.toString(16).toUpperCase().padStart(digits, '0');
  const frame = `T${hex(id, 8)}${data.length}${data.map((byte) => hex(byte, 2)).join('')}`;
  return ['C', CAN_BIT_RATES[bitRate], 'O', frame];
}

export const CLOSING_COMMAND = 'C';
/** How an adapter says that it does not know a command. */
const BELL = '\u0007';

/** What a line of an adapter is. */
export type AsciiLine = { is: 'frame'; line: string } | { is: 'refused' } | { is: 'nothing' } | { is: 'bad' };

const FRAME = /^(?:t([0-7][0-9A-F]{2})|T([01][0-9A-F]{7}))([0-8])((?:[0-9A-F]{2})*)$/i;

/**
 * Reads a line of an adapter. A frame comes back as `(seconds) can0 ID#DATA`; its own time stamp, where it has one, is left aside for the
 * receiver's clock, which goes on where that begins anew every minute.
 */
export function readAsciiLine(text: string, seconds: number): AsciiLine {
  const refused = text.includes(BELL);
  const line = text.replaceAll(BELL, '').trim();
  if (line === '') return { is: refused ? 'refused' : 'nothing' };
  // What was sent, versions, serial numbers, status: not from the bus.
  if (/^[zZvVNFrR]/.test(line)) return { is: 'nothing' };
  const length = Number(line[line.startsWith('T') ? 9 : 4]);
  const bytes = 2 * length;
  const head = line.startsWith('T') ? 10 : 5;
  const stamped = line.length === head + bytes + 4 ? line.slice(0, head + bytes) : line;
  const found = FRAME.exec(stamped);
  if (!found || found[4]!.length !== bytes) return { is: 'bad' };
  const id = (found[1] ?? found[2])!.toUpperCase();
  return { is: 'frame', line: `(${seconds.toFixed(6)}) can0 ${id}#${found[4]!.toUpperCase()}` };
}
