import { useEffect, useState } from 'react';

/** Width of an element as it is laid out; 1280 before the first look. */
export function useWidth(box: React.RefObject<HTMLElement | null>): number {
  const [width, setWidth] = useState(1280);
  useEffect(() => {
    const element = box.current;
    if (!element) return;
    const observer = new ResizeObserver(([entry]) => {
      const now = Math.round(entry!.contentRect.width);
      if (now > 0) setWidth(now);
    });
    observer.observe(element);
    return () => observer.disconnect();
  }, [box]);
  return width;
}
