'use server';

import { z } from 'zod';
import { action } from '../gate/action';
import { id } from '../gate/fields';
import * as server from './server';

/** What a job's page may ask of earlier traces. */

export const soundTraces = action('soundTraces', z.tuple([id]), server.soundTraces);
