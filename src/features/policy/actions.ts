'use server';

import { z } from 'zod';
import { action } from '../gate/action';
import { leaveTrail } from '../people/trail';
import { refreshAllTrendsSoon } from '../trends/refresh';
import * as server from './server';

/** What a page may ask the server to do; everything else of this feature stays on the server. */

/** The policy itself is judged by its own schema, which names the field as the form does. */
export const settlePolicy = action('settlePolicy', 'settle', z.tuple([z.unknown()]), async (who, policy) => {
  const answer = await server.settlePolicy(policy, who.name);
  if (answer.trouble === null) {
    // Insulation is held against what it says.
    refreshAllTrendsSoon();
    await leaveTrail('settled', who, 'site policy');
  }
  return answer;
});
