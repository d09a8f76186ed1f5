import { clockWords, stopwatchWords, writtenWords } from './times';
import { heldWords } from './heldAgainst';

describe('times and limits in words', () => {
  it.each([
    [0, '0:00'],
    [9.9, '0:09'],
    [75, '1:15'],
    [600, '10:00'],
  ])('%d s on a stopwatch', (seconds, words) => {
    expect(stopwatchWords(seconds)).toBe(words);
  });
  it('a clock that is off, and which way', () => {
    expect(clockWords(58 * 60_000)).toBe('clock 58 min fast');
    expect(clockWords(-5 * 3_600_000)).toBe('clock 5 h slow');
    expect(clockWords(3 * 24 * 3_600_000)).toBe('clock 3 days fast');
  });
  it('when something was written, with its clock only where that was off', () => {
    const at = '2026-02-04T10:00:00.000Z';
    const plain = writtenWords(at, undefined, 'UTC');
    expect(plain).not.toMatch(/clock/);
    expect(writtenWords(at, { receivedAt: at, skewMs: 3_600_000 }, 'UTC')).toBe(
      `${plain} (clock 60 min fast)`,
    );
  });
  it('a limit with its figures, whose they are, and its source', () => {
    expect(
      heldWords({
        table: 'contact-drops',
        row: 'One closed heavy contact, DC',
        figures: [
          { label: 'Good up to', value: 0.07, unit: 'V', own: 'equipment' },
          { label: 'Repair from', value: 0.2, unit: 'V', own: 'table' },
        ],
        source: 'Shop rules',
        equipment: 'winches',
      }),
    ).toBe(
      'One closed heavy contact, DC: good up to 0.07 V, the shop’s own figure for winches, repair from 0.2 V. Shop rules.',
    );
  });
});
