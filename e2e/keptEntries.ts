import { expect, type APIRequestContext } from '@playwright/test';
import { PIECE } from '../src/features/desk/log/protocol';

/** Patience for a server that has its hands full. */
const PATIENCE_MS = 120_000;

/**
 * A job's entries as the server keeps them, read as a device does: piece by piece, and with nothing worked out of them. A server that has its
 * hands full is asked again, as a person would; a journey that ends here says what the server said.
 */
export async function keptEntries<E>(request: APIRequestContext, job: string | number): Promise<E[]> {
  const log: E[] = [];
  for (;;) {
    let text = '';
    await expect(async () => {
      const answer = await request.get(`/api/jobs/${job}/entries?after=${log.length}`);
      text = await answer.text();
      expect(answer.status(), text.slice(0, 300)).toBe(200);
    }).toPass({ timeout: PATIENCE_MS });
    const piece = JSON.parse(text) as { entry: E }[];
    log.push(...piece.map(({ entry }) => entry));
    if (piece.length < PIECE) return log;
  }
}

/** Waits until a job's entries are what they should become: what a page wrote is on its way for a moment. */
export function pollKept<T>(look: () => Promise<T>) {
  return expect.poll(look, { timeout: PATIENCE_MS });
}

/** The number of the job that an address is of. */
export function jobOf(address: string): string {
  return /\/jobs\/(\d+)/.exec(address)![1]!;
}
