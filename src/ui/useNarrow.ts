'use client';

import { useSyncExternalStore } from 'react';

/** Under the width of a tablet held upright; the same as `max-tablet:` in the styles. */
const NARROW = '(max-width: 699.98px)';

function watch(onChange: () => void): () => void {
  const query = window.matchMedia(NARROW);
  query.addEventListener('change', onChange);
  return () => query.removeEventListener('change', onChange);
}

/** Whether the page is as narrow as a phone. Not before the first look: the server cannot know. */
export function useNarrow(): boolean {
  return useSyncExternalStore(
    watch,
    () => window.matchMedia(NARROW).matches,
    () => false,
  );
}
