'use client';

import { useEffect, useState } from 'react';

/** The letters of a chart's figures. */
export const CHART_FIGURES = '15px B612';

/** Whether a chart's letters are there: a canvas does not draw itself again when they arrive. */
export function useLettered(): boolean {
  const [lettered, setLettered] = useState(() => document.fonts.check(CHART_FIGURES));
  useEffect(() => {
    void document.fonts.load(CHART_FIGURES).then(() => setLettered(true));
  }, []);
  return lettered;
}
