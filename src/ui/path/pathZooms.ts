/** Widths a long path may be drawn at, as multiples of the frame it is fitted to. */
export const PATH_ZOOMS = [1, 1.5, 2.2] as const;
