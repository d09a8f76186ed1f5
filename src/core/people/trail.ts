/** What the trail keeps, beside the logs of jobs: each a thing that can give somebody rights, take them away, or carry data out. */
export const TRAIL_EVENTS = [
  'signedIn',
  'signedOut',
  'wrongTry',
  'lockedOut',
  'accountMade',
  'accountChanged',
  'accountClosed',
  'secretChanged',
  'secretReset',
  'codeSet',
  'codeOff',
  'deviceNamed',
  'witnessed',
  'lockTakenOff',
  'settled',
  'carriedOut',
  'broughtIn',
  'feedKeyMade',
  'mayNot',
] as const;
/** Of these somebody is told when they sign in the next time, whoever did it: it may have been somebody else. */
export const TOLD_OF: readonly TrailEvent[] = ['secretChanged', 'codeSet', 'codeOff', 'lockedOut'];
export type TrailEvent = (typeof TRAIL_EVENTS)[number];
