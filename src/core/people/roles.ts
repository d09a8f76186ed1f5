/** What somebody is in a shed. */
export const ROLES = ['reader', 'learner', 'technician', 'lead'] as const;
export type Role = (typeof ROLES)[number];

/** What somebody may hold beside a role: work that only they do, and write down. */
export const LICENCES = ['refrigerant', 'lineVolts'] as const;
export type Licence = (typeof LICENCES)[number];

/** Somebody as the server knows them while they are signed in. */
export interface Person {
  name: string;
  role: Role;
  licences: readonly Licence[];
}

/** Every kind of thing that can be asked of the server. Each page, route and action names one. */
export const DEEDS = [
  /** Changes one's own PIN, password and calendar key, calls the device by a name, signs out. */
  'own',
  /** Looks at what the shed knows. */
  'look',
  /** Opens a job, writes into its log, keeps a picture. */
  'work',
  /** Draws circuits, enters machines and code tables. */
  'draw',
  /** Counts spares, asks for them, takes an order on. */
  'stock',
  /** Says who does which job of the day. */
  'plan',
  /** Carries a machine's whole record out of the shed. */
  'carryOut',
  /** Carries the whole shed out of it: everybody's work, and the trail. */
  'carryOutShed',
  /** Settles what the site allows, its rules and its odds. */
  'settle',
  /** Makes and closes accounts; takes back what somebody else was given. */
  'people',
  /** Reads who did what, from where. */
  'trail',
] as const;
export type Deed = (typeof DEEDS)[number];

/** The one table of who may do what. What a licence is needed for is judged with the entry it is about. */
export const MAY: Readonly<Record<Deed, readonly Role[]>> = {
  own: ['reader', 'learner', 'technician', 'lead'],
  look: ['reader', 'learner', 'technician', 'lead'],
  work: ['learner', 'technician', 'lead'],
  draw: ['technician', 'lead'],
  stock: ['technician', 'lead'],
  plan: ['technician', 'lead'],
  carryOut: ['technician', 'lead'],
  carryOutShed: ['lead'],
  settle: ['lead'],
  people: ['lead'],
  trail: ['lead'],
};

/** What rules over others' rights, or over the whole shed: a session that was begun with a password and a code does it, no other. */
export const PROVED_TWICE: readonly Deed[] = ['carryOutShed', 'settle', 'people', 'trail'];

/** Whether somebody of a role may do something. */
export function may(role: Role, deed: Deed): boolean {
  return MAY[deed].includes(role);
}

/** Whether somebody can stand in as the second pair of eyes: a learner and a reader cannot. */
export function isSecondEyes({ role }: Pick<Person, 'role'>): boolean {
  return role === 'technician' || role === 'lead';
}

/** Names of those among people who hold a licence. */
export function licensedNames(people: readonly Person[], licence: Licence): string[] {
  return people.filter(({ licences }) => licences.includes(licence)).map(({ name }) => name);
}

/** Whether two names mean the same person: capitals and spaces around a name do not tell people apart. */
export function samePerson(one: string, other: string): boolean {
  return one.trim().toLowerCase() === other.trim().toLowerCase();
}
