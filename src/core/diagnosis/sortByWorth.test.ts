import { areIdle, sortByWorth, type Worth } from './sortByWorth';

const test = (name: string, bits: number, more: Partial<Worth> = {}) => ({
  name,
  bits,
  score: bits / 3,
  proof: false,
  risky: false,
  ...more,
});
const order = (tests: ReturnType<typeof test>[]) => {
  sortByWorth(tests);
  return tests.map(({ name }) => name);
};

describe('the order of tests', () => {
  it('what may take a fuse stands behind all that tells anything, however much it tells', () => {
    expect(order([test('fuse', 0.9, { risky: true }), test('volts', 0.06), test('ohms', 0.4)])).toEqual([
      'ohms',
      'volts',
      'fuse',
    ]);
  });

  it('but before what tells next to nothing, a proof excepted', () => {
    const idle = test('idle', 0.01, { score: 2 });
    const proof = test('proof', 0.01, { proof: true });
    expect(order([idle, test('fuse', 0.3, { risky: true }), proof])).toEqual(['proof', 'fuse', 'idle']);
  });

  it('where no test is worth a fuse, one that may take it stands last', () => {
    const risky = test('fuse', 0.04, { risky: true, score: 9 });
    expect(order([risky, test('idle', 0.01), test('less', 0.004)])).toEqual(['idle', 'less', 'fuse']);
  });

  it('nobody is sent for what tells next to nothing, a proof excepted', () => {
    expect(areIdle([test('less', 0.04), test('fuse', 0.01, { risky: true })])).toBe(true);
    expect(areIdle([test('less', 0.04), test('more', 0.06)])).toBe(false);
    expect(areIdle([test('proof', 0.001, { proof: true })])).toBe(false);
    expect(areIdle([])).toBe(true);
  });
});
