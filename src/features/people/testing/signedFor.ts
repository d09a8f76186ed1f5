import { somebody } from '@/core/testing/signedAs';
import type { Person } from '@/core/people/roles';
import type { Signed } from '../session';

/** Somebody signed in on a tablet of the shed, for use cases that are called without a request. */
export function signedFor(name = 'Tove', more: Partial<Omit<Person, 'name'>> = {}): Signed {
  return {
    ...somebody(name, more),
    accountId: '01900000-0000-7000-8000-0000000000aa',
    device: { id: '01900000-0000-7000-8000-0000000000dd', name: 'tablet by the door', trusted: true },
    oneTime: false,
    hasPin: true,
    hasPassword: true,
    hasCode: false,
    twice: false,
    sessionHash: '0'.repeat(64),
  };
}
