import { awayOr, DatabaseAway, DatabaseSilent, setbackOf } from './databaseAway';

const error = (facts: object, message = 'x') => Object.assign(new Error(message), facts);

describe('what a failure of the database leaves open', () => {
  it.each([
    [
      'a deadlock, here or found by the cluster at the commit',
      error({ code: 'ER_LOCK_DEADLOCK', errno: 1213 }),
      'conflict',
      false,
    ],
    ['a node outside its cluster', error({ code: 'ER_UNKNOWN_COM_ERROR', errno: 1047 }), 'notReady', true],
    [
      'a connection that was closed before',
      error({ fatal: true }, "Can't add new command when connection is in closed state"),
      'notReady',
      true,
    ],
    ['connections of a server that went', error({}, 'Pool is closed.'), 'notReady', true],
    ['a connection that broke', error({ code: 'PROTOCOL_CONNECTION_LOST', fatal: true }), 'lost', true],
    ['one that broke without a name', error({ fatal: true }, 'Packets out of order'), 'lost', true],
    ['one that was ended from the other side', error({ errno: 1927 }), 'lost', true],
    ['a statement that took too long', error({ errno: 1969 }), null, true],
    ['nobody there', error({ code: 'ECONNREFUSED', fatal: true }), 'lost', true],
    ['a wrong password', error({ code: 'ER_ACCESS_DENIED_ERROR', fatal: true }), null, true],
    ['a statement that is wrong', error({ code: 'ER_PARSE_ERROR', errno: 1064 }), null, false],
    ['the same again', error({ code: 'ER_DUP_ENTRY', errno: 1062 }), null, false],
  ])('%s', (_what, given, setback, away) => {
    expect(setbackOf(given)).toBe(setback);
    const meant = awayOr(given);
    expect(meant instanceof DatabaseAway).toBe(away);
    // Told once more, it means the same.
    expect(setbackOf(meant)).toBe(setback);
    expect(awayOr(meant)).toBe(meant);
  });

  it('silence is none of them', () => {
    expect(setbackOf(new DatabaseSilent('a statement: nothing for 2.3 s'))).toBe('silent');
  });
});
