'use server';

import * as server from './server';

/** What a page may ask the server to do; everything else of this feature stays on the server. */

export async function findOnMachine(...words: Parameters<typeof server.findOnMachine>) {
  return server.findOnMachine(...words);
}
