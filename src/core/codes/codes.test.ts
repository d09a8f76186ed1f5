import fc from 'fast-check';
import { parseCanId } from './canId';
import { CodeLog } from './codeLog';
import { findCodes } from './findCodes';
import { FAILURE_MODES } from './failureModes';
import { decodeDm, decodeJ1939, encodeDm, encodeJ1939, type Method } from './j1939';
import { decodeJ1587, encodeJ1587 } from './j1587';
import { LogLineReader } from './logLine';
import { decodeEmission, decodeUds, formatObd, parseObd } from './obd';
import oracles from './oracles.json';
import { packBroadcast, Reassembler } from './transport';

const bytesOf = (text: string) =>
  text
    .trim()
    .split(/\s+/)
    .map((byte) => parseInt(byte, 16));
const hex = (bytes: readonly number[]) =>
  bytes.map((byte) => byte.toString(16).toUpperCase().padStart(2, '0')).join(' ');
const frameOf = (text: string): [number, Uint8Array] => {
  const [id, ...data] = text.trim().split(/\s+/);
  return [parseInt(id!, 16), Uint8Array.from(data, (byte) => parseInt(byte, 16))];
};

describe('identifiers', () => {
  it.each([oracles.F07a, oracles.F07b, oracles.F07c, oracles.F07d, oracles.F07e, oracles.F07f])(
    'come apart as in the reference: $in.id',
    ({ in: given, out }) => {
      expect(parseCanId(parseInt(given.id, 16))).toEqual({
        priority: out.prio,
        pgn: out.pgn,
        sourceAddress: out.sa,
        destination: out.dest === 'all' ? null : out.dest,
      });
    },
  );
});

describe('component and mode', () => {
  it.each([oracles.F01, oracles.F02])('reads a single message: $out.data', ({ in: given, out }) => {
    const { codes, lamps, flash } = decodeDm(bytesOf(out.data));
    expect(codes).toMatchObject([{ spn: given.spn, fmi: given.fmi, count: given.oc, oldMethod: false }]);
    expect(lamps).toEqual({ malfunction: out.MIL, stop: out.red, warning: out.amber, protect: out.protect });
    expect(flash).toEqual({
      malfunction: out.flMIL,
      stop: out.flRed,
      warning: out.flAmber,
      protect: out.flProtect,
    });
    const lampBytes = given.lamp as [number, number];
    expect(hex(encodeDm(lampBytes, [encodeJ1939(given.spn, given.fmi, given.oc)]))).toBe(out.data);
  });

  it('writes all four layouts, and flags the old ones as ambiguous with every reading shown', () => {
    const { in: given, out } = oracles.F03;
    const layouts: [Method, string][] = [
      [1, out.v1],
      [2, out.v2],
      [3, out.v3],
      [4, out.v4],
    ];
    for (const [method, text] of layouts)
      expect(hex(encodeJ1939(given.spn, given.fmi, given.oc, method))).toBe(text);
    const { others, oldMethod } = decodeJ1939(bytesOf(out.v1));
    expect(oldMethod).toBe(true);
    expect(others).toEqual([
      { method: 1, spn: out.v1bytes_as_v1 },
      { method: 2, spn: out.v1bytes_as_v2 },
      { method: 3, spn: out.v1bytes_as_v3 },
    ]);
  });

  it('finds nothing in a message without a fault', () => {
    expect(decodeDm(bytesOf(oracles.F04.out.data)).codes).toEqual([]);
    expect(decodeDm(bytesOf('00 FF FF FF FF FF FF FF')).codes).toEqual([]);
  });

  it('is the identity from number to bytes and back, for every layout', () => {
    const any = fc.tuple(
      fc.integer({ min: 1, max: 524_287 }),
      fc.integer({ min: 0, max: 31 }),
      fc.integer({ min: 0, max: 126 }),
    );
    fc.assert(
      fc.property(any, fc.constantFrom<Method>(1, 2, 3, 4), ([spn, fmi, count], method) => {
        const back = decodeJ1939(encodeJ1939(spn, fmi, count, method));
        expect(back).toMatchObject({ fmi, count, oldMethod: method !== 4 });
        expect(method === 4 ? back.spn : back.others[method - 1]!.spn).toBe(spn);
      }),
    );
  });

  it('words all 32 modes', () => {
    expect(FAILURE_MODES).toHaveLength(32);
    for (const words of FAILURE_MODES) expect(words.length).toBeGreaterThan(3);
  });
});

describe('multi-packet messages', () => {
  it.each([oracles.F05, oracles.F06])('come together: $out.frame0', ({ in: given, out }) => {
    const messages = new Reassembler();
    const got = [out.frame0, out.frame1, out.frame2].map((frame, k) =>
      messages.push(...frameOf(frame), 0.1 * k),
    );
    expect(got.slice(0, 2)).toEqual([null, null]);
    expect(hex([...got[2]!.data])).toBe(out.payload);
    expect(got[2]).toMatchObject({ pgn: given.pgn, sourceAddress: given.sa });
    expect(decodeDm(got[2]!.data).codes.map(({ spn, fmi, count }) => [spn, fmi, count])).toEqual(given.dtcs);
    const packed = packBroadcast(given.pgn, given.sa, bytesOf(out.payload));
    expect(packed.map(([id, data]) => `${id.toString(16).toUpperCase()}  ${hex(data)}`)).toEqual([
      out.frame0,
      out.frame1,
      out.frame2,
    ]);
  });

  it('keep senders apart while they interleave, and drop what breaks off', () => {
    const payloads = [3, 9, 33].map((address) => ({
      address,
      codes: Array.from({ length: 4 }, (_one, k) => encodeJ1939(1000 * address + k, k, 1)),
    }));
    const queues = payloads.map(({ address, codes }) =>
      packBroadcast(65226, address, encodeDm([4, 255], codes)),
    );
    const messages = new Reassembler();
    const done: number[][] = [];
    for (let packet = 0; packet < queues[0]!.length; packet++) {
      for (const queue of queues) {
        const [id, data] = queue[packet]!;
        const message = messages.push(id, Uint8Array.from(data), 0.06 * packet);
        if (message)
          done.push([message.sourceAddress, ...decodeDm(message.data).codes.map(({ spn }) => spn)]);
      }
    }
    expect(done).toEqual(
      payloads.map(({ address }) => [address, ...[0, 1, 2, 3].map((k) => 1000 * address + k)]),
    );
    const [head, , second] = queues[0]!;
    messages.push(head![0], Uint8Array.from(head![1]), 9);
    expect(messages.push(second![0], Uint8Array.from(second![1]), 9.1)).toBeNull();
    expect(messages.broken).toBe(1);
  });

  it('to one address, opened by a request to send', () => {
    const messages = new Reassembler();
    messages.push(0x1cecf927, Uint8Array.from(bytesOf('10 0A 00 02 FF CB FE 00')), 0);
    messages.push(0x1cec27f9, Uint8Array.from(bytesOf('11 02 01 FF FF CB FE 00')), 0.01);
    messages.push(0x1cebf927, Uint8Array.from(bytesOf('01 00 FF 7F 02 09 03 CF')), 0.02);
    const done = messages.push(0x1cebf927, Uint8Array.from(bytesOf('02 04 02 7E FF FF FF FF')), 0.03);
    expect(done).toMatchObject({ pgn: 65227, sourceAddress: 39 });
  });
});

describe('other notations', () => {
  it('J1587: both ways, checksum and all', () => {
    const { out } = oracles.F08;
    const code = { mid: 128, number: 110, isPart: false, failureMode: 3, active: true, count: 5 };
    expect(decodeJ1587(bytesOf(out.msg))).toEqual([code]);
    expect(hex(encodeJ1587(code))).toBe(out.msg);
    const part = { mid: 136, number: 1, isPart: true, failureMode: 5, active: false, count: null };
    expect(decodeJ1587(bytesOf(oracles.F09.out.msg))).toEqual([part]);
    expect(hex(encodeJ1587(part))).toBe(oracles.F09.out.msg);
    expect(decodeJ1587(bytesOf('80 C2 03 6E A3 05 A6'))).toBeNull();
  });

  it('two-byte codes: both ways', () => {
    for (const [word, code] of Object.entries(oracles.F10.out))
      expect(formatObd(parseInt(word, 16))).toBe(code);
    for (const [code, word] of Object.entries(oracles.F11.out))
      expect(parseObd(code)).toBe(parseInt(word, 16));
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 65_535 }), (word) =>
        expect(parseObd(formatObd(word))).toBe(word),
      ),
    );
    expect(decodeEmission(bytesOf(oracles.F12.in.resp))?.join(', ')).toBe(oracles.F12.out.codes);
  });

  it('three-byte codes with failure type and status', () => {
    const { in: given, out } = oracles.F13;
    const codes = decodeUds(bytesOf(given.resp))!;
    expect(codes.map(({ code, failureType }) => `${code}-${failureType}`)).toEqual([
      out.dtc1,
      out.dtc2,
      out.dtc3,
    ]);
    const found = findCodes(given.resp);
    expect(found.map(({ status }) => status?.join(', '))).toEqual([out.st1, out.st2, out.st3]);
  });
});

describe('what a person pastes', () => {
  it.each([
    ['168-4', [['pair', 168, 4]]],
    ['SPN 523 FMI 31', [['J1939', 523, 31]]],
    ['spn:1208 fmi:3', [['J1939', 1208, 3]]],
    ['MID 128 PID 110 FMI 3', [['J1587', 110, 3]]],
    ['P0045', [['OBD', 'P0045', undefined]]],
    [
      'p0201-13 and U0100',
      [
        ['UDS', 'P0201', '13'],
        ['OBD', 'U0100', undefined],
      ],
    ],
    ['18FECA00#04FFB804030AFFFF', [['J1939', 1208, 3]]],
    ['(1700000000.123456) can0 18FECA21#10FF24FCE501FFFF', [['J1939', 523_300, 5]]],
    ['04 FF B8 04 03 0A FF FF', [['J1939', 1208, 3]]],
    ['80 C2 03 6E A3 05 A5', [['J1587', 110, 3]]],
    ['', []],
    ['Call me on 555-0199 or see page 12/34/56, 2026-11-24, 12.5-13.2 V', []],
  ])('%s', (text, wanted) => {
    expect(
      findCodes(text).map(({ system, component, failureMode }) => [system, component, failureMode]),
    ).toEqual(wanted);
  });

  it('finds the codes in an e-mail and leaves the words alone', () => {
    const mail = `Hello Ilse,
the pump house stopped again at 6:45. Display said 14-05 first, later SPN 639 FMI 9.
The van shows P0243 and C0045 as well, but that is for another day. Filter part no. 77-A.
Regards, Rasmus`;
    expect(findCodes(mail).map(({ component }) => component)).toEqual([14, 639, 'P0243', 'C0045']);
  });

  it('never throws, whatever the bytes', () => {
    fc.assert(fc.property(fc.string({ maxLength: 200 }), (text) => void findCodes(text)));
    fc.assert(
      fc.property(fc.uint8Array({ maxLength: 40 }), (bytes) => {
        findCodes(hex([...bytes]));
        decodeDm(bytes);
        decodeJ1587([...bytes]);
        decodeUds([...bytes]);
      }),
    );
  });
});

describe('a log', () => {
  const dm1 = (address: number, spn: number, count: number) =>
    hex(encodeDm([4, 255], [encodeJ1939(spn, 5, count)])).replaceAll(' ', '') + `@${address}`;

  it('is read line by line: first, last, counts, drops; damaged lines are counted', () => {
    const log = new CodeLog();
    const say = (time: number, text: string) => {
      const [data, address] = text.split('@');
      log.line(`(${time.toFixed(6)}) can0 18FECA${Number(address).toString(16).padStart(2, '0')}#${data}`);
    };
    for (const time of [1, 2, 3, 20, 21]) say(time, dm1(33, 1208, 4));
    say(21.5, dm1(0, 1208, 1));
    log.line('(22.0) can0 18FECA00#04F');
    log.line('what is this');
    log.line('(22.1) can0 123#R');
    const { codes, bad, lines, frames } = log.summary();
    expect([lines, frames, bad]).toEqual([9, 6, 2]);
    expect(codes).toMatchObject([
      {
        sourceAddress: 33,
        component: 1208,
        failureMode: 5,
        count: 5,
        first: 1,
        last: 21,
        drops: 1,
        occurrences: 4,
      },
      { sourceAddress: 0, component: 1208, count: 1 },
    ]);
  });

  it('reads the other text form, hexadecimal or decimal, absolute or relative', () => {
    const reader = new LogLineReader();
    expect(reader.read('date Tue Nov 14 10:13:20.000 pm 2023')).toBe('skip');
    expect(reader.read('base hex  timestamps absolute')).toBe('skip');
    const frame = reader.read('   0.123456 1  18FECA00x       Rx   d 8 04 FF B8 04 03 0A FF FF  Length = 0');
    expect(frame).toMatchObject({ time: 0.123456, id: 0x18feca00, extended: true });
    const relative = new LogLineReader();
    relative.read('base dec  timestamps relative');
    relative.read('0.5 1 419351040x Rx d 2 4 255');
    expect(relative.read('0.5 1 419351040x Rx d 2 4 255')).toMatchObject({ time: 1, id: 419351040 });
    expect(reader.read('0.2 1 100 Rx d 8 01 02')).toBe('bad');
  });
});
