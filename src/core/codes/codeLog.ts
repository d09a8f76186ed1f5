import { fromMessage, type FoundCode } from './describe';
import { LogLineReader } from './logLine';
import { Reassembler } from './transport';

/** Silence after which a code counts as gone: it is sent once a second while it is active. */
export const GONE_SECONDS = 3;
/** Spans kept for each code; later ones lengthen the last. */
const MOST_SPANS = 400;
const SECONDS_IN_HOUR = 3600;

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
  /** Drops an hour, over the time the log covers. */
  dropsPerHour: number;
  /** When it was there: start and end seconds, oldest first. */
  spans: [number, number][];
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
  /** Seconds of the first and last frame; both 0 in a log without frames. */
  from: number;
  to: number;
  /** Codes that came together; see {@link comeTogether}. */
  together: { codes: [number, number]; times: number }[];
}

/** What one line or row of a log that is not a bus frame says: a code was there at a time. */
export interface CodeSighting {
  code: FoundCode;
  sourceAddress: number;
  time: number;
}

/** Reads a bus log line by line and keeps one row for each code and sender; memory grows with codes, not with lines. */
export class CodeLog {
  private readonly reader = new LogLineReader();
  private readonly messages = new Reassembler();
  private readonly codes = new Map<string, LoggedCode>();
  private lines = 0;
  private frames = 0;
  private bad = 0;
  private from = Infinity;
  private to = -Infinity;

  line(text: string): void {
    if (text.trim() === '') return;
    this.lines++;
    const frame = this.reader.read(text);
    if (frame === 'bad') this.bad++;
    if (typeof frame === 'string') return;
    this.frames++;
    this.cover(frame.time);
    if (!frame.extended) return;
    const message = this.messages.push(frame.id, frame.data, frame.time);
    if (!message) return;
    for (const code of fromMessage(message.pgn, message.sourceAddress, message.data)) {
      this.note(code, message.sourceAddress, message.time);
    }
  }

  /** Takes one row of a log of codes, or `null` for a damaged row. */
  sighting(seen: CodeSighting | null): void {
    this.lines++;
    if (!seen) {
      this.bad++;
      return;
    }
    this.frames++;
    this.cover(seen.time);
    this.note(seen.code, seen.sourceAddress, seen.time);
  }

  summary(): LogSummary {
    const hours = Math.max(this.to - this.from, 0) / SECONDS_IN_HOUR;
    const codes = [...this.codes.values()]
      .map((code) => ({ ...code, dropsPerHour: hours > 0 ? code.drops / hours : 0 }))
      .sort((a, b) => a.first - b.first);
    return {
      codes,
      lines: this.lines,
      frames: this.frames,
      bad: this.bad,
      broken: this.messages.broken,
      from: this.frames > 0 ? this.from : 0,
      to: this.frames > 0 ? this.to : 0,
      together: comeTogether(codes.map(({ spans }) => spans.map(([start]) => start))),
    };
  }

  private cover(time: number): void {
    if (time < this.from) this.from = time;
    if (time > this.to) this.to = time;
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
        dropsPerHour: 0,
        spans: [[time, time]],
        ...counted,
      });
      return;
    }
    const gone = time - known.last > GONE_SECONDS;
    if (gone) known.drops++;
    if (gone && known.spans.length < MOST_SPANS) known.spans.push([time, time]);
    else known.spans.at(-1)![1] = time;
    known.count++;
    known.last = time;
    Object.assign(known, counted);
  }
}

/** Seconds within which two codes came at the same moment. */
const SAME_MOMENT_SECONDS = 2;
const MOST_COMPARED = 60;

/**
 * Pairs that came at the same moment at least twice and in at least half of the rarer one's comings, by the times each
 * came, oldest first. They point at something shared: a feed, a ground, a plug. Of many codes the first sixty.
 */
export function comeTogether(
  comings: readonly (readonly number[])[],
): { codes: [number, number]; times: number }[] {
  const pairs: { codes: [number, number]; times: number }[] = [];
  const count = Math.min(comings.length, MOST_COMPARED);
  for (let a = 0; a < count; a++) {
    for (let b = a + 1; b < count; b++) {
      const times = meetings(comings[a]!, comings[b]!);
      if (times >= 2 && times >= Math.min(comings[a]!.length, comings[b]!.length) / 2) {
        pairs.push({ codes: [a, b], times });
      }
    }
  }
  return pairs.sort((x, y) => y.times - x.times);
}

function meetings(a: readonly number[], b: readonly number[]): number {
  let [i, j, times] = [0, 0, 0];
  while (i < a.length && j < b.length) {
    const gap = a[i]! - b[j]!;
    if (Math.abs(gap) <= SAME_MOMENT_SECONDS) {
      times++;
      i++;
      j++;
    } else if (gap < 0) i++;
    else j++;
  }
  return times;
}
