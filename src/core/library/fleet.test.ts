import { readFleet } from './fleet';

const row = (line: number, cells: Record<string, string>) => ({ line, cells });

describe('a fleet table', () => {
  it('is machines with what is said of them, and whose functions they get', () => {
    expect(
      readFleet([
        row(2, {
          code: 'G-20',
          name: 'Groomer OR-220',
          equipment: 'Groomer',
          hours: '4120',
          place: 'Bay 3',
          like: 'G-2',
        }),
        row(3, { code: 'V-1', name: 'Van' }),
      ]),
    ).toEqual([
      {
        facts: {
          code: 'G-20',
          name: 'Groomer OR-220',
          equipment: 'Groomer',
          serial: '',
          place: 'Bay 3',
          hours: 4120,
        },
        like: 'G-2',
      },
      { facts: { code: 'V-1', name: 'Van', equipment: '', serial: '', place: '', hours: null }, like: null },
    ]);
  });
  it.each([
    [{ code: '', name: 'Van' }, /line 2.*code: Give the machine a short code/],
    [{ code: 'V-1', name: 'Van', hours: 'many' }, /line 2.*hours: "many" is no figure/],
    [{ code: 'V-1', name: 'Van', hours: '-4' }, /line 2.*hours: Hours are not below 0/],
    [{ code: 'V-1', name: 'V' }, /line 2.*name: Say what the machine is/],
    [{ code: '..', name: 'Van' }, /line 2.*code: A code is letters/],
  ])('%j is refused with its line', (cells, words) => {
    expect(() => readFleet([row(2, cells)])).toThrow(words);
  });
  it('a code that stands twice is refused, and a table that is no fleet', () => {
    const van = { code: 'V-1', name: 'Van' };
    expect(() => readFleet([row(2, van), row(7, van)])).toThrow(/line 7.*stands on line 2 already/);
    expect(() =>
      readFleet(Array.from({ length: 5001 }, (_, k) => row(k + 2, { ...van, code: `V-${k}` }))),
    ).toThrow(/5001 machines/);
  });
});
