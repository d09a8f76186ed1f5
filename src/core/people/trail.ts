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
  'deviceNamed',
  'witnessed',
  'lockTakenOff',
  'settled',
  'carriedOut',
  'broughtIn',
  'feedKeyMade',
  'mayNot',
] as const;
export type TrailEvent = (typeof TRAIL_EVENTS)[number];
