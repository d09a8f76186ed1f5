'use client';

import { useEffect, useMemo, useRef, useState } from 'react';
import type { Lane } from '@/core/path/lane';
import { layoutPath } from '@/core/path/layoutPath';
import type { Standing } from '@/core/path/standing';
import { PATH_ZOOMS } from '@/ui/path/pathZooms';
import { useWidth } from '@/ui/useWidth';
import type { Speaker } from '@/words/en/readings';

export type PathView = ReturnType<typeof usePathView>;

/** A lane laid out for the frame it stands in, and which stretch of it is on the screen. */
export function usePathView(
  { model, lanes }: Speaker,
  lane: Lane | undefined,
  standings: readonly Standing[],
  asked: readonly number[],
  low: boolean,
) {
  const frame = useRef<HTMLDivElement>(null);
  const scroller = useRef<HTMLDivElement>(null);
  const width = useWidth(frame);
  const [zoom, setZoom] = useState(0);
  const [scrolled, setScrolled] = useState(0);
  const layout = useMemo(
    () =>
      lane
        ? layoutPath(model, lanes, lane, { width: width * PATH_ZOOMS[zoom]!, standings, asked, low })
        : null,
    [model, lanes, lane, width, zoom, standings, asked, low],
  );
  // On a path longer than the screen, what is asked for comes into view.
  const wanted = layout?.points.find(({ node }) => asked.includes(node))?.x;
  useEffect(() => {
    if (wanted === undefined || !layout || layout.width <= width) return;
    scroller.current?.scrollTo({ left: wanted - width / 2 });
  }, [wanted, layout, width]);
  return { frame, scroller, width, layout, zoom, setZoom, scrolled, setScrolled };
}
