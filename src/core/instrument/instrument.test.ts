import { CircuitModel } from '../circuit/model';
import { hoistLimits } from '../templates/line';
import { driverHighSide } from '../templates/electrical';
import { parseReading } from '../units/parseReading';
import { MEASURES, modeFor, suits } from './meterMode';
import { meterText } from './meterText';
import { readPlainLine } from './plainLine';
import { functionName, readFigure, readFunction, writeFigure } from './scpi';
import { settle } from './settling';

describe('what an instrument says of its dial', () => {
  it('names each function so that its own answer is understood again', () => {
    for (const measures of MEASURES)
      for (const coupling of ['dc', 'ac'] as const) {
        const coupled = measures === 'volts' || measures === 'amps';
        expect(readFunction(`"${functionName({ measures, coupling })}"`)).toEqual(
          coupled ? { measures, coupling } : { measures },
        );
      }
  });
  it('takes long names, CONFigure answers and four-wire ohms; knows no temperature', () => {
    expect(readFunction('"VOLTAGE:AC"')).toEqual({ measures: 'volts', coupling: 'ac' });
    expect(readFunction('"VOLT +1.000000E+01,+1.000000E-05"')).toEqual({ measures: 'volts', coupling: 'dc' });
    expect(readFunction('"FRES"')).toEqual({ measures: 'ohms' });
    expect(readFunction('"TEMP"')).toBeNull();
    expect(readFunction('')).toBeNull();
  });
});

describe('figures on the wire', () => {
  it('come back as they went', () => {
    for (const value of [0, 27.41, -0.55, 2.7e6, 1.5e-7, 'OL'] as const)
      expect(readFigure(writeFigure(value))).toBe(value);
  });
  it('are none where the instrument says so, or says something else', () => {
    expect(readFigure('+9.91000000E+37')).toBeNull();
    expect(readFigure('-9.9E37')).toBe('OL');
    expect(readFigure('')).toBeNull();
    expect(readFigure('0x10')).toBeNull();
    expect(readFigure('27.4 V')).toBeNull();
  });
});

describe('a line "value unit"', () => {
  it.each([
    ['27.41 VDC', { mode: { measures: 'volts', coupling: 'dc' }, value: 27.41 }],
    ['-0.55 V', { mode: { measures: 'volts' }, value: -0.55 }],
    ['118.2 V AC', { mode: { measures: 'volts', coupling: 'ac' }, value: 118.2 }],
    ['6.8 kOhm', { mode: { measures: 'ohms' }, value: 6800 }],
    ['2.7 MΩ', { mode: { measures: 'ohms' }, value: 2.7e6 }],
    ['OL kohm', { mode: { measures: 'ohms' }, value: 'OL' }],
    ['O.L MΩ', { mode: { measures: 'ohms' }, value: 'OL' }],
    ['620 mA DC', { mode: { measures: 'amps', coupling: 'dc' }, value: 0.62 }],
    ['59.98 Hz', { mode: { measures: 'hertz' }, value: 59.98 }],
  ])('%s', (line, sample) => expect(readPlainLine(line)).toEqual(sample));
  it('that does not say what of is none', () => {
    for (const line of ['27.41', 'OL', '', 'hello', '3 bar', '12 apples'])
      expect(readPlainLine(line)).toBeNull();
  });
});

describe('the dial a test wants', () => {
  const direct = new CircuitModel(driverHighSide());
  const line = new CircuitModel(hoistLimits());
  const ends = ({ compiled }: CircuitModel) => {
    const { a, b } = compiled.branches.find(({ emf, domain }) => emf !== 0 && domain === 'electrical')!;
    return { from: compiled.nodeNames[a]!, to: compiled.nodeNames[b]! };
  };
  it('is direct or alternating as the points are, and none for what is no meter’s', () => {
    expect(modeFor(direct, { kind: 'volts', ...ends(direct), setup: {} })).toEqual({
      measures: 'volts',
      coupling: 'dc',
    });
    expect(modeFor(line, { kind: 'volts', ...ends(line), setup: {} })).toEqual({
      measures: 'volts',
      coupling: 'ac',
    });
    expect(modeFor(direct, { kind: 'ohms', ...ends(direct), setup: {} })).toEqual({ measures: 'ohms' });
    expect(modeFor(direct, { kind: 'click', part: 'Y1', setup: {} })).toBeNull();
    expect(modeFor(direct, { kind: 'insulation', ...ends(direct), testVolts: 500, setup: {} })).toBeNull();
  });
  it('is held against the meter’s own, but for what it does not say', () => {
    const wanted = { measures: 'volts', coupling: 'dc' } as const;
    expect(suits({ measures: 'volts', coupling: 'dc' }, wanted)).toBe(true);
    expect(suits({ measures: 'volts' }, wanted)).toBe(true);
    expect(suits({ measures: 'volts', coupling: 'ac' }, wanted)).toBe(false);
    expect(suits({ measures: 'ohms' }, wanted)).toBe(false);
  });
});

describe('a display that settles', () => {
  it('is steady once its last values agree, and not before', () => {
    expect(settle([12, 24, 27.1], 0.05).is).toBe('moving');
    expect(settle([0, 12, 24, 27.4, 27.41, 27.4, 27.41], 0.05)).toEqual({ is: 'steady', value: 27.41 });
    expect(settle(['OL', 'OL', 'OL', 'OL'], 0.05)).toEqual({ is: 'steady', value: 'OL' });
    expect(settle([0.01, 0.03, 0.02, 0.01], 0.05)).toEqual({ is: 'steady', value: 0.01 });
  });
  it('wanders when it does not come to rest, and keeps the least and the most', () => {
    const shown = Array.from({ length: 20 }, (_one, k) => (k % 2 === 0 ? 5 + k / 10 : 11));
    const found = settle(shown, 0.05);
    expect(found.is).toBe('wanders');
    if (found.is !== 'wanders') return;
    expect(found.values[0]).toBeCloseTo(5.4, 9);
    expect(found.values.at(-1)).toBe(11);
    const flickers = settle(
      Array.from({ length: 16 }, (_one, k) => (k % 3 === 0 ? 40 : ('OL' as const))),
      0.05,
    );
    expect(flickers).toEqual({ is: 'wanders', values: ['OL', 40, 40, 40] });
  });
});

describe('a sample as it would be typed', () => {
  it.each([
    [{ measures: 'volts', coupling: 'dc' }, 27.41234, '27.412 V'],
    [{ measures: 'ohms' }, 6832.1, '6.8321 kΩ'],
    [{ measures: 'ohms' }, 2.7e6, '2.7 MΩ'],
    [{ measures: 'ohms' }, 0.3, '0.3 Ω'],
    [{ measures: 'hertz' }, 59.98, '59.98 Hz'],
    [{ measures: 'ohms' }, 'OL', 'OL'],
  ] as const)('%o %s', (mode, value, text) => {
    expect(meterText({ mode, value })).toBe(text);
    if (value !== 'OL') expect(parseReading(text)!.value).toBeCloseTo(value, value > 1000 ? -1 : 2);
  });
});
