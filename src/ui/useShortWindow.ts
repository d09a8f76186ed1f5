import { useSyncExternalStore } from 'react';

/** Windows lower than this give less room to what is drawn, px. */
const SHORT = '(max-height: 880px)';

/** Whether the window is a low one, such as a laptop's. */
export function useShortWindow(): boolean {
  return useSyncExternalStore(follow, isShort, () => true);
}

function isShort(): boolean {
  return window.matchMedia(SHORT).matches;
}

function follow(listener: () => void): () => void {
  const query = window.matchMedia(SHORT);
  query.addEventListener('change', listener);
  return () => query.removeEventListener('change', listener);
}
