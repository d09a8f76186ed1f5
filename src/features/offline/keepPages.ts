import { openPages, pageKey } from './caches';

/** A page that is kept is not asked for again so soon. */
const FRESH_MS = 10 * 60_000;
const asked = new Map<string, number>();

/**
 * Keeps pages that go with the one that is open, for where there is no network, one after the other. One that does not come
 * is asked for the next time; nothing that is written depends on it.
 */
export async function keepPages(paths: readonly string[], now = Date.now()): Promise<void> {
  const cache = navigator.onLine ? await openPages() : null;
  if (!cache) return;
  for (const path of paths) {
    const url = pageKey(new URL(path, location.origin).href);
    if (now - (asked.get(url) ?? -Infinity) < FRESH_MS) continue;
    asked.set(url, now);
    const page = await fetch(url, { headers: { accept: 'text/html' } }).catch(() => null);
    // A page that leads elsewhere (to where one signs in) is not the one that was asked for.
    const isKept =
      page?.ok === true &&
      !page.redirected &&
      // A device that is full keeps what it has; what is written has its own place, which says so.
      (await cache.put(url, page).then(
        () => true,
        () => false,
      ));
    if (!isKept) asked.delete(url);
  }
}

/** A page that is kept here. */
export interface KeptPage {
  path: string;
  title: string;
}

/** Pages that are kept here, by their titles. */
export async function listKept(): Promise<KeptPage[]> {
  const cache = await openPages();
  if (!cache) return [];
  const pages = await Promise.all(
    (await cache.keys()).map(async (request): Promise<KeptPage> => {
      const { pathname, search } = new URL(request.url);
      const text = (await (await cache.match(request))?.text()) ?? '';
      // The page's own title, which the server wrote; read as text, never as markup of this page.
      const title = new DOMParser().parseFromString(text, 'text/html').title.replace(/ · Spiraxis$/, '');
      return { path: `${pathname}${search}`, title: title || pathname };
    }),
  );
  return pages.sort((a, b) => a.path.localeCompare(b.path, 'en', { numeric: true }));
}
