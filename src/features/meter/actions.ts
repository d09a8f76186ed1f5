'use server';

import { z } from 'zod';
import { action } from '../gate/action';
import * as server from './server';

/** What a page may ask of the shop's meter. */

export const turnMeter = action('turnMeter', z.tuple([server.turnSchema]), server.turnMeter);
