'use client';

import { useWindowVirtualizer } from '@tanstack/react-virtual';
import { useCallback, useEffect, useRef, useState } from 'react';

/** Up to here every row stands on the page: it can be searched in, and printed. */
export const ALL_AT_ONCE = 120;
/** What a server or a test takes for the window. */
const FIRST_RECT = { width: 1280, height: 800 };

/**
 * A list of any length on a page that scrolls. Beyond some hundred rows only those near the window stand on the page; the
 * list keeps its height, and each row says which of how many it is.
 */
export function LongList<T>({
  items,
  keyOf,
  rowHeight,
  label,
  className = '',
  children,
}: {
  items: readonly T[];
  keyOf: (item: T, at: number) => string | number;
  /** About as high as a row is, pixels; each is measured when it stands. */
  rowHeight: number;
  label: string;
  /** Of a row. */
  className?: string;
  children: (item: T) => React.ReactNode;
}) {
  const list = useRef<HTMLUListElement>(null);
  const [top, setTop] = useState(0);
  useEffect(() => setTop(list.current?.offsetTop ?? 0), [items]);
  const long = items.length > ALL_AT_ONCE;
  // The list keeps what it measured for as long as this stays the same.
  const getItemKey = useCallback((at: number) => keyOf(items[at]!, at), [items, keyOf]);
  const rows = useWindowVirtualizer({
    count: items.length,
    enabled: long,
    estimateSize: () => rowHeight,
    overscan: 12,
    scrollMargin: top,
    initialRect: FIRST_RECT,
    getItemKey,
  });
  if (!long) {
    return (
      <ul aria-label={label}>
        {items.map((item, at) => (
          <li key={keyOf(item, at)} className={className}>
            {children(item)}
          </li>
        ))}
      </ul>
    );
  }
  return (
    <ul ref={list} aria-label={label} className="relative" style={{ height: rows.getTotalSize() }}>
      {rows.getVirtualItems().map(({ key, index, start }) => (
        <li
          key={key}
          ref={rows.measureElement}
          data-index={index}
          aria-setsize={items.length}
          aria-posinset={index + 1}
          className={`absolute inset-x-0 top-0 ${className}`}
          style={{ transform: `translateY(${start - top}px)` }}
        >
          {children(items[index]!)}
        </li>
      ))}
    </ul>
  );
}
