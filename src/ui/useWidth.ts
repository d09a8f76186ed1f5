import { useBox } from './useBox';

/** Width of an element as it is laid out; 1280 before the first look. */
export function useWidth(box: React.RefObject<HTMLElement | null>): number {
  return useBox(box).width;
}
