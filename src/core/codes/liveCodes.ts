import { fromMessage, type FoundCode } from './describe';
import { GONE_SECONDS } from './codeLog';
import { DM1, DM2 } from './j1939';
import { LogLineReader } from './logLine';
import { Reassembler } from './transport';

/** Silence of a whole bus after which it counts as lost. */
export const LOST_SECONDS = 2.5;

export interface LiveCode extends FoundCode {
  sourceAddress: number;
  /** Seconds of the bus clock at which it came. */
  since: number;
}

/** A bus as it stands: who speaks, and which codes are there now. */
export interface LiveState {
  /** Frames since the start. */
  frames: number;
  bad: number;
  /** Bus clock of the last frame, seconds. */
  time: number;
  /** Source addresses heard within the last seconds. */
  senders: number[];
  codes: LiveCode[];
  /** Codes that were there and are not now, by those that were asked and answered; null while nobody has. */
  earlier: LiveCode[] | null;
}

/** Follows a live bus: keeps the active codes of each sender, replaced by its every message. */
export class LiveCodes {
  private readonly reader = new LogLineReader();
  private readonly messages = new Reassembler();
  private readonly active = new Map<number, { time: number; codes: Map<string, LiveCode> }>();
  /** By sender: what it answered last. */
  private readonly before = new Map<number, LiveCode[]>();
  private readonly heard = new Map<number, number>();
  private frames = 0;
  private bad = 0;
  private time = 0;

  line(text: string): void {
    if (text.trim() === '') return;
    const frame = this.reader.read(text);
    if (frame === 'bad') this.bad++;
    if (typeof frame === 'string') return;
    this.frames++;
    this.time = frame.time;
    if (!frame.extended) return;
    this.heard.set(frame.id & 0xff, frame.time);
    const message = this.messages.push(frame.id, frame.data, frame.time);
    if (message?.pgn === DM2) {
      const { pgn, sourceAddress, data, time } = message;
      const codes = fromMessage(pgn, sourceAddress, data);
      this.before.set(
        sourceAddress,
        codes.map((code) => ({ ...code, sourceAddress, since: time })),
      );
    }
    if (!message || message.pgn !== DM1) return;
    const before = this.active.get(message.sourceAddress)?.codes;
    const codes = new Map<string, LiveCode>();
    for (const code of fromMessage(message.pgn, message.sourceAddress, message.data)) {
      const key = `${code.component}|${code.failureMode}`;
      const since = before?.get(key)?.since ?? message.time;
      codes.set(key, { ...code, sourceAddress: message.sourceAddress, since });
    }
    this.active.set(message.sourceAddress, { time: message.time, codes });
  }

  state(): LiveState {
    const recent = (time: number) => this.time - time <= GONE_SECONDS;
    return {
      frames: this.frames,
      bad: this.bad,
      time: this.time,
      senders: [...this.heard]
        .filter(([, time]) => recent(time))
        .map(([address]) => address)
        .sort((a, b) => a - b),
      codes: [...this.active.values()]
        .filter(({ time }) => recent(time))
        .flatMap(({ codes }) => [...codes.values()])
        .sort((a, b) => a.since - b.since),
      earlier: this.before.size > 0 ? [...this.before.values()].flat() : null,
    };
  }
}
