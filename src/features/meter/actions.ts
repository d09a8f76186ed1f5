'use server';

import { z } from 'zod';
import { action, whoever } from '../gate/action';
import * as server from './server';

/** What a page may ask of the shop's meter. */

export const turnMeter = action('turnMeter', 'work', z.tuple([server.turnSchema]), whoever(server.turnMeter));
