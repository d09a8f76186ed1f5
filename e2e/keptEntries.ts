import { expect, type APIRequestContext } from '@playwright/test';

/**
 * A job's entries as the server keeps them. A server that has its hands full is asked again, as a person would; a journey that ends here says
 * what the server said.
 */
export async function keptEntries<E>(request: APIRequestContext, job: string | number): Promise<E[]> {
  let text = '';
  await expect(async () => {
    const answer = await request.get(`/api/jobs/${job}/job.json`);
    text = await answer.text();
    expect(answer.status(), text.slice(0, 300)).toBe(200);
  }).toPass({ timeout: 120_000 });
  return (JSON.parse(text) as { entries: E[] }).entries;
}

/** The number of the job that an address is of. */
export function jobOf(address: string): string {
  return /\/jobs\/(\d+)/.exec(address)![1]!;
}
