'use server';

import { z } from 'zod';
import { action, whoever } from '../gate/action';
import { id, machineCode, text } from '../gate/fields';
import * as server from './server';

/** What a page may ask the server to do; everything else of this feature stays on the server. */

export const createMachine = action(
  'createMachine',
  'draw',
  z.tuple([z.object({ code: text(200), name: text(500), like: text(200) })]),
  (who, fields) => server.createMachine(fields, who.name),
);

export const nameMachine = action(
  'nameMachine',
  'draw',
  z.tuple([
    machineCode,
    z.object({
      name: text(500),
      equipment: text(200),
      serial: text(200),
      place: text(500),
      hours: text(40),
    }),
  ]),
  whoever(server.nameMachine),
);

export const removeFunction = action(
  'removeFunction',
  'draw',
  z.tuple([machineCode, id]),
  whoever(server.removeFunction),
);
