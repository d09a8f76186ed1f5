'use server';

import * as server from './server';

/** What a page may ask the server to do; everything else of this feature stays on the server. */

export async function createMachine(...words: Parameters<typeof server.createMachine>) {
  return server.createMachine(...words);
}

export async function nameMachine(...words: Parameters<typeof server.nameMachine>) {
  return server.nameMachine(...words);
}

export async function removeFunction(...words: Parameters<typeof server.removeFunction>) {
  return server.removeFunction(...words);
}
