'use server';

import { z } from 'zod';
import { action, whoever } from '../gate/action';
import { id } from '../gate/fields';
import { keepSchema } from './schema';
import * as server from './server';

/** What a page may ask the server to do; everything else of this feature stays on the server. */

export const openVersion = action(
  'openVersion',
  'look',
  z.tuple([id, z.number().int().min(1).max(1e6)]),
  whoever(server.openVersion),
);

export const keepDrawing = action('keepDrawing', 'draw', z.tuple([keepSchema]), (who, drawing) =>
  server.keepDrawing(drawing, who.name),
);
