/** Height of the small picture of a path that is longer than its frame, px; it stands under the path, on nothing of it. */
export const OVERVIEW_PX = 30;
