import { emptyDrawing, layChains } from '@/core/draw/layChain';
import { nodeStill } from './nodeStill';

describe('where one stood in a drawing', () => {
  it('is kept as long as that node is there', () => {
    const { circuit, at } = layChains(emptyDrawing('c'), 'battery 12, fuse 10, coil Y1 7.4, ground');
    expect(nodeStill(circuit, at)).toBe(at);
    const end = circuit.parts.find(({ ref }) => ref === 'Y1')!.nodes as Record<string, string>;
    expect(nodeStill(circuit, end['1']!)).toBe(end['1']);
    const without = { ...circuit, parts: circuit.parts.filter(({ kind }) => kind !== 'coil') };
    expect(nodeStill({ ...without, parts: without.parts.slice(0, 1) }, end['1']!)).toBeNull();
    expect(nodeStill(circuit, null)).toBeNull();
  });
});
