'use server';

import { revalidatePath } from 'next/cache';
import { z } from 'zod';
import { action } from '../gate/action';
import { dayRows } from './day';
import * as server from './server';

export const keepDay = action(
  'keepDay',
  'plan',
  z.tuple([dayRows, z.iso.datetime().nullable()]),
  async (who, rows, since) => {
    const answer = await server.keepDay(rows, since, who.name);
    if (answer.trouble === null) revalidatePath('/day');
    return answer;
  },
);
