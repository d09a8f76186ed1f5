import { readLogFile } from './readLogFile';

/** A bus log of about the given number of lines: two senders, a multi-packet message each second, some damage. */
function logText(seconds: number): string {
  const lines: string[] = [];
  for (let at = 0; at < seconds; at++) {
    lines.push(
      `(${at}.000000) can0 1CECFF21#200A0002FFCAFE00`,
      `(${at}.050000) can0 0CF00400#FFFFFFC019FFFFFF`,
      `(${at}.060000) can0 1CEBFF21#0104FF16F0E6018A`,
      `(${at}.070000) can0 18FECA27#04FFB804030AFFFF`,
      `(${at}.110000) can0 1CEBFF21#02F0FF01FFFFFFFF`,
      at % 50 === 0 ? 'half a li' : `(${at}.200000) can0 0CF00400#FFFFFFC019FFFFFF`,
    );
  }
  return lines.join('\n');
}

describe('a log file', () => {
  it('is read in pieces, with its share told as it goes', async () => {
    const text = logText(20_000);
    const shares: number[] = [];
    const summary = await readLogFile(new Blob([text]), (share) => shares.push(share));
    expect(summary).toMatchObject({ lines: 120_000, bad: 400, broken: 0 });
    expect(summary.codes.map(({ component, count, spans }) => [component, count, spans.length])).toEqual([
      [1208, 20_000, 1],
      [520214, 20_000, 1],
      [520330, 20_000, 1],
    ]);
    expect(shares.length).toBeGreaterThan(1);
    expect([...shares].sort((a, b) => a - b)).toEqual(shares);
    expect(shares.at(-1)).toBeLessThanOrEqual(1);
  });
});
