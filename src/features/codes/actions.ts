'use server';

import * as server from './server';

/** What a page may ask the server to do; everything else of this feature stays on the server. */

export async function pastJobsWith(...words: Parameters<typeof server.pastJobsWith>) {
  return server.pastJobsWith(...words);
}

export async function functionsBehind(...words: Parameters<typeof server.functionsBehind>) {
  return server.functionsBehind(...words);
}

export async function saveBookRow(...words: Parameters<typeof server.saveBookRow>) {
  return server.saveBookRow(...words);
}

export async function dropBookRow(...words: Parameters<typeof server.dropBookRow>) {
  return server.dropBookRow(...words);
}

export async function importBook(...words: Parameters<typeof server.importBook>) {
  return server.importBook(...words);
}
