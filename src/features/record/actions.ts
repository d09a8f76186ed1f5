'use server';

import { z } from 'zod';
import { action } from '../gate/action';
import { leaveTrail } from '../people/trail';
import { ownOddsSchema } from './ownOdds';
import * as server from './server';

export const settleOdds = action('settleOdds', 'settle', z.tuple([ownOddsSchema]), async (who, settled) => {
  const answer = await server.settleOdds(settled, who.name);
  await leaveTrail('settled', who, 'what usually breaks');
  return answer;
});
