/** One frame of a bus log. */
export interface Frame {
  /** Seconds, as the log counts them. */
  time: number;
  id: number;
  extended: boolean;
  data: Uint8Array;
}

/** `skip`: a line that is no data frame and no damage (header, comment, remote or error frame). `bad`: damaged. */
export type LineResult = Frame | 'skip' | 'bad';

/** Longer lines are damage, whatever they hold. */
const LONGEST = 400;
const CANDUMP = /^\s*\((\d+(?:\.\d+)?)\)\s+(\S+)\s+([0-9A-F]{3}|[0-9A-F]{8})#(#?)(\S*)(?:\s+[RT])?\s*$/i;
const ASC = /^\s*(\d+\.\d+)\s+(\d+)\s+([0-9A-F]+)(x?)\s+(?:Rx|Tx|TxRq)\s+(d|r)\s+(\w+)((?:\s+[0-9A-F]+)*)/i;
const ASC_OTHER =
  /^\s*(date|base|internal|begin|end|\/\/|$)|statistic|errorframe|^\s*\d+\.\d+\s+(start|log|\D)/i;

/** Reads bus logs line by line; keeps what a header said about base and timestamps. */
export class LogLineReader {
  private decimal = false;
  private relative = false;
  private clock = 0;

  read(line: string): LineResult {
    if (line.length > LONGEST) return 'bad';
    const dump = CANDUMP.exec(line);
    if (dump) return candump(dump);
    const asc = ASC.exec(line);
    if (asc) return this.asc(asc);
    const header = /^\s*base\s+(hex|dec)\s+timestamps\s+(absolute|relative)/i.exec(line);
    if (header) {
      this.decimal = header[1]!.toLowerCase() === 'dec';
      this.relative = header[2]!.toLowerCase() === 'relative';
      return 'skip';
    }
    return ASC_OTHER.test(line) ? 'skip' : 'bad';
  }

  private asc([, seconds, , id, mark, kind, length, bytes]: RegExpExecArray): LineResult {
    const base = this.decimal ? 10 : 16;
    const time = Number(seconds);
    this.clock = this.relative ? this.clock + time : time;
    if (kind!.toLowerCase() === 'r') return 'skip';
    const count = parseInt(length!, base);
    const fields = bytes!.trim().split(/\s+/).filter(Boolean).slice(0, count);
    const data = fields.map((field) => parseInt(field, base));
    if (!(count <= 8) || data.length !== count || data.some((byte) => !(byte >= 0 && byte <= 255)))
      return 'bad';
    return { time: this.clock, id: parseInt(id!, base), extended: mark === 'x', data: Uint8Array.from(data) };
  }
}

function candump([, seconds, , id, flexible, body]: RegExpExecArray): LineResult {
  // Flexible-rate frames, remote frames and error frames carry no codes.
  if (flexible || /^R\d?$/i.test(body!)) return 'skip';
  const number = parseInt(id!, 16);
  if (id!.length === 8 && (number & 0x20000000) !== 0) return 'skip';
  if (body!.length % 2 !== 0 || body!.length > 16 || /[^0-9A-F]/i.test(body!)) return 'bad';
  const data = new Uint8Array(body!.length / 2);
  for (let at = 0; at < data.length; at++) data[at] = parseInt(body!.slice(2 * at, 2 * at + 2), 16);
  return { time: Number(seconds), id: number & 0x1fffffff, extended: id!.length === 8, data };
}
