'use server';

import { z } from 'zod';
import { action } from '../gate/action';
import { id, machineCode, text } from '../gate/fields';
import { candidateQuestion } from './question';
import * as server from './server';

/** What a page may ask the server to do; everything else of this feature stays on the server. */

export const pastJobsWith = action(
  'pastJobsWith',
  z.tuple([id, z.array(text(40)).max(200), z.number().int().min(-1).max(1e9)]),
  server.pastJobsWith,
);

export const functionsBehind = action(
  'functionsBehind',
  z.tuple([candidateQuestion]),
  server.functionsBehind,
);

/** The line itself is judged by its own schema, which names the field. */
export const saveBookRow = action(
  'saveBookRow',
  z.tuple([machineCode, z.unknown(), id.optional()]),
  server.saveBookRow,
);

export const dropBookRow = action('dropBookRow', z.tuple([machineCode, id]), server.dropBookRow);

export const importBook = action('importBook', z.tuple([machineCode, text(2_000_001)]), server.importBook);
