'use server';

import { z } from 'zod';
import { action, whoever } from '../gate/action';
import { id } from '../gate/fields';
import * as server from './server';

/** What a job's page may ask of earlier traces. */

export const soundTraces = action('soundTraces', 'look', z.tuple([id]), whoever(server.soundTraces));
