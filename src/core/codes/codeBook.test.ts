import { agreedBlinks, decodeBlinks, type LampEdge } from './blink';
import { codeKey, lookUp, meansOf } from './codeBook';
import { bookRowSchema } from './bookRow';
import { CodeLog, comeTogether } from './codeLog';
import { findCodes } from './findCodes';
import { encodeDm, encodeJ1939 } from './j1939';
import { LiveCodes } from './liveCodes';
import { packBroadcast } from './transport';

/** Edges of a lamp that shows codes, with any times of one's own. */
function lamp(
  codes: readonly number[][],
  { flash = 0.4, gap = 0.4, digit = 1.4, code = 4 } = {},
): LampEdge[] {
  const edges: LampEdge[] = [];
  let clock = 0;
  codes.forEach((digits) => {
    digits.forEach((count, at) => {
      for (let n = 0; n < count; n++) {
        edges.push({ seconds: clock, on: true }, { seconds: (clock += flash), on: false });
        clock += gap;
      }
      clock += (at < digits.length - 1 ? digit : code) - gap;
    });
  });
  return edges;
}

describe('a blinking lamp', () => {
  it('is read whatever its pace', () => {
    for (const pace of [
      {},
      { flash: 0.2, gap: 0.25, digit: 0.8, code: 2.2 },
      { flash: 1, gap: 1, digit: 3, code: 9 },
    ]) {
      expect(
        decodeBlinks(
          lamp(
            [
              [2, 3],
              [2, 3],
              [1, 4],
            ],
            pace,
          ),
        ),
      ).toEqual(['2-3', '2-3', '1-4']);
    }
  });
  it('believes only what was shown twice', () => {
    expect(
      agreedBlinks(
        decodeBlinks(
          lamp([
            [2, 3],
            [1, 4],
            [2, 3],
          ]),
        ),
      ),
    ).toEqual(['2-3']);
  });
  it('says nothing from a single flash or from no change', () => {
    expect(
      decodeBlinks([
        { seconds: 0, on: true },
        { seconds: 1, on: false },
      ]),
    ).toEqual([]);
    expect(decodeBlinks([])).toEqual([]);
  });
});

describe('a machine’s code book', () => {
  const row = (given: object) => bookRowSchema.parse({ system: 'maker', ...given });
  const book = [
    row({ code: '14', text: 'Float valve', part: 'DM2' }),
    row({ code: '14', mode: '05', text: 'Float valve open', part: 'DM2' }),
    row({ system: 'J1939', code: '520214', part: 'DM2' }),
    row({ system: 'blink', code: '2-3', text: 'Seat switch', means: 5 }),
    row({ system: 'UDS', code: 'P0243', part: 'DM1' }),
  ];
  const first = (text: string) => findCodes(text)[0]!;

  it('finds a maker’s pair however it is padded, the line for its very mode first', () => {
    expect(lookUp(book, first('14-05')).map(({ row: { text }, means }) => [text, means])).toEqual([
      ['Float valve open', 5],
      ['Float valve', 5],
    ]);
    expect(lookUp(book, first('14-06'))).toHaveLength(1);
  });
  it('tells notations apart', () => {
    expect(lookUp(book, first('SPN 520214 FMI 6'))).toMatchObject([{ row: { part: 'DM2' }, means: 6 }]);
    expect(lookUp(book, first('SPN 14 FMI 5'))).toEqual([]);
    expect(lookUp(book, first('2-3'))).toMatchObject([{ row: { text: 'Seat switch' }, means: 5 }]);
  });
  it('bridges a failure type to a mode, and says when it cannot', () => {
    expect(lookUp(book, first('P0243-13'))).toMatchObject([{ means: 5 }]);
    expect(lookUp(book, first('P0243'))).toMatchObject([{ means: null }]);
    expect(meansOf(first('P0201-62'))).toBeNull();
  });
  it('names a code the same whatever notation a pair came in', () => {
    expect(codeKey(first('SPN 523 FMI 31'))).toBe(codeKey(first('523-31')));
    expect(codeKey(first('p0045'))).toBe('P0045');
  });
});

/** One second's DM1 of a sender, as lines of a log. */
function dm1(time: number, address: number, codes: readonly (readonly [number, number])[]): string[] {
  const payload = encodeDm(
    [0x04, 0xff],
    codes.map(([spn, fmi]) => encodeJ1939(spn, fmi, 1)),
  );
  const frames: [number, number[]][] =
    codes.length < 2 ? [[0x18feca00 + address, payload]] : packBroadcast(65226, address, payload);
  return frames.map(
    ([id, data], at) =>
      `(${(time + at * 0.06).toFixed(6)}) can0 ${id.toString(16).padStart(8, '0').toUpperCase()}#${data
        .map((byte) => byte.toString(16).padStart(2, '0'))
        .join('')}`,
  );
}

describe('codes over time', () => {
  it('keeps when each was there, how often it dropped, and what came together', () => {
    const log = new CodeLog();
    // Two codes of two senders share a bad plug; a third stays; one line is damaged.
    for (let second = 0; second <= 3600; second++) {
      const bump = second % 600 < 20;
      const lines = [
        ...dm1(
          second,
          0x21,
          bump
            ? [
                [520214, 5],
                [190, 2],
              ]
            : [[190, 2]],
        ),
        ...dm1(second + 0.3, 0x27, bump ? [[520300, 5]] : []),
      ];
      lines.forEach((line) => log.line(line));
    }
    log.line('(12.0) can0 18FECA21#10FF2');
    const { codes, bad, together, from, to } = log.summary();
    const of = (component: number) => codes.find((code) => code.component === component)!;
    expect(bad).toBe(1);
    expect(to - from).toBeCloseTo(3600, 0);
    expect(of(190)).toMatchObject({ drops: 0, count: 3601 });
    expect(of(520214).drops).toBe(6);
    expect(of(520214).dropsPerHour).toBeCloseTo(6, 1);
    expect(of(520214).spans).toHaveLength(7);
    expect(of(520214).spans[1]![0]).toBeCloseTo(600, 0);
    const pairs = together.map(({ codes: [a, b], times }) => [
      codes[a]!.component,
      codes[b]!.component,
      times,
    ]);
    expect(pairs).toEqual([[520214, 520300, 7]]);
  });
  it('one meeting is chance', () => {
    expect(comeTogether([[0], [1]])).toEqual([]);
    expect(
      comeTogether([
        [0, 100, 200, 300, 400],
        [1, 101],
      ]),
    ).toEqual([{ codes: [0, 1], times: 2 }]);
  });
});

describe('a live bus', () => {
  it('follows what each sender says now, and drops what it stopped saying', () => {
    const live = new LiveCodes();
    const feed = (lines: string[]) => lines.forEach((line) => live.line(line));
    feed(
      dm1(1, 0x21, [
        [520214, 6],
        [190, 2],
      ]),
    );
    feed(dm1(1.2, 0x27, []));
    expect(live.state()).toMatchObject({ senders: [0x21, 0x27], bad: 0 });
    expect(live.state().codes.map(({ component, failureMode }) => [component, failureMode])).toEqual([
      [520214, 6],
      [190, 2],
    ]);
    feed(
      dm1(2, 0x21, [
        [520214, 5],
        [190, 2],
      ]),
    );
    const { codes } = live.state();
    expect(codes.map(({ component, failureMode }) => `${component}-${failureMode}`).sort()).toEqual([
      '190-2',
      '520214-5',
    ]);
    expect(codes.find(({ component }) => component === 190)!.since).toBeCloseTo(1.12, 1);
    // A sender that fell silent says nothing any more.
    for (let second = 3; second < 9; second++) feed(dm1(second, 0x27, []));
    expect(live.state()).toMatchObject({ senders: [0x27], codes: [] });
  });
});
