import { pointMarks } from './pointMarks';
import type { PlacedWire } from './schematic';

let count = 0;
const wire = (node: number, ...corners: [number, number][]): PlacedWire => ({
  id: `w${count++}`,
  node,
  from: 'a',
  to: 'b',
  fluid: false,
  points: corners.map(([x, y]) => ({ x, y })),
});

describe('the mark of a node', () => {
  it('stands in the middle of its longest level stretch', () => {
    const wires = [wire(1, [0, 10], [40, 10], [40, 80], [240, 80])];
    expect(pointMarks(wires, new Map([[1, 7]]))).toEqual([{ node: 1, number: 7, text: '', x: 140, y: 80 }]);
  });

  it('moves along where another wire crosses there', () => {
    const wires = [wire(1, [0, 50], [200, 50]), wire(2, [100, 0], [100, 100])];
    const [mark] = pointMarks(wires, new Map([[1, 1]]));
    expect(mark!.x).toBe(70);
    // A wire of the same node is no crossing.
    const own = [wire(1, [0, 50], [200, 50]), wire(1, [100, 0], [100, 100])];
    expect(pointMarks(own, new Map([[1, 1]]))[0]!.x).toBe(100);
  });

  it('is left off where there is nothing to say, and kept where only a value is', () => {
    const wires = [wire(1, [0, 50], [200, 50]), wire(2, [0, 150], [200, 150])];
    expect(pointMarks(wires)).toEqual([]);
    expect(pointMarks(wires, new Map(), new Map([[2, '12.6 V']]))).toEqual([
      { node: 2, number: null, text: '12.6 V', x: 100, y: 150 },
    ]);
  });

  it('needs a stretch it fits on', () => {
    expect(pointMarks([wire(1, [0, 50], [20, 50], [20, 300])], new Map([[1, 1]]))).toEqual([]);
  });

  it('stays on its wire when every place is crossed', () => {
    const crossing = [20, 40, 60, 80, 100, 120, 140, 160, 180].map((x, at) =>
      wire(10 + at, [x, 0], [x, 100]),
    );
    const [mark] = pointMarks([wire(1, [0, 50], [200, 50]), ...crossing], new Map([[1, 1]]));
    expect([mark!.x, mark!.y]).toEqual([100, 50]);
  });
});
