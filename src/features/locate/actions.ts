'use server';

import { z } from 'zod';
import { action, whoever } from '../gate/action';
import { id, text } from '../gate/fields';
import * as server from './server';

/** What a page may ask the server to do; everything else of this feature stays on the server. */

export const findOnMachine = action(
  'findOnMachine',
  'look',
  z.tuple([id, text(80)]),
  whoever(server.findOnMachine),
);
