import fc from 'fast-check';
import { parseFigure } from './parseFigure';
import { kPaOf, pressureIn } from './quantities';
import { readAs } from './readAs';

describe('what is typed for a quantity', () => {
  it.each([
    ['75 psi', 517.107],
    ['75', 7500],
    ['5.2 bar', 520],
    ['520 kPa', 520],
    ['520000 Pa', 520],
  ])('%s at a gauge in bar is %d kPa', (text, kPa) => {
    const read = readAs('pressure', text, 'bar');
    expect(read.ok && read.value).toBeCloseTo(kPa, 3);
  });

  it.each([
    ['', 'empty'],
    ['wet', 'noValue'],
    ['OL', 'overRange'],
    ['12 V', 'unit'],
  ])('%j is none: %s', (text, why) => {
    expect(readAs('pressure', text, 'bar')).toMatchObject({ ok: false, why });
  });

  it('goes there and back', () => {
    fc.assert(
      fc.property(fc.double({ min: -100, max: 1e5, noNaN: true }), (kPa) => {
        for (const unit of ['bar', 'psi', 'Pa', 'mbar', 'kPa'] as const)
          expect(kPaOf(unit, pressureIn(unit, kPa))).toBeCloseTo(kPa, 6);
      }),
    );
  });
});

describe('a plain figure', () => {
  it.each([
    ['12', 12],
    ['12,5', 12.5],
    ['.5', 0.5],
    ['−3', -3],
  ])('%s', (text, value) => expect(parseFigure(text)).toEqual({ is: 'figure', value }));

  it.each(['12 euro', '1e3', '1.2.3', '0x10', 'Infinity', 'abc'])('%s is none, and no nought', (text) => {
    expect(parseFigure(text)).toEqual({ is: 'none', typed: text });
  });

  it('nothing is nothing', () => expect(parseFigure('  ')).toEqual({ is: 'empty' }));
});
