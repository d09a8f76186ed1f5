import { emptyDrawing, layChains, type Drawing } from '@/core/draw/layChain';
import { MOST_STEPS, move, nodeStill, startHistory, type History, type Move } from './history';

const named = (name: string): Drawing => emptyDrawing(name);
const play = (moves: readonly Move[]): History => moves.reduce(move, startHistory(named('begin')));
const now = ({ steps, at }: History) => steps[at]!.circuit.name;
const put = (name: string): Move => ({ is: 'put', drawing: named(name) });

describe('steps of a drawing', () => {
  it('go back and forth, and stop at either end', () => {
    const two = [put('one'), put('two')];
    expect(now(play(two))).toBe('two');
    expect(now(play([...two, { is: 'undo' }]))).toBe('one');
    expect(now(play([...two, { is: 'undo' }, { is: 'redo' }]))).toBe('two');
    expect(now(play([...two, ...Array<Move>(5).fill({ is: 'undo' })]))).toBe('begin');
    expect(now(play([...two, { is: 'redo' }]))).toBe('two');
  });

  it('forget what was taken back once something else is drawn', () => {
    const other = play([put('one'), { is: 'undo' }, put('other')]);
    expect(other.steps.map(({ circuit }) => circuit.name)).toEqual(['begin', 'other']);
    expect(now(move(other, { is: 'redo' }))).toBe('other');
  });

  it('are kept up to a number, the oldest going first', () => {
    const many = play(Array.from({ length: MOST_STEPS + 5 }, (_one, k) => put(String(k))));
    expect(many.steps).toHaveLength(MOST_STEPS);
    expect(now(many)).toBe(String(MOST_STEPS + 4));
    const back = Array.from({ length: MOST_STEPS }).reduce<History>((at) => move(at, { is: 'undo' }), many);
    expect(now(back)).toBe('5');
  });

  it('begin anew from another drawing', () => {
    const anew = play([put('one'), { is: 'start', drawing: named('library') }]);
    expect(anew).toEqual(startHistory(named('library')));
  });

  it('stay where one stood as long as that node is there', () => {
    const { circuit, at } = layChains(named('c'), 'battery 12, fuse 10, coil Y1 7.4, ground');
    expect(nodeStill(circuit, at)).toBe(at);
    const end = circuit.parts.find(({ ref }) => ref === 'Y1')!.nodes as Record<string, string>;
    expect(nodeStill(circuit, end['1']!)).toBe(end['1']);
    const without = { ...circuit, parts: circuit.parts.filter(({ kind }) => kind !== 'coil') };
    expect(nodeStill({ ...without, parts: without.parts.slice(0, 1) }, end['1']!)).toBeNull();
    expect(nodeStill(circuit, null)).toBeNull();
  });
});
