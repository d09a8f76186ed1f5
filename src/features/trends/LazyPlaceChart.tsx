'use client';

import { lazyPart } from '@/ui/lazyPart';

/** The chart comes when its page is opened, and not with the list. */
export const LazyPlaceChart = lazyPart(() => import('./PlaceChart').then(({ PlaceChart }) => PlaceChart));
