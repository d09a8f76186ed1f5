'use server';

import { z } from 'zod';
import { action } from '../gate/action';
import * as server from './newJob';
import { newJobSchema } from './newJobSchema';

/** What a page may ask the server to do; everything else of this feature stays on the server. */

export const openNewJob = action('openNewJob', 'work', z.tuple([newJobSchema]), server.openNewJob);
