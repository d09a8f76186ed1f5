'use server';

import { revalidatePath } from 'next/cache';
import { z } from 'zod';
import { action } from '../gate/action';
import { dayHours, dayRows } from './day';
import * as server from './server';

export const keepDay = action(
  'keepDay',
  'plan',
  z.tuple([dayRows, dayHours, z.iso.datetime().nullable()]),
  async (who, rows, hours, since) => {
    const answer = await server.keepDay(rows, hours, since, who.name);
    if (answer.trouble === null) revalidatePath('/day');
    return answer;
  },
);
