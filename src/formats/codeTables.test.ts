import fc from 'fast-check';
import Papa from 'papaparse';
import { readCodeBook, sightingOf, writeCodeBook, writeLogTable } from './codeTables';
import { LogReader } from './logReader';
import { readTable, writeTable } from './table';

describe('tables', () => {
  it('read with commas or semicolons, any order, a header in any case, unknown columns left alone', () => {
    const [row] = readTable('Note;CODE ;system\r\n"a; b";14;maker\r\n', ['system', 'code']);
    expect(row).toEqual({ line: 2, cells: { note: 'a; b', code: '14', system: 'maker' } });
  });
  it('a missing column or an open quote names the line', () => {
    expect(() => readTable('code\n14\n', ['system', 'code'])).toThrow(/line 1: no column "system"/);
    expect(() => readTable('system,code\nmaker,"14\n', ['system', 'code'])).toThrow(/line 2.*quote/i);
  });
  it('written cells are no formulas, and numbers stay numbers', () => {
    expect(
      writeTable(
        ['a', 'b'],
        [
          { a: '=HYPERLINK("x")', b: -3.5 },
          { a: '-2', b: 'say "no"' },
        ],
      ),
    ).toBe(`a,b\r\n"'=HYPERLINK(""x"")",-3.5\r\n-2,"say ""no"""\r\n`);
  });
});

describe('cells that a spreadsheet would run', () => {
  const written = (cell: unknown) => asGiven(writeTable(['a', 'b'], [{ a: cell, b: 'end' }]));
  /** The cell as a spreadsheet gets it. */
  const asGiven = (text: string) => Papa.parse<string[]>(text).data[1]![0]!;

  it.each([
    '=1+1',
    '+1+cmd',
    '-1+cmd|calc',
    '@SUM(A1)',
    ' =1',
    '\u00a0=1',
    '\ufeff=1',
    '\u200b=1',
    '＝1',
    '\t=1',
    '|calc',
  ])('%j is made harmless', (cell) => {
    expect(written(cell)).toBe(`'${cell}`);
  });

  it.each(['-2', '+3.5', '.5', '-1e-9', '0', '', 'F7', '12 - 3', '> 2 GΩ'])('%j stays as it is', (cell) => {
    expect(written(cell)).toBe(cell);
  });

  it('every text comes back from a table as it went out', () => {
    const odd = fc.string({
      unit: fc.constantFrom("'", '=', '-', '1', '.', ' ', '@', 'a', ',', '"', '\t', '\u200b'),
    });
    fc.assert(
      fc.property(fc.oneof(odd, fc.string()), (cell) => {
        const [row] = readTable(writeTable(['a', 'b'], [{ a: cell, b: 'end' }]));
        expect(row!.cells.a).toBe(cell);
      }),
    );
  });
});

describe('a code book as a table', () => {
  const text =
    'system,code,mode,means,text,function,part,sheet,note\r\n' +
    'maker,14,05,5,Float valve open,Tiller float valve,DM2,3 C4,"first the stud, then the coil"\r\n' +
    'blink,2-3,,,Seat switch,,,,\r\n';
  it('goes out as it came in', () => {
    expect(writeCodeBook(readCodeBook(text))).toBe(text);
  });
  it.each([
    ['system,code\nmaker,14\nradio,15\n', /line 3, system: "radio"/],
    ['system,code,means\nmaker,14,77\n', /line 2, means: "77"/],
    ['system,code,means\nmaker,14,five\n', /line 2, means: "five" is no failure mode/],
    ['system,code\nmaker,\n', /line 2, code/],
  ])('a bad line is named: %j', (bad, wanted) => {
    expect(() => readCodeBook(bad)).toThrow(wanted);
  });
});

describe('a log as a table', () => {
  const header = 'timestamp_iso,source_address,spn,fmi,occurrence,active,raw_hex';
  const csv = [
    header,
    '2026-11-20T06:00:00Z,33,520214,5,1,1,24FCE501',
    '2026-11-20T06:00:01Z,33,520214,5,1,1,24FCE501',
    '2026-11-20T06:00:31Z,33,520214,5,2,1,24FCE502',
    'not a time,33,520214,5,2,1,',
    '2026-11-20T06:00:32Z,33,99999999,5,2,1,',
    '',
  ].join('\n');

  it('is read in pieces cut anywhere, damaged rows counted', () => {
    for (const size of [1, 7, 64, 1000]) {
      const reader = new LogReader();
      for (let at = 0; at < csv.length; at += size) reader.push(csv.slice(at, at + size));
      const { codes, bad, lines } = reader.end();
      expect({ bad, lines }).toEqual({ bad: 2, lines: 5 });
      expect(codes).toMatchObject([
        { component: 520214, failureMode: 5, count: 3, drops: 1, occurrences: 2 },
      ]);
    }
  });
  it('gives a table of its own that says the same', () => {
    const reader = new LogReader();
    reader.push(csv);
    const [row] = readTable(writeLogTable(reader.end()));
    expect(row!.cells).toMatchObject({
      code: '520214',
      mode: '5',
      messages: '3',
      drops: '1',
      spans_s: '0-1 31-31',
    });
  });
  it('reads five-character codes, decimal commas and other zones', () => {
    const [row] = readTable('timestamp_iso;unit;code;ftb\n2026-11-20T07:00:00,5+01:00;7;P0201;13\n');
    expect(sightingOf(row!)).toMatchObject({
      code: { system: 'UDS', component: 'P0201', failureMode: '13' },
      sourceAddress: 7,
      time: Date.UTC(2026, 10, 20, 6, 0, 0, 500) / 1000,
    });
  });
  it('tells bus text from a table by the first line', () => {
    const reader = new LogReader();
    reader.push('\n(1.0) can0 18FECA21#10FF24FCE501FFFF\n(2.0) can0 18FECA');
    reader.push('21#10FF24FCE501FFFF');
    expect(reader.end().codes).toMatchObject([{ component: 523300, count: 2 }]);
  });
});
