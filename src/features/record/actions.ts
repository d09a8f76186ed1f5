'use server';

import { z } from 'zod';
import { action } from '../gate/action';
import { text } from '../gate/fields';
import { ownOddsSchema } from './ownOdds';
import * as server from './server';

export const settleOdds = action(
  'settleOdds',
  z.tuple([ownOddsSchema, text(60).refine((name) => name.trim() !== '', 'Say who settles it.')]),
  server.settleOdds,
);
