import { fromJ1939, fromMessage, fromObd, fromUds, pairText, type FoundCode } from './describe';
import { FAILURE_MODES } from './failureModes';
import { decodeJ1587 } from './j1587';
import { decodeJ1939 } from './j1939';
import { LogLineReader } from './logLine';
import { decodeEmission, decodeUds } from './obd';
import { Reassembler } from './transport';

const MOST_SPN = 524_287;
const NAMED = /\bSPN[\s:#=]*(\d{1,6})[\s,;/]*(?:FMI[\s:#=]*(\d{1,2}))\b/gi;
const OLD_NAMED =
  /\b(?:MID[\s:#=]*(\d{1,3})[\s,;/]*)?(PID|SID)[\s:#=]*(\d{1,3})[\s,;/]*FMI[\s:#=]*(\d{1,2})\b/gi;
const FIVE = /\b([PCBU][0-3][0-9A-F]{3})(?:[-: ]?([0-9A-F]{2}))?\b/gi;
const PAIR = /(?<![\w.,:/-])(\d{1,6})\s?[-–./]\s?(\d{1,2})(?![\w:/-]|\.\d)/g;
const FRAME = /\b([0-9A-F]{8})#([0-9A-F]{2,16})\b/gi;
const BYTES = /(?<![\w#])(?:0x)?[0-9A-F]{2}(?:[ ,](?:0x)?[0-9A-F]{2}){3,}(?!\w)/gi;

/**
 * Finds fault codes in anything a person pastes: `168-4`, `SPN 523 FMI 31`, `P0045`, `P0201-13`, a frame, an answer of a
 * controller in hex, a line of a log, ten lines of an e-mail. Text that is no code is left alone. Each code once, in the
 * order of the text.
 */
export function findCodes(text: string): FoundCode[] {
  const found: { at: number; code: FoundCode }[] = [];
  const add = (at: number, codes: readonly FoundCode[]) => found.push(...codes.map((code) => ({ at, code })));
  let rest = text;
  /** Takes what a pattern matches out of the text, so that no later pattern reads it again. */
  const take = (pattern: RegExp, read: (match: RegExpExecArray) => FoundCode[] | null) => {
    rest = rest.replace(pattern, (...groups: unknown[]) => {
      const match = groups as unknown as RegExpExecArray;
      const codes = read(match);
      if (!codes) return match[0]!;
      add(groups.find((one) => typeof one === 'number') ?? 0, codes);
      return ' '.repeat(match[0]!.length);
    });
  };

  const messages = new Reassembler();
  const reader = new LogLineReader();
  let clock = 0;
  let lineAt = 0;
  rest = rest
    .split('\n')
    .map((line) => {
      const at = lineAt;
      lineAt += line.length + 1;
      const frame = reader.read(line);
      if (typeof frame === 'string') return line;
      const message = frame.extended ? messages.push(frame.id, frame.data, frame.time) : null;
      if (message) add(at, fromMessage(message.pgn, message.sourceAddress, message.data));
      return ' '.repeat(line.length);
    })
    .join('\n');
  take(FRAME, ([, id, data]) => {
    if (data!.length % 2 !== 0) return null;
    const bytes = Uint8Array.from(data!.match(/../g)!, (pair) => parseInt(pair, 16));
    clock += 0.05;
    const message = messages.push(parseInt(id!, 16) & 0x1fffffff, bytes, clock);
    return message ? fromMessage(message.pgn, message.sourceAddress, message.data) : [];
  });
  take(BYTES, ([match]) =>
    fromBytes(match!.split(/[ ,]+/).map((byte) => parseInt(byte.replace(/^0x/i, ''), 16))),
  );
  take(NAMED, ([, spn, fmi]) => pair('J1939', Number(spn), Number(fmi)));
  take(OLD_NAMED, ([, mid, , number, fmi]) => {
    const codes = Number(fmi) <= 15 ? pair('J1587', Number(number), Number(fmi)) : null;
    return codes && mid ? codes.map((code) => ({ ...code, sourceAddress: Number(mid) })) : codes;
  });
  take(FIVE, ([, code, type]) =>
    type
      ? [fromUds({ code: code!.toUpperCase(), failureType: type.toUpperCase(), status: null })]
      : [fromObd(code!.toUpperCase())],
  );
  take(PAIR, ([, component, mode]) => pair('pair', Number(component), Number(mode)));
  const seen = new Set<string>();
  const ordered = found.sort((one, other) => one.at - other.at).map(({ code }) => code);
  return ordered.filter(({ system, component, failureMode, sourceAddress }) => {
    const key = `${system}|${component}|${failureMode}|${sourceAddress}`;
    if (seen.has(key)) return false;
    seen.add(key);
    return true;
  });
}

function pair(system: FoundCode['system'], component: number, mode: number): FoundCode[] | null {
  if (component > MOST_SPN || mode >= FAILURE_MODES.length) return null;
  return [{ system, component, failureMode: mode, text: pairText(mode) }];
}

/** Bytes of a controller's answer, a J1587 message, a DM payload or one four-byte code; `null` when they are none. */
function fromBytes(bytes: readonly number[]): FoundCode[] | null {
  const uds = decodeUds(bytes);
  if (uds) return uds.map(fromUds);
  const emission = decodeEmission(bytes);
  if (emission) return emission.map(fromObd);
  const old = decodeJ1587(bytes);
  if (old) {
    return old.map(({ mid, number, failureMode, active, count }) => ({
      system: 'J1587',
      component: number,
      failureMode,
      text: pairText(failureMode),
      sourceAddress: mid,
      active,
      ...(count === null ? {} : { count }),
    }));
  }
  if (bytes.length === 4) return [fromJ1939(decodeJ1939(bytes))];
  if (bytes.length >= 6 && ((bytes.length - 2) % 4 === 0 || bytes.length === 8)) {
    return fromMessage(65226, -1, bytes).map(({ sourceAddress: _unknown, ...code }) => code);
  }
  return null;
}
