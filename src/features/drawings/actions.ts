'use server';

import { z } from 'zod';
import { sheetPin } from '@/core/library/names';
import { action } from '../gate/action';
import { hash, id, machineCode, text } from '../gate/fields';
import * as server from './server';

/** What a page may ask the server to do; everything else of this feature stays on the server. */

export const addSheet = action('addSheet', z.tuple([machineCode, text(500), hash]), server.addSheet);

export const dropSheet = action('dropSheet', z.tuple([machineCode, id]), server.dropSheet);

export const pinPart = action('pinPart', z.tuple([machineCode, id, sheetPin]), server.pinPart);

export const unpinPart = action('unpinPart', z.tuple([machineCode, id, text(60)]), server.unpinPart);

export const pinnedSheets = action('pinnedSheets', z.tuple([machineCode]), server.pinnedSheets);
