import { isGuessable } from './guessable';

const guessable = (word: string) => isGuessable(word, ['Henrike', 'Ostrel Ridge']);

describe('a password that anybody would try', () => {
  it.each([
    'Password1234',
    'P@ssw0rd1234',
    'letmeinletmein',
    'qwertyuiop12',
    'iloveyou1234',
    '1qaz2wsx3edc',
    'aaaaaaaaaaaaa',
    'Spiraxis2026',
    'henrikehenrike1',
  ])('%s is one', (word) => expect(guessable(word)).toBe(true));

  it.each(['the winch pulled in at noon', 'x7kq-m2vd-h9tp-wz3c', 'vier rote Kabel am Teich'])(
    '%s is none',
    (word) => expect(guessable(word)).toBe(false),
  );
});
