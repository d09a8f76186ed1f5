import { parseCelsius } from './parseCelsius';

describe('a temperature as it is typed', () => {
  it.each([
    ['23', 23],
    ['23 °C', 23],
    ['-5,5', -5.5],
    ['−12 c', -12],
    ['74 °F', 23.33],
    ['104F', 40],
  ])('%s', (text, celsius) => expect(parseCelsius(text)).toBeCloseTo(celsius, 2));

  it.each(['', 'warm', '23 V', '300', '-80', '1e9', '2 3'])('is none: %s', (text) =>
    expect(parseCelsius(text)).toBeNull(),
  );
});
