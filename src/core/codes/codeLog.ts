import { fromMessage, type FoundCode } from './describe';
import { LogLineReader } from './logLine';
import { Reassembler } from './transport';

/** Silence after which a code counts as gone: it is sent once a second while it is active. */
const GONE_SECONDS = 3;

/** A code over a whole log. */
export interface LoggedCode extends FoundCode {
  sourceAddress: number;
  /** Messages that named it. */
  count: number;
  /** Seconds of the first and last message. */
  first: number;
  last: number;
  /** How often it went away and came back. */
  drops: number;
  /** The sender's own counter, where it counts. */
  occurrences?: number;
}

export interface LogSummary {
  codes: LoggedCode[];
  lines: number;
  frames: number;
  /** Damaged lines. */
  bad: number;
  /** Multi-packet messages that broke off. */
  broken: number;
}

/** Reads a bus log line by line and keeps one row for each code and sender; memory grows with codes, not with lines. */
export class CodeLog {
  private readonly reader = new LogLineReader();
  private readonly messages = new Reassembler();
  private readonly codes = new Map<string, LoggedCode>();
  private lines = 0;
  private frames = 0;
  private bad = 0;

  line(text: string): void {
    if (text.trim() === '') return;
    this.lines++;
    const frame = this.reader.read(text);
    if (frame === 'bad') this.bad++;
    if (typeof frame === 'string') return;
    this.frames++;
    if (!frame.extended) return;
    const message = this.messages.push(frame.id, frame.data, frame.time);
    if (!message) return;
    for (const code of fromMessage(message.pgn, message.sourceAddress, message.data)) {
      this.note(code, message.sourceAddress, message.time);
    }
  }

  summary(): LogSummary {
    return {
      codes: [...this.codes.values()].sort((a, b) => a.first - b.first),
      lines: this.lines,
      frames: this.frames,
      bad: this.bad,
      broken: this.messages.broken,
    };
  }

  private note({ count: occurrences, ...code }: FoundCode, sourceAddress: number, time: number): void {
    const key = `${sourceAddress}|${code.component}|${code.failureMode}|${code.active}`;
    const known = this.codes.get(key);
    const counted = occurrences === undefined ? {} : { occurrences };
    if (!known) {
      this.codes.set(key, {
        ...code,
        sourceAddress,
        count: 1,
        first: time,
        last: time,
        drops: 0,
        ...counted,
      });
      return;
    }
    if (time - known.last > GONE_SECONDS) known.drops++;
    known.count++;
    known.last = time;
    Object.assign(known, counted);
  }
}
