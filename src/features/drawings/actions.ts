'use server';

import * as server from './server';

/** What a page may ask the server to do; everything else of this feature stays on the server. */

export async function addSheet(...words: Parameters<typeof server.addSheet>) {
  return server.addSheet(...words);
}

export async function dropSheet(...words: Parameters<typeof server.dropSheet>) {
  return server.dropSheet(...words);
}

export async function pinPart(...words: Parameters<typeof server.pinPart>) {
  return server.pinPart(...words);
}

export async function unpinPart(...words: Parameters<typeof server.unpinPart>) {
  return server.unpinPart(...words);
}
