import fc from 'fast-check';
import { packRuns, unpackRuns } from './jobDigest';

const run = fc.record({
  state: fc.constantFrom('spared' as const, 'held' as const, 'bad' as const, 'doubt' as const),
  turns: fc.integer({ min: 0, max: 20 }),
  asked: fc.boolean(),
  fall: fc.boolean(),
});

describe('a path in letters', () => {
  it('comes back as it was', () => {
    fc.assert(
      fc.property(fc.array(run, { maxLength: 60 }), (runs) =>
        expect(unpackRuns(packRuns(runs))).toEqual(runs),
      ),
    );
  });

  it('what is none is left out', () => {
    expect(unpackRuns('')).toEqual([]);
    expect(unpackRuns('d3 x9 s b2?!')).toEqual([
      { state: 'doubt', turns: 3, asked: false, fall: false },
      { state: 'bad', turns: 2, asked: true, fall: true },
    ]);
  });
});
