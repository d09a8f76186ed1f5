'use server';

import { z } from 'zod';
import { action } from '../gate/action';
import { id } from '../gate/fields';
import * as server from './server';

export const openRetest = action('openRetest', 'work', z.tuple([id]), (who, functionId) =>
  server.openRetest(functionId, who),
);
