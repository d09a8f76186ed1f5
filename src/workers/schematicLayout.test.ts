import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { emptyDrawing, layChains } from '@/core/draw/layChain';
import { CircuitModel } from '@/core/circuit/model';
import { parseCircuit } from '@/core/circuit/parse';
import type { Circuit } from '@/core/circuit/schema';
import type { PlacedBlock } from '@/core/schematic/schematic';
import { schematicGraph } from '@/core/schematic/schematicGraph';
import { strikes } from '@/core/schematic/strikes';
import { TEMPLATES } from '@/core/templates/templates';
import { layoutHere } from './layoutHere';

const draw = (circuit: Circuit) => layoutHere(schematicGraph(new CircuitModel(circuit)));
const demo = readdirSync('demo/circuits').map(
  (file) => [file, parseCircuit(JSON.parse(readFileSync(join('demo/circuits', file), 'utf8')))] as const,
);
/** One long run over a loom of plugs: too long for one row. */
const longRun = layChains(
  emptyDrawing('Long'),
  `battery 24, fuse 10, key switch, ${Array.from({ length: 18 }, (_one, k) => `wire, plug X${k + 1}`).join(', ')}, coil 24, wire, ground`,
).circuit;
const all = [
  ['a long run', longRun] as const,
  ...TEMPLATES.map(({ id, build }) => [id, build()] as const),
  ...demo,
];

const overlap = (a: PlacedBlock, b: PlacedBlock) =>
  a.x < b.x + b.width && b.x < a.x + a.width && a.y < b.y + b.height && b.y < a.y + a.height;

describe('schematics', () => {
  it.each(all)(
    '%s: nothing overlaps, no wire strikes a part or its words, everything is on the sheet',
    async (_id, circuit) => {
      const schematic = await draw(circuit);
      const { blocks, wires, width, height } = schematic;
      blocks.forEach((block, at) => {
        for (const other of blocks.slice(at + 1))
          expect([block.id, other.id, overlap(block, other)]).toEqual([block.id, other.id, false]);
        expect(
          block.x >= 0 && block.y >= 0 && block.x + block.width <= width && block.y + block.height <= height,
        ).toBe(true);
      });
      expect(strikes(schematic)).toEqual([]);
      for (const { points } of wires) {
        expect(points.length).toBeGreaterThan(1);
        points.slice(1).forEach((to, at) => {
          const from = points[at]!;
          expect(Math.abs(from.x - to.x) < 0.01 || Math.abs(from.y - to.y) < 0.01).toBe(true);
        });
      }
    },
  );

  it.each(all)('%s: every part is drawn, and every end of it is wired or grounded', async (_id, circuit) => {
    const { blocks, wires } = await draw(circuit);
    const drawn = new Set(blocks.flatMap(({ parts }) => parts));
    expect(drawn.size).toBe(circuit.parts.length);
    const ends = new Set(wires.flatMap(({ from, to }) => [from, to]));
    for (const { ports, shape } of blocks) {
      if (shape === 'earth') continue;
      for (const { id, side } of ports) {
        // A junction may be left on one side; a grounded battery draws its own earth.
        if (shape !== 'junction' && side !== 'south') expect([id, ends.has(id)]).toEqual([id, true]);
      }
    }
  });

  it('draws a plug as one body over all its pins', async () => {
    const { blocks } = await draw(
      parseCircuit(JSON.parse(readFileSync('demo/circuits/groomer-blade-tilt.circuit.json', 'utf8'))),
    );
    const plugs = blocks.filter(({ shape }) => shape === 'plug');
    expect(plugs.map(({ title, parts }) => [title, parts.length])).toEqual(
      expect.arrayContaining([
        ['X31', 2],
        ['X7', 2],
      ]),
    );
  });

  it('folds a long run into rows', async () => {
    const { width, height } = await draw(longRun);
    expect(width / height).toBeLessThan(4.5);
  });

  it('stays as it was when one part is added: what stood above another still does', async () => {
    const before = layChains(
      emptyDrawing('Many'),
      [1, 2, 3, 4, 5]
        .map(
          (n) =>
            `${n === 1 ? 'battery 24, fuse F1 20, wire W1' : 'after W1'}, lever=p${n} switch, wire, plug X${n}, coil 24, plug X${n}, wire, ground`,
        )
        .join('; '),
    );
    const after = layChains(before, 'after W1, lever=p6 switch, lamp 12, ground');
    const [one, other] = [await draw(before.circuit), await draw(after.circuit)];
    const place = new Map(other.blocks.map((block) => [block.id, block]));
    let turned = 0;
    let pairs = 0;
    one.blocks.forEach((a, at) => {
      for (const b of one.blocks.slice(at + 1)) {
        const [a2, b2] = [place.get(a.id), place.get(b.id)];
        if (!a2 || !b2 || a.shape === 'earth' || b.shape === 'earth' || Math.abs(a.x - b.x) > 1) continue;
        pairs++;
        if (a.y < b.y !== a2.y < b2.y) turned++;
      }
    });
    expect(pairs).toBeGreaterThan(20);
    // The order in which parts were drawn rules; where a crossing forces its hand a pair may change over.
    expect(turned / pairs).toBeLessThan(0.05);
  });
});
