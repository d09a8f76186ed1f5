import { encodeDm, encodeJ1939 } from './j1939';
import { isCanBitRate, openingCommands, readAsciiLine } from './asciiCan';
import { BusWatch, codesKey } from './busWatch';

describe('lines of a serial CAN adapter', () => {
  it('with a frame are what a bus log writes, a time stamp of their own left aside', () => {
    expect(readAsciiLine('T18FECA0080011223344556677', 1.5)).toEqual({
      is: 'frame',
      line: '(1.500000) can0 18FECA00#0011223344556677',
    });
    expect(readAsciiLine('t1232A1b2', 2)).toEqual({ is: 'frame', line: '(2.000000) can0 123#A1B2' });
    expect(readAsciiLine('t1232A1B21F3C', 2)).toMatchObject({ line: '(2.000000) can0 123#A1B2' });
    expect(readAsciiLine('t1230', 2)).toMatchObject({ line: '(2.000000) can0 123#' });
  });
  it('that say something else are nothing, a refusal, or damage', () => {
    for (const line of ['', 'z', 'Z', 'V1013', 'NA123', 'F00', 'r1230', 'R18FECA000'])
      expect(readAsciiLine(line, 0).is).toBe('nothing');
    expect(readAsciiLine('\u0007', 0).is).toBe('refused');
    expect(readAsciiLine('\u0007t1230', 0).is).toBe('frame');
    for (const line of ['t12', 't1239', 't1232A1', 't8001', 'T18FECA008001122', 'hello', 't123200ZZ'])
      expect(readAsciiLine(line, 0).is).toBe('bad');
  });
  it('to it open it to listen, and never to send', () => {
    expect(openingCommands(250_000)).toEqual(['C', 'S5', 'L']);
    expect(openingCommands(500_000)).not.toContain('O');
    expect(isCanBitRate(250_000)).toBe(true);
    expect(isCanBitRate(300_000)).toBe(false);
  });
});

describe('a way to a bus that is watched', () => {
  const frame = (mode: number) =>
    `(1.0) can0 18FECA21#${encodeDm([4, 0xff], [encodeJ1939(520214, mode, 1)])
      .map((byte) => byte.toString(16).padStart(2, '0'))
      .join('')}`;
  it('says why nothing is heard, what is heard, and when that is over', () => {
    let now = 1000;
    const watch = new BusWatch('adapter', false, 'it is being called', () => now);
    expect(watch.report()).toMatchObject({ lost: 'it is being called', codes: [] });
    watch.onUp();
    expect(watch.report().lost).toBe('no frame yet');
    watch.onLine(frame(5));
    const heard = watch.report();
    expect(heard).toMatchObject({ lost: null, frames: 1, senders: [0x21] });
    expect(heard.codes.map(({ failureMode }) => failureMode)).toEqual([5]);
    watch.onLine(frame(6));
    expect(codesKey(watch.report())).not.toBe(codesKey(heard));
    now += 10_000;
    expect(watch.report()).toMatchObject({ lost: 'no frame for some seconds', codes: [] });
    watch.onLost('the plug was pulled');
    expect(watch.report().lost).toBe('the plug was pulled');
  });
});
