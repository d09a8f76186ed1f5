'use server';

import * as server from './server';

/** What a page may ask the server to do; everything else of this feature stays on the server. */

export async function openVersion(...words: Parameters<typeof server.openVersion>) {
  return server.openVersion(...words);
}

export async function keepDrawing(...words: Parameters<typeof server.keepDrawing>) {
  return server.keepDrawing(...words);
}
