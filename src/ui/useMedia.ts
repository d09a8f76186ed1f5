import { useSyncExternalStore } from 'react';

/** What the browser says of itself; `before` stands until the first look, since the server cannot know. */
export function useMedia(query: string, before: boolean): boolean {
  return useSyncExternalStore(
    (listener) => {
      const found = window.matchMedia(query);
      found.addEventListener('change', listener);
      return () => found.removeEventListener('change', listener);
    },
    () => window.matchMedia(query).matches,
    () => before,
  );
}
