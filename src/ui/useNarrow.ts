'use client';

import { useMedia } from './useMedia';

/** Under the width of a tablet held upright; the same as `max-tablet:` in the styles. */
const NARROW = '(max-width: 699.98px)';

/** Whether the page is as narrow as a phone. */
export function useNarrow(): boolean {
  return useMedia(NARROW, false);
}
