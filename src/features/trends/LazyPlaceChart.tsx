'use client';

import { useSyncExternalStore, type ComponentProps } from 'react';
import { lazyPart } from '@/ui/lazyPart';
import type { PlaceChart } from './PlaceChart';

const Chart = lazyPart(() => import('./PlaceChart').then((part) => part.PlaceChart));
const never = () => () => undefined;

/** The chart comes when its page is opened, and not with the list. It is drawn on a canvas, which a server has none of. */
export function LazyPlaceChart(props: ComponentProps<typeof PlaceChart>) {
  const isHere = useSyncExternalStore(
    never,
    () => true,
    () => false,
  );
  return isHere ? <Chart {...props} /> : <div className="h-[340px]" />;
}
