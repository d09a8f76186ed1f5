import { readGauge, writeGauge } from './gaugeText';

describe('the machine’s own gauge in a line', () => {
  it('goes out and comes in', () => {
    const line = 'Boost gauge: 50 % at rest, 100 % at work';
    expect(readGauge(line)).toEqual({ name: 'Boost gauge', atRest: 0.5, works: 1 });
    expect(writeGauge(readGauge(line))).toBe(line);
    expect([readGauge(' '), writeGauge()]).toEqual([undefined, '']);
  });
  it.each(['Boost gauge', 'Boost gauge: half at rest, full at work', 'G: 150 % at rest, 100 % at work'])(
    'refuses %s',
    (text) => expect(() => readGauge(text)).toThrow(/is no gauge; write its name/),
  );
  it('refuses one that tells nothing', () =>
    expect(() => readGauge('G: 50 % at rest, 50 % at work')).toThrow(/tells nothing/));
});
