import type { Licence, Role } from '../src/core/people/roles';

/** Who works in the demonstration shed: invented, by first name only. */
export const DEMO_PEOPLE: readonly { name: string; role: Role; licences: readonly Licence[] }[] = [
  { name: 'Henrike', role: 'lead', licences: ['refrigerant', 'lineVolts'] },
  { name: 'Tove', role: 'technician', licences: ['lineVolts'] },
  { name: 'Rasmus', role: 'technician', licences: [] },
  { name: 'Ilse', role: 'technician', licences: ['lineVolts'] },
  { name: 'Maike', role: 'technician', licences: ['refrigerant'] },
  { name: 'Jorin', role: 'learner', licences: [] },
  { name: 'Ansgar', role: 'reader', licences: [] },
];

/** For all of them, and said on the page where one signs in. */
export const DEMO_PIN = '3190';
