import { readTraceText } from './traceFile';

const rows = (write: (t: number, v: number) => string, count = 40) =>
  Array.from({ length: count }, (_one, k) =>
    write(k * 0.001, Math.round(1000 * (1 - Math.exp(-k / 10))) / 1000),
  ).join('\n');

describe('a trace from text', () => {
  it.each([
    [
      'commas with a header',
      `Time (s),Current (A)\n${rows((t, v) => `${t.toFixed(4)},${v}`)}`,
      'Current',
      'amps',
      1,
    ],
    [
      'milliseconds and milliamps',
      `t [ms];I [mA]\n${rows((t, v) => `${(t * 1000).toFixed(1)};${v}`)}`,
      'I',
      'amps',
      1e-3,
    ],
    [
      'decimal commas',
      `Zeit;CH1\ns;V\n${rows((t, v) => `${t.toFixed(4)};${v}`.replaceAll('.', ','))}`,
      'channel 1',
      'volts',
      1,
    ],
    ['tabs, no header', rows((t, v) => `${t.toExponential(3)}\t${v}`), 'channel 1', null, 1],
    ['blanks', rows((t, v) => `  ${t.toFixed(5)}   ${v}`), 'channel 1', null, 1],
    [
      'lines about the instrument',
      `Model,Bench recorder\nRecord Length,40\n\nTIME,CH1\n${rows((t, v) => `${t.toFixed(4)},${v}`)}`,
      'CH1',
      null,
      1,
    ],
  ])('%s', (_name, text, name, quantity, by) => {
    const { seconds, channels } = readTraceText(text);
    expect(seconds).toHaveLength(40);
    expect(seconds[39]).toBeCloseTo(0.039, 9);
    expect(channels).toHaveLength(1);
    expect(channels[0]).toMatchObject({ quantity });
    if (quantity !== 'volts') expect(channels[0]!.name).toBe(name);
    expect(channels[0]!.values[39]).toBeCloseTo(by * 0.98, 9);
  });
  it('of several channels, one of which stays away in places', () => {
    const text = `time,left,right\n${rows((t, v) => `${t.toFixed(4)},${v},${t > 0.02 ? v : ''}`)}`;
    expect(readTraceText(text).channels.map(({ name }) => name)).toEqual(['left']);
  });
  it('of one column with its step, and none without', () => {
    const values = rows((_t, v) => String(v));
    expect(readTraceText(`Sample Interval,0.0005\n${values}`).seconds[2]).toBeCloseTo(0.001, 12);
    expect(readTraceText(`Sample rate,2000\n${values}`).seconds[2]).toBeCloseTo(0.001, 12);
    expect(() => readTraceText(values)).toThrow(/one column and no sample interval/);
  });
  it('leaves out a moment that is written twice, and a row that is damaged', () => {
    const text = rows((t, v) => `${t.toFixed(4)},${v}`).split('\n');
    text.splice(10, 0, text[9]!, 'stopped,');
    expect(readTraceText(text.join('\n')).seconds).toHaveLength(40);
  });
  it('that is none is refused with a sentence', () => {
    for (const [text, words] of [
      ['hello\nworld', /no rows of figures/],
      ['', /no rows of figures/],
      ['1,2\n2,3\n3,4', /3 points/],
      [rows((t, v) => `${(-t).toFixed(4)},${v}`), /does not rise/],
      [`${rows((t, v) => `${t.toFixed(4)},${v}`)}\n${'oops,no\n'.repeat(5)}`, /rows are no figures/],
    ] as const)
      expect(() => readTraceText(text)).toThrow(words);
  });
});
