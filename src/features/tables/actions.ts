'use server';

import { z } from 'zod';
import { action } from '../gate/action';
import { text } from '../gate/fields';
import { refreshAllTrendsSoon } from '../trends/refresh';
import * as server from './server';

/** What a page may ask the server to do; everything else of this feature stays on the server. */

export const settleRules = action('settleRules', z.tuple([z.unknown(), text(200)]), async (rules, person) => {
  const answer = await server.settleRules(rules, person);
  // What drifts is held against them.
  if (answer.trouble === null) refreshAllTrendsSoon();
  return answer;
});
