'use server';

import { z } from 'zod';
import { MOVES, REQUISITION_STATES } from '@/core/shed/requisition';
import { action, whoever } from '../gate/action';
import { text } from '../gate/fields';
import * as server from './server';
import { pieces, spareFacts } from './spareFacts';

const number = text(60).min(1);
export const keepSpare = action('keepSpare', 'stock', z.tuple([spareFacts]), whoever(server.keepSpare));
export const movePieces = action(
  'movePieces',
  'stock',
  z.tuple([number, pieces, z.enum(MOVES)]),
  (who, spare, by, why) => server.movePieces(spare, by, why, who.name),
);
export const askPieces = action('askPieces', 'work', z.tuple([number, pieces]), (who, spare, count) =>
  server.askPieces(spare, count, who.name),
);
export const stepOn = action(
  'stepOn',
  'stock',
  z.tuple([z.number().int().min(1).max(2_000_000_000), z.enum(REQUISITION_STATES), text(300)]),
  (who, requisition, state, note) => server.stepOn(requisition, state, who, note),
);
