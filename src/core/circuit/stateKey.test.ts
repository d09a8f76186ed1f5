import { stateKey } from './stateKey';

describe('the key of a combination of device states', () => {
  it('is another one for every other combination, a valve’s opening of many steps among them', () => {
    const seen = new Map<string, string>();
    for (let one = 0; one <= 40; one++)
      for (let two = 0; two <= 40; two++)
        for (const three of [0, 1, 2]) {
          const state = [one, two, three];
          const key = stateKey(Uint8Array.from(state));
          expect(seen.get(key)).toBeUndefined();
          seen.set(key, state.join());
        }
    expect(seen.size).toBe(41 * 41 * 3);
  });

  it('is the same for the same one, of an odd number too', () => {
    expect(stateKey(Uint8Array.of(0, 3, 40))).toBe(stateKey(Uint8Array.of(0, 3, 40)));
    expect(stateKey(new Uint8Array(0))).toBe('');
    expect(stateKey(Uint8Array.of(0))).not.toBe('');
  });
});
