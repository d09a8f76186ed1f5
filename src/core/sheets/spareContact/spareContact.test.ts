import { fill } from '../testing/fill';
import type { SpareContactAnswer } from './spareContact';

const contact = (needs: unknown, when: unknown, inServiceBefore: unknown) =>
  fill<SpareContactAnswer>('spareContact', { needs, when, inServiceBefore });

describe('the contact of a spare', () => {
  it('NO and NC name the free switch', () => {
    expect(contact('closed', 'pressed', 'pressed')).toMatchObject({ use: 'NO', nowReads: 'closed' });
    expect(contact('closed', 'free', 'pressed')).toMatchObject({ use: 'NC', nowReads: 'open' });
    expect(contact('open', 'pressed', 'free')).toMatchObject({ use: 'NC', nowReads: 'closed' });
    expect(contact('open', 'free', 'free')).toMatchObject({ use: 'NO', nowReads: 'open' });
  });
  it('what is not known is asked for', () => {
    expect(contact('closed', null, 'free')).toMatchObject({
      use: null,
      nowReads: null,
      next: { ask: 'when' },
    });
    expect(contact('closed', 'free', null)).toMatchObject({
      use: 'NC',
      nowReads: null,
      next: { ask: 'inServiceBefore' },
    });
  });
});
