import { request, type Browser, type BrowserContext, type Page } from '@playwright/test';

/** Where the cookies of who is signed in from the start are kept, lane by lane. */
export const keptAt = (lane: number) => `var/test/signed-in-${lane}.json`;

/** Whoever journeys are made as, where they do not say: a technician with a line licence. */
export const USUAL = 'Tove';

/** Signs the usual person in on every lane, once, before the first journey. */
export default async function signInOnce(): Promise<void> {
  const lanes = JSON.parse(process.env.SPIRAXIS_LANES ?? '[]') as { url: string }[];
  const urls =
    lanes.length > 0 ? lanes.map(({ url }) => url) : [process.env.SPIRAXIS_URL ?? 'http://127.0.0.1:3000'];
  for (const [lane, baseURL] of urls.entries()) {
    const context = await request.newContext({ baseURL });
    await enter(context, USUAL);
    await context.storageState({ path: keptAt(lane) });
    await context.dispose();
  }
}

async function enter(asked: Pick<BrowserContext['request'], 'post'>, name: string): Promise<void> {
  const answer = await asked.post('/api/session', { data: { name, demo: true } });
  if (!answer.ok()) throw new Error(`${name} could not sign in: ${answer.status()} ${await answer.text()}`);
}

/** Goes on as somebody else, on a device of their own: one that is shared would sign the other journeys out. */
export async function as(page: Page, name: string): Promise<void> {
  await page.context().clearCookies({ name: /^spiraxis-(person|device)$/ });
  await enter(page.request, name);
}

/** Somebody on a device of their own. Whoever opens it closes its context. */
export async function onOwnDevice(
  browser: Browser,
  name: string,
  { serviceWorkers = 'block' }: { serviceWorkers?: 'allow' | 'block' } = {},
): Promise<Page> {
  const context = await browser.newContext({ storageState: { cookies: [], origins: [] }, serviceWorkers });
  const page = await context.newPage();
  await as(page, name);
  return page;
}
