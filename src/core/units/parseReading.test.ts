import fc from 'fast-check';
import { parseReading } from './parseReading';

describe('parseReading', () => {
  it.each([
    ['27.4', 27.4, undefined, 274],
    ['2.7M', 2.7e6, undefined, 27],
    ['4k7', 4700, undefined, 47],
    ['6.8 kΩ', 6800, 'ohm', 68],
    ['.2', 0.2, undefined, 2],
    ['12,6 V', 12.6, 'V', 126],
    ['-0.55', -0.55, undefined, 55],
    ['120mV', 0.12, 'V', 120],
    ['420m', 0.42, undefined, 420],
    ['7k4', 7400, undefined, 74],
    ['4R7', 4.7, 'ohm', 47],
    ['31.4 ohms', 31.4, 'ohm', 314],
    ['2.5 MΩ', 2.5e6, 'ohm', 25],
    ['0.02', 0.02, undefined, 2],
    ['−0.2', -0.2, undefined, 2],
    ['1.5A', 1.5, 'A', 15],
  ])('reads %s', (text, value, unit, counts) => {
    const reading = parseReading(text);
    expect(reading).toMatchObject({ value, overRange: false, counts });
    expect(reading?.unit).toBe(unit);
  });

  it.each(['OL', '0L', 'ol', 'O.L', '0.L', 'OL MΩ', '∞', 'open'])('takes %s for over-range', (text) => {
    expect(parseReading(text)).toMatchObject({ value: 'OL', overRange: true });
  });

  it('keeps the bound of an over-range reading', () => {
    expect(parseReading('>2G')).toMatchObject({ value: 2e9, overRange: true });
    expect(parseReading('>550M')).toMatchObject({ value: 5.5e8, overRange: true });
  });

  it.each(['', 'abc', '1.2.3', '12 bananas', '--3', '4k7k', 'M', '27.4 27.4'])('refuses %j', (text) => {
    expect(parseReading(text)).toBeNull();
  });

  it('tells milli from mega', () => {
    expect(parseReading('5m')?.value).toBe(0.005);
    expect(parseReading('5M')?.value).toBe(5e6);
  });

  it('gives back any plain number it is given, with the size of its last digit', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -99999, max: 99999 }),
        fc.integer({ min: 0, max: 4 }),
        (digits, decimals) => {
          const text = (digits / 10 ** decimals).toFixed(decimals);
          const reading = parseReading(text);
          expect(reading?.value).toBeCloseTo(Number(text), 10);
          expect(reading?.resolution).toBeCloseTo(10 ** -decimals, 10);
        },
      ),
    );
  });

  it('never throws on random text', () => {
    fc.assert(
      fc.property(fc.string(), (text) => {
        parseReading(text);
      }),
    );
  });
});
