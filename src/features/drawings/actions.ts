'use server';

import { z } from 'zod';
import { sheetPin } from '@/core/library/names';
import { action, whoever } from '../gate/action';
import { hash, id, machineCode, text } from '../gate/fields';
import * as server from './server';

/** What a page may ask the server to do; everything else of this feature stays on the server. */

export const addSheet = action(
  'addSheet',
  'draw',
  z.tuple([machineCode, text(500), hash]),
  whoever(server.addSheet),
);

export const dropSheet = action('dropSheet', 'draw', z.tuple([machineCode, id]), whoever(server.dropSheet));

export const pinPart = action(
  'pinPart',
  'draw',
  z.tuple([machineCode, id, sheetPin]),
  whoever(server.pinPart),
);

export const unpinPart = action(
  'unpinPart',
  'draw',
  z.tuple([machineCode, id, text(60)]),
  whoever(server.unpinPart),
);

export const pinnedSheets = action(
  'pinnedSheets',
  'look',
  z.tuple([machineCode]),
  whoever(server.pinnedSheets),
);
