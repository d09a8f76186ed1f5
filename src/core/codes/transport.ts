import { parseCanId } from './canId';

const CONNECTION = 60416;
const DATA = 60160;
const REQUEST_TO_SEND = 0x10;
const BROADCAST = 0x20;
const ABORT = 0xff;
/** A receiver drops a broadcast after this silence (SAE J1939-21). */
const SILENCE_SECONDS = 0.75;
const MOST_SESSIONS = 512;

/** A message put together from its packets, or a single frame. */
export interface Message {
  pgn: number;
  sourceAddress: number;
  data: Uint8Array;
  /** Seconds of its last frame. */
  time: number;
}

interface Session {
  pgn: number;
  data: Uint8Array;
  packets: number;
  next: number;
  time: number;
}

/** Puts multi-packet messages together again: broadcast, and to one address. Sessions of different senders interleave. */
export class Reassembler {
  /** Messages that broke off: a packet missing, too long a silence, an abort. */
  broken = 0;
  private readonly sessions = new Map<number, Session>();

  /** Takes one frame with a 29-bit identifier; gives the message that it completes, if any. */
  push(id: number, data: Uint8Array, time: number): Message | null {
    const { pgn, sourceAddress, destination } = parseCanId(id);
    const key = sourceAddress * 256 + (destination ?? 255);
    if (pgn === CONNECTION && data.length >= 8) {
      if (data[0] === ABORT) this.drop(key);
      if (data[0] !== BROADCAST && data[0] !== REQUEST_TO_SEND) return null;
      // A new announcement from the same sender replaces the old one.
      this.drop(key);
      const bytes = data[1]! + 256 * data[2]!;
      const packets = data[3]!;
      if (bytes < 1 || bytes > 1785 || packets !== Math.ceil(bytes / 7)) {
        this.broken++;
        return null;
      }
      if (this.sessions.size >= MOST_SESSIONS) this.drop(this.sessions.keys().next().value!);
      const payload = data[5]! + 256 * data[6]! + 65536 * data[7]!;
      this.sessions.set(key, { pgn: payload, data: new Uint8Array(bytes), packets, next: 1, time });
      return null;
    }
    if (pgn === DATA) {
      const session = this.sessions.get(key);
      if (!session || data.length < 2) return null;
      if (data[0] !== session.next || time - session.time > SILENCE_SECONDS) {
        this.drop(key);
        return null;
      }
      const start = (session.next - 1) * 7;
      session.data.set(data.subarray(1, 1 + Math.min(7, session.data.length - start)), start);
      session.next++;
      session.time = time;
      if (session.next <= session.packets) return null;
      this.sessions.delete(key);
      return { pgn: session.pgn, sourceAddress, data: session.data, time };
    }
    return { pgn, sourceAddress, data, time };
  }

  private drop(key: number): void {
    if (this.sessions.delete(key)) this.broken++;
  }
}

/** Frames of a broadcast message, as identifier and data. */
export function packBroadcast(
  pgn: number,
  sourceAddress: number,
  payload: readonly number[],
): [number, number[]][] {
  const packets = Math.ceil(payload.length / 7);
  const id = (group: number, priority: number) =>
    ((priority << 26) | (group << 16) | (255 << 8) | sourceAddress) >>> 0;
  const head = [
    BROADCAST,
    payload.length & 255,
    payload.length >> 8,
    packets,
    255,
    pgn & 255,
    (pgn >> 8) & 255,
    pgn >> 16,
  ];
  const frames: [number, number[]][] = [[id(0xec, 7), head]];
  for (let packet = 0; packet < packets; packet++) {
    const seven = payload.slice(packet * 7, packet * 7 + 7);
    frames.push([
      id(0xeb, 7),
      [packet + 1, ...seven, ...Array.from({ length: 7 - seven.length }, () => 255)],
    ]);
  }
  return frames;
}
