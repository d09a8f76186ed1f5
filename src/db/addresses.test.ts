import { addressesOf } from './addresses';

describe('where a database answers', () => {
  it('is one address a server', () => {
    expect(addressesOf('mysql://me:pw@10.0.0.1:3306,10.0.0.2:3307/shed?ssl=true')).toEqual({
      servers: ['mysql://me:pw@10.0.0.1:3306/?ssl=true', 'mysql://me:pw@10.0.0.2:3307/?ssl=true'],
      schema: 'shed',
    });
    expect(addressesOf('mysql://127.0.0.1/shed')).toEqual({
      servers: ['mysql://127.0.0.1/'],
      schema: 'shed',
    });
  });

  it.each([
    undefined,
    '',
    'postgres://x/y',
    'mysql://me:secret@/shed',
    'mysql://me:secret@a:1',
    'mysql://me:secret@a:99999/shed',
  ])('%s is none, and no password is said', (text) => {
    expect(() => addressesOf(text)).toThrow(/SPIRAXIS_DATABASE_URL/);
    expect(() => addressesOf(text)).not.toThrow(/secret/);
  });
});
