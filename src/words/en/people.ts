import type { Deed, Licence, Role } from '@/core/people/roles';
import { MAY, ROLES } from '@/core/people/roles';
import type { TrailEvent } from '@/core/people/trail';

export const ROLE_WORDS: Readonly<Record<Role, string>> = {
  reader: 'reader',
  learner: 'learner',
  technician: 'technician',
  lead: 'lead',
};

/** What each role is for, under its name. */
export const ROLE_MEANS: Readonly<Record<Role, string>> = {
  reader: 'looks at everything, writes nothing',
  learner: 'works in jobs; make safe and decisions want a second pair of eyes',
  technician: 'works, draws circuits, keeps the stock',
  lead: 'settles what the site allows, and who works here',
};

export const LICENCE_WORDS: Readonly<Record<Licence, string>> = {
  refrigerant: 'refrigerant',
  lineVolts: 'line voltage',
};

/** What somebody is, in a line. */
export function personWords(role: Role, licences: readonly Licence[]): string {
  const held = licences.map((one) => LICENCE_WORDS[one]);
  return held.length === 0 ? ROLE_WORDS[role] : `${ROLE_WORDS[role]}, licensed for ${held.join(' and ')}`;
}

const DEED_WORDS: Readonly<Record<Deed, string>> = {
  own: 'changes their own account',
  look: 'looks at this',
  work: 'writes into a job',
  draw: 'draws circuits and enters machines',
  stock: 'keeps the stock',
  plan: 'says who does what today',
  carryOut: 'carries a machine’s record out',
  carryOutShed: 'carries the whole shed out',
  settle: 'settles what the site allows',
  people: 'changes who works here',
  trail: 'reads the trail',
};

const PLURAL: Readonly<Record<Role, string>> = {
  reader: 'A reader',
  learner: 'A learner',
  technician: 'A technician',
  lead: 'A lead',
};

/** Why a role may not, and who may. */
export function mayNotWords(role: Role, deed: Deed): string {
  const who = ROLES.filter((one) => MAY[deed].includes(one)).map((one) => `a ${ROLE_WORDS[one]}`);
  return `${PLURAL[role]} does not do this: ${who.join(' or ')} ${DEED_WORDS[deed]}.`;
}

/** The same to whom it was done. */
export function toldWords(what: TrailEvent): string {
  return what === 'secretReset' ? 'gave you a new first word' : TRAIL_WORDS[what];
}

export const TRAIL_WORDS: Readonly<Record<TrailEvent, string>> = {
  signedIn: 'signed in',
  signedOut: 'signed out',
  wrongTry: 'wrong PIN or password',
  lockedOut: 'too many wrong tries, shut for a while',
  accountMade: 'made an account',
  accountChanged: 'changed an account',
  accountClosed: 'closed an account',
  secretChanged: 'changed their own PIN or password',
  secretReset: 'gave somebody a new first word',
  codeSet: 'set up a code beside the password',
  codeOff: 'took the code beside the password off',
  deviceNamed: 'named a device',
  witnessed: 'stood by as second person',
  lockTakenOff: 'took somebody else’s lock off',
  settled: 'settled what the site allows',
  carriedOut: 'carried a record out',
  broughtIn: 'brought a record in',
  feedKeyMade: 'made a calendar key',
  mayNot: 'tried what their role may not',
};
