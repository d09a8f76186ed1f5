'use server';

import { z } from 'zod';
import { action } from '../gate/action';
import { leaveTrail } from '../people/trail';
import { refreshAllTrendsSoon } from '../trends/refresh';
import * as server from './server';

/** What a page may ask the server to do; everything else of this feature stays on the server. */

export const settleRules = action('settleRules', 'settle', z.tuple([z.unknown()]), async (who, rules) => {
  const answer = await server.settleRules(rules, who.name);
  // What drifts is held against them.
  if (answer.trouble === null) {
    refreshAllTrendsSoon();
    await leaveTrail('settled', who, 'shop rules');
  }
  return answer;
});
