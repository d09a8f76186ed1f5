'use server';

import { z } from 'zod';
import { action } from '../gate/action';
import { text } from '../gate/fields';
import { refreshAllTrendsSoon } from '../trends/refresh';
import * as server from './server';

/** What a page may ask the server to do; everything else of this feature stays on the server. */

/** The policy itself is judged by its own schema, which names the field as the form does. */
export const settlePolicy = action(
  'settlePolicy',
  z.tuple([z.unknown(), text(200)]),
  async (policy, person) => {
    const answer = await server.settlePolicy(policy, person);
    // Insulation is held against what it says.
    if (answer.trouble === null) refreshAllTrendsSoon();
    return answer;
  },
);
