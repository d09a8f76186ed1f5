import { drawMini } from './MiniPath';

const run = (turns: number, more: object = {}) => ({
  state: 'doubt' as const,
  turns,
  asked: false,
  fall: false,
  ...more,
});

describe('a path in small', () => {
  it('has a stroke for every turn, a dot for every point and one for the fall', () => {
    const { turns, dots, wires } = drawMini([
      run(3),
      run(0, { state: 'spared' }),
      run(5, { fall: true }),
      run(1, { asked: true }),
    ]);
    expect(turns.match(/M/g)).toHaveLength(9);
    expect(Object.values(dots).join('').match(/M/g)).toHaveLength(5);
    expect([...wires.keys()]).toEqual(['doubt', 'spared']);
  });

  it('stays within its frame, however many parts there are', () => {
    const many = drawMini(Array.from({ length: 40 }, (_one, at) => run(at % 5, { fall: at === 20 })));
    const across = [...many.wires.values()]
      .join('')
      .match(/[MH](\d+(\.\d+)?)/g)!
      .map((one) => Number(one.slice(1)));
    expect(Math.max(...across)).toBeLessThanOrEqual(540);
    expect(many.end.y).toBe(46);
    // A row of a long list is small.
    expect(JSON.stringify([...many.wires, many.turns, many.dots]).length).toBeLessThan(8000);
  });
});
