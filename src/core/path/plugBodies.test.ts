import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { CircuitModel } from '../circuit/model';
import { parseCircuit } from '../circuit/parse';
import { TEMPLATES } from '../templates/templates';
import { findLanes } from './lanes';
import { layoutPath, POINT_RADIUS, type PathLayout } from './layoutPath';
import { plugBodies, type PlugBody } from './plugBodies';
import { runSlots } from './runSlots';
import type { Standing } from './standing';

const folder = join('demo', 'circuits');
const load = (file: string) =>
  new CircuitModel(parseCircuit(JSON.parse(readFileSync(join(folder, file), 'utf8'))));
const CIRCUITS: [string, () => CircuitModel][] = [
  ...readdirSync(folder).map((file): [string, () => CircuitModel] => [file, () => load(file)]),
  ...TEMPLATES.map(({ id, build }): [string, () => CircuitModel] => [id, () => new CircuitModel(build())]),
];

function drawn(model: CircuitModel, lane: string, turns = 1): { layout: PathLayout; bodies: PlugBody[] } {
  const lanes = findLanes(model);
  const standings = model.compiled.parts.map((): Standing => ({ state: 'doubt', share: 0.05, turns }));
  const found = lanes.lanes.find(({ id }) => id === lane)!;
  const layout = layoutPath(model, lanes, found, { width: 1280, standings, asked: [] });
  return { layout, bodies: plugBodies(model.compiled.parts, layout, standings) };
}

describe('the bodies of plugs', () => {
  const model = load('groomer-blade-tilt.circuit.json');
  const at = (ref: string) => model.compiled.partIndex.get(ref)!;

  it('stand around a coil and its two pins, following the fall', () => {
    const { layout, bodies } = drawn(model, 'Y8');
    const plug = bodies.find(({ connector }) => connector === 'X8')!;
    expect(plug.pins).toEqual([at('X8.1'), at('X8.2')]);
    expect(plug.open).toBe(false);
    const [before, after] = ['X8.1', 'X8.2'].map((ref) =>
      layout.runs.find(({ parts }) => parts.includes(at(ref))),
    );
    const xs = plug.outline.map(({ x }) => x);
    const ys = plug.outline.map(({ y }) => y);
    // Its walls go through both pins' symbols, its floor and roof stand off the two lines.
    expect(Math.min(...xs)).toBeGreaterThan(before!.x1 + POINT_RADIUS);
    expect(Math.min(...xs)).toBeLessThan(before!.x2 - POINT_RADIUS);
    expect(Math.max(...xs)).toBeGreaterThan(after!.x1 + POINT_RADIUS);
    expect(Math.max(...xs)).toBeLessThan(after!.x2 - POINT_RADIUS);
    expect(Math.min(...ys)).toBeLessThan(layout.fall.y1 - POINT_RADIUS);
    expect(Math.max(...ys)).toBeGreaterThan(layout.fall.y2 + POINT_RADIUS);
  });

  it('stand across the lanes whose pins they hold too', () => {
    const { layout, bodies } = drawn(model, 'Y8');
    const plug = bodies.find(({ connector }) => connector === 'X31')!;
    expect(plug.pins).toEqual([at('X31.2')]);
    const [left] = layout.branches;
    expect(plug.above).toEqual([{ part: at('X31.1'), lane: 'Y7', x: expect.any(Number), y: left!.y }]);
    expect(Math.min(...plug.outline.map(({ y }) => y))).toBeLessThan(left!.y);
  });

  it('are halves where the other pins are far off, and none for a pin of its own', () => {
    // Twelve outputs in one plug: only two other lanes are drawn, and far from each other there is no body between.
    for (const [, load] of CIRCUITS) {
      const own = load();
      const single = new Map<string, number>();
      for (const { part } of own.compiled.parts)
        if (part.kind === 'pin') single.set(part.connector, (single.get(part.connector) ?? 0) + 1);
      for (const { id } of findLanes(own).lanes)
        for (const { connector, open, above, pins } of drawn(own, id).bodies) {
          const marked = drawn(own, id).bodies.flatMap((body) => body.above.map(({ part }) => part));
          expect(new Set(marked).size).toBe(marked.length);
          expect(single.get(connector)).toBeGreaterThan(1);
          if (open) expect(above).toEqual([]);
          if (open) expect(pins).toHaveLength(1);
        }
    }
  });

  it.each(CIRCUITS)('of %s cut through no point and end inside the figure', (_name, load) => {
    const own = load();
    for (const { id } of findLanes(own).lanes) {
      for (const turns of [0, 1]) {
        const { layout, bodies } = drawn(own, id, turns);
        for (const { outline, open } of bodies) {
          const ends = open
            ? outline.slice(1)
            : outline.map((_one, at) => outline[(at + 1) % outline.length]!);
          ends.forEach((to, at) => {
            const from = outline[at]!;
            expect(to.x).toBeGreaterThan(0);
            expect(to.x).toBeLessThan(layout.width);
            expect(to.y).toBeGreaterThan(0);
            expect(to.y).toBeLessThan(layout.height - 10);
            // A wall, and the circles on its height.
            if (from.x !== to.x) return;
            for (const { x, y } of layout.points) {
              if (y < Math.min(from.y, to.y) || y > Math.max(from.y, to.y)) continue;
              expect(Math.abs(x - from.x)).toBeGreaterThan(POINT_RADIUS);
            }
          });
        }
      }
    }
  });
});

describe('the slots of a run', () => {
  const run = { parts: [0], steps: [], again: false, x1: 100, x2: 218, y1: 0, y2: 0, folded: false };
  const doubt: Standing = { state: 'doubt', share: 0.4, turns: 8 };

  it('stand side by side, the winding never over the symbol', () => {
    const { symbolX, windX, windRoom, wound } = runSlots(run, 'switch', doubt);
    expect(wound).toBe(true);
    expect(windX - windRoom / 2).toBeGreaterThanOrEqual(symbolX + 23 - 4);
    expect(windX + windRoom / 2).toBeLessThanOrEqual(run.x2 - POINT_RADIUS + 4);
    expect(symbolX - 23).toBeGreaterThan(run.x1 + POINT_RADIUS);
  });

  it('leave the middle to the symbol where nothing is wound, and to the winding on a wire', () => {
    expect(runSlots(run, 'switch', { ...doubt, state: 'spared', turns: 0 }).symbolX).toBe(159);
    expect(runSlots(run, 'wire', doubt).windX).toBe(159);
    expect(runSlots({ ...run, again: true }, 'switch', doubt).wound).toBe(false);
  });
});
