import { openPages, pageKey } from './caches';

/** A page that is kept is not asked for again so soon. */
const FRESH_MS = 10 * 60_000;
const asked = new Map<string, number>();

/** A server that has its hands full is asked again so much later for what did not come. */
const AGAIN_AFTER_MS = [5000, 20_000, 60_000];

/**
 * Keeps pages that go with the one that is open, for where there is no network, one after the other. One that does not come
 * is asked for a few times more, behind what follows; nothing that is written depends on it.
 */
export async function keepPages(paths: readonly string[]): Promise<void> {
  void keepAgain(await keepOnce(paths));
}

async function keepAgain(paths: readonly string[]): Promise<void> {
  let left = paths;
  for (const pause of AGAIN_AFTER_MS) {
    if (left.length === 0) return;
    await new Promise((resolve) => setTimeout(resolve, pause));
    left = await keepOnce(left);
  }
}

/** Gives those that did not come, where there is a network. */
async function keepOnce(paths: readonly string[]): Promise<string[]> {
  const now = Date.now();
  const cache = navigator.onLine ? await openPages() : null;
  if (!cache) return [];
  const left: string[] = [];
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
    if (isKept) continue;
    asked.delete(url);
    left.push(path);
  }
  return left;
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
