'use server';

import * as server from './server';

/** What a page may ask the server to do; everything else of this feature stays on the server. */

export async function settlePolicy(...words: Parameters<typeof server.settlePolicy>) {
  return server.settlePolicy(...words);
}
