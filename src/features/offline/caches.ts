/** Names of what a browser keeps for where there is no network. */
export const PAGES = 'spiraxis-pages';
export const PHOTOS = 'spiraxis-photos';

/** What a page is kept under: all steps and sheets of a job are one page. */
export function pageKey(address: string): string {
  const url = new URL(address);
  url.hash = '';
  if (/^\/jobs\/\d+$/.test(url.pathname)) url.search = '';
  return url.href;
}

/** Lets all pages and photos go: they were somebody else's, who is signed in here no longer. Pages of a browser without caches are kept nowhere. */
export async function forgetKept(): Promise<void> {
  if (!('caches' in globalThis)) return;
  await Promise.all([caches.delete(PAGES), caches.delete(PHOTOS)]);
}
