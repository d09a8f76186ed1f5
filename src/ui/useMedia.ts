import { useCallback, useSyncExternalStore } from 'react';

/** What the browser says of itself; `before` stands until the first look, since the server cannot know. */
export function useMedia(query: string, before: boolean): boolean {
  // The same each time: another one would be followed anew at every drawing.
  const follow = useCallback(
    (listener: () => void) => {
      const found = window.matchMedia(query);
      found.addEventListener('change', listener);
      return () => found.removeEventListener('change', listener);
    },
    [query],
  );
  return useSyncExternalStore(
    follow,
    () => window.matchMedia(query).matches,
    () => before,
  );
}
