import type { Signing } from '../job/rules/signing';
import type { Person } from '../people/roles';

/** Somebody who works here; a technician with every licence where it is not said. */
export function somebody(name = 'Tove', more: Partial<Omit<Person, 'name'>> = {}): Person {
  return { name, role: 'technician', licences: ['refrigerant', 'lineVolts'], ...more };
}

/** An entry written by somebody, alone where nobody is named beside them. */
export function signedAs(by: Person = somebody(), more: Partial<Omit<Signing, 'by'>> = {}): Signing {
  return { by, witness: null, learnersSeen: true, ...more };
}
