'use server';

import { z } from 'zod';
import { action } from '../gate/action';
import { text } from '../gate/fields';
import { accountChangeSchema, codeSchema, deviceName, newAccountSchema, ownSecretSchema } from './schema';
import * as server from './server';

/** What a page may ask about people. */

const name = text(60).min(1);

export const changeOwn = action('changeOwn', 'own', z.tuple([ownSecretSchema]), (who, asked) =>
  server.changeOwn(who, asked),
);
export const setUpCode = action('setUpCode', 'own', z.tuple([z.string().max(200)]), (who, password) =>
  server.setUpCode(who, password),
);
export const turnCodeOn = action('turnCodeOn', 'own', z.tuple([codeSchema]), (who, code) =>
  server.turnCodeOn(who, code),
);
export const takeCodeOff = action(
  'takeCodeOff',
  'own',
  z.tuple([z.strictObject({ password: z.string().max(200), code: codeSchema })]),
  (who, asked) => server.takeCodeOff(who, asked),
);
export const callDevice = action('callDevice', 'own', z.tuple([deviceName]), server.callDevice);
export const forgetDevice = action('forgetDevice', 'own', z.tuple([]), server.forgetDevice);
export const newFeedKey = action('newFeedKey', 'own', z.tuple([]), (who) => server.newFeedKey(who));
export const makeAccount = action('makeAccount', 'people', z.tuple([newAccountSchema]), (who, fresh) =>
  server.makeAccount(who, fresh),
);
export const changePerson = action(
  'changePerson',
  'people',
  z.tuple([name, accountChangeSchema]),
  (who, person, change) => server.changePerson(who, person, change),
);
export const giveNewWord = action('giveNewWord', 'people', z.tuple([name]), (who, person) =>
  server.giveNewWord(who, person),
);
