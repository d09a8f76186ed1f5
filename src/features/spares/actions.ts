'use server';

import { z } from 'zod';
import { MOVES, REQUISITION_STATES } from '@/core/shed/requisition';
import { action } from '../gate/action';
import { text } from '../gate/fields';
import * as server from './server';
import { pieces, spareFacts } from './spareFacts';

const number = text(60).min(1);
const person = text(60)
  .transform((name) => name.trim())
  .refine((name) => name !== '', 'Say who does it.');

export const keepSpare = action('keepSpare', z.tuple([spareFacts]), server.keepSpare);
export const movePieces = action(
  'movePieces',
  z.tuple([number, pieces, z.enum(MOVES), person]),
  server.movePieces,
);
export const askPieces = action('askPieces', z.tuple([number, pieces, person]), server.askPieces);
export const stepOn = action(
  'stepOn',
  z.tuple([z.number().int().min(1).max(2_000_000_000), z.enum(REQUISITION_STATES), person, text(300)]),
  server.stepOn,
);
