'use server';

import { z } from 'zod';
import { action, whoever } from '../gate/action';
import { id, machineCode, text } from '../gate/fields';
import { candidateQuestion } from './question';
import * as server from './server';

/** What a page may ask the server to do; everything else of this feature stays on the server. */

export const pastJobsWith = action(
  'pastJobsWith',
  'look',
  z.tuple([id, z.array(text(40)).max(200), z.number().int().min(-1).max(1e9)]),
  whoever(server.pastJobsWith),
);

export const functionsBehind = action(
  'functionsBehind',
  'look',
  z.tuple([candidateQuestion]),
  whoever(server.functionsBehind),
);

/** The line itself is judged by its own schema, which names the field. */
export const saveBookRow = action(
  'saveBookRow',
  'draw',
  z.tuple([machineCode, z.unknown(), id.optional()]),
  whoever(server.saveBookRow),
);

export const dropBookRow = action(
  'dropBookRow',
  'draw',
  z.tuple([machineCode, id]),
  whoever(server.dropBookRow),
);
