/** Names of what a browser keeps for where there is no network. */
export const PAGES = 'spiraxis-pages';
export const PHOTOS = 'spiraxis-photos';
/** What jobs would begin with. */
export const BEGIN = 'spiraxis-begin';
/** Pieces of logs that are too long for their pages. */
export const LOGS = 'spiraxis-logs';
/** What an open page that nothing holds says to the program that is kept here. */
export const HOLD = 'hold this page';

/** Number of the job that a path is the page of; null where it is no job's. */
export function jobOfPath(path: string): number | null {
  const number = /^\/jobs\/(\d+)$/.exec(path)?.[1];
  return number === undefined ? null : Number(number);
}

/** What a browser keeps under a name; null where it keeps nothing: an old one, a private window, storage that is shut. */
export async function openKept(name: string): Promise<Cache | null> {
  return 'caches' in globalThis ? caches.open(name).catch(() => null) : null;
}

/** The pages that a browser keeps. */
export function openPages(): Promise<Cache | null> {
  return openKept(PAGES);
}

/** What a page is kept under: all steps and sheets of a job are one page. */
export function pageKey(address: string): string {
  const url = new URL(address);
  url.hash = '';
  if (jobOfPath(url.pathname) !== null) url.search = '';
  return url.href;
}

/** Lets all pages and photos go: they were somebody else's, who is signed in here no longer. Where nothing can be kept nothing was. */
export async function forgetKept(): Promise<void> {
  if (!(await openPages())) return;
  await Promise.all([PAGES, PHOTOS, BEGIN, LOGS].map((name) => caches.delete(name)));
}
