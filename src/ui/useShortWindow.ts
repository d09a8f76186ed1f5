import { useMedia } from './useMedia';

/** Windows lower than this give less room to what is drawn, px. */
const SHORT = '(max-height: 880px)';

/** Whether the window is a low one, such as a laptop's. */
export function useShortWindow(): boolean {
  return useMedia(SHORT, true);
}
