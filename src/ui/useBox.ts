import { useEffect, useState } from 'react';

/** Width and height of an element as it is laid out; 1280 × 400 before the first look. */
export function useBox(element: React.RefObject<HTMLElement | null>): { width: number; height: number } {
  const [box, setBox] = useState({ width: 1280, height: 400 });
  useEffect(() => {
    const own = element.current;
    if (!own) return;
    const observer = new ResizeObserver(([entry]) => {
      const { width, height } = entry!.contentRect;
      if (width > 0 && height > 0) setBox({ width: Math.round(width), height: Math.round(height) });
    });
    observer.observe(own);
    return () => observer.disconnect();
  }, [element]);
  return box;
}
