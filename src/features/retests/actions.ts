'use server';

import { z } from 'zod';
import { action } from '../gate/action';
import { id, text } from '../gate/fields';
import * as server from './server';

export const openRetest = action(
  'openRetest',
  z.tuple([
    id,
    text(60)
      .transform((name) => name.trim())
      .refine((name) => name !== '', 'Say who takes the round.'),
  ]),
  server.openRetest,
);
