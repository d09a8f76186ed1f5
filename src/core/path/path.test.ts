import { demoCircuit } from '../../testing/demoCircuits';
import fc from 'fast-check';
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { emptyDrawing, layChains } from '../draw/layChain';
import { CircuitModel } from '../circuit/model';
import { parseCircuit } from '../circuit/parse';
import type { Reading } from '../circuit/schema';
import { Diagnoser } from '../diagnosis/diagnose';
import { kindOf } from '../kinds/part';
import { TEMPLATES } from '../templates/templates';
import { findLanes } from './lanes';
import { chooseLane, complaintLane, drivenAs } from './chooseLane';
import { layoutPath } from './layoutPath';
import { partStandings } from './standing';
import { ALL_TURNS, shareTurns } from './turns';

const folder = join('demo', 'circuits');
const files = readdirSync(folder);
const load = (file: string) =>
  new CircuitModel(parseCircuit(JSON.parse(readFileSync(join(folder, file), 'utf8'))));
const even = (model: CircuitModel) =>
  model.compiled.parts.map(() => ({ state: 'doubt' as const, share: 0.05, turns: 1 }));

describe('shareTurns', () => {
  it('always winds twenty turns, none more than one off the exact share', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 0, max: 1, noNaN: true }), { minLength: 1, maxLength: 60 }),
        (shares) => {
          const total = shares.reduce((sum, share) => sum + share, 0);
          fc.pre(total > 1e-6);
          const turns = shareTurns(shares);
          expect(turns.reduce((sum, one) => sum + one, 0)).toBe(ALL_TURNS);
          turns.forEach((one, at) =>
            expect(Math.abs(one - (ALL_TURNS * shares[at]!) / total)).toBeLessThan(1),
          );
        },
      ),
    );
  });
});

describe('lanes', () => {
  it.each(TEMPLATES)('of $id: whatever works electrically has one, of every kind', ({ build }) => {
    const model = new CircuitModel(build());
    const ids = findLanes(model).lanes.map(({ id }) => id);
    for (const { part } of model.compiled.parts) {
      const { load, works } = kindOf(part).traits;
      if (load && works) expect(ids).toContain(part.ref);
    }
  });

  it('runs from supply to return through the tilt circuit, side by side', () => {
    const { compiled } = load('groomer-blade-tilt.circuit.json');
    const lanes = findLanes(load('groomer-blade-tilt.circuit.json'));
    const names = (parts: { part: number }[]) => parts.map(({ part }) => compiled.parts[part]!.part.ref);
    const [tiltLeft, tiltRight] = lanes.lanes;
    expect(names(tiltLeft!.feed)).toEqual(['F7', 'S1', 'W12', 'S3L', 'X31.1', 'W14', 'X7.1']);
    expect(names(tiltRight!.feed)).toEqual(['F7', 'S1', 'W12', 'S3R', 'X31.2', 'W15', 'X8.1']);
    expect(names(tiltRight!.back)).toEqual(['X8.2', 'W17', 'W18']);
    expect(tiltRight!.across.map((part) => compiled.parts[part]!.part.ref)).toEqual(['V8']);
    expect(lanes.loose).toEqual([]);
  });

  it.each(files)('numbers every electrical node of %s once', (file) => {
    const model = load(file);
    const { pointOf } = findLanes(model);
    const numbers = [...pointOf.values()].sort((a, b) => a - b);
    expect(numbers).toEqual(numbers.map((_one, at) => at + 1));
    const electrical = model.compiled.domains.filter((domain) => domain === 'electrical');
    expect(numbers).toHaveLength(electrical.length);
  });
});

describe('layoutPath', () => {
  it.each(files.flatMap((file) => [1280, 1024, 760].map((width) => [file, width] as const)))(
    'keeps points of %s apart and in order at %d px',
    (file, width) => {
      const model = load(file);
      const lanes = findLanes(model);
      for (const lane of lanes.lanes) {
        const layout = layoutPath(model, lanes, lane, { width, standings: even(model), asked: [] });
        layout.points.forEach((point, at) => {
          const next = layout.points[at + 1];
          if (next) expect(next.x - point.x).toBeGreaterThan(46);
          expect(point.y).toBeGreaterThan(60);
          expect(point.y).toBeLessThan(layout.height - 40);
        });
        expect(layout.points.at(-1)!.x).toBeLessThanOrEqual(layout.width - 60);
      }
    },
  );

  it('stands points at the height of their expected volts', () => {
    const model = load('groomer-blade-tilt.circuit.json');
    const lanes = findLanes(model);
    const layout = layoutPath(model, lanes, lanes.lanes[0]!, {
      width: 1280,
      standings: even(model),
      asked: [],
    });
    for (const { expectedVolts, y } of layout.points) {
      const share = (layout.floorY - y) / (layout.floorY - layout.supplyY);
      expect(share).toBeCloseTo(expectedVolts / layout.supplyVolts, 6);
    }
  });

  it('closes cleared stretches to one line when room is short, never one that is asked for', () => {
    const model = load('groomer-blade-tilt.circuit.json');
    const lanes = findLanes(model);
    const standings = even(model).map((one, at) =>
      at < 4 ? { ...one, state: 'spared' as const, share: 0, turns: 0 } : one,
    );
    const lane = lanes.lanes[1]!;
    const narrow = layoutPath(model, lanes, lane, { width: 900, standings, asked: [] });
    expect(narrow.runs.some(({ folded }) => folded)).toBe(true);
    const asked = [model.compiled.nodeIndex.get('F7:2')!];
    const kept = layoutPath(model, lanes, lane, { width: 900, standings, asked });
    expect(kept.points.map(({ node }) => node)).toContain(asked[0]);
  });

  it('shows the lane of the asked points', () => {
    const model = load('groomer-blade-tilt.circuit.json');
    const lanes = findLanes(model);
    const asked = [model.compiled.nodeIndex.get('Y8:1')!];
    expect(chooseLane(lanes, { asked, standings: even(model) })!.id).toBe('Y8');
  });
});

describe('partStandings', () => {
  const model = load('groomer-blade-tilt.circuit.json');
  const diagnoser = new Diagnoser(model.compiled.circuit);
  const standingOf = (readings: Reading[], ref: string) => {
    const diagnosis = diagnoser.diagnose(readings);
    const { parts } = partStandings(diagnoser.model, diagnoser.faults, diagnosis, readings);
    return parts[model.compiled.partIndex.get(ref)!]!;
  };
  const left: Reading = {
    kind: 'function',
    part: 'Y7',
    setup: { controls: { key: 'on', tilt: 'left' } },
    value: 'works',
  };
  const dead: Reading = {
    kind: 'function',
    part: 'Y8',
    setup: { controls: { key: 'on', tilt: 'right' } },
    value: 'dead',
  };

  it('spares what has carried current, holds what has only been measured dead', () => {
    expect(standingOf([left, dead], 'F7').state).toBe('spared');
    const ohms: Reading = { kind: 'ohms', from: 'X8:1', to: 'GND', setup: { pulled: ['F7'] }, value: 31.5 };
    expect(standingOf([left, dead, ohms], 'X8.2').state).toBe('held');
    // Good ohms say nothing of a plunger that is jammed.
    expect(standingOf([left, dead, ohms], 'Y8').state).toBe('doubt');
    expect(standingOf([left, dead], 'X8.1').state).toBe('doubt');
  });

  it('of sixty parts in one run none is held because there are many', () => {
    const plugs = Array.from({ length: 24 }, (_one, k) => `wire, plug X${k + 1}`).join(', ');
    const text = `battery 24, fuse 10, key switch, ${plugs}, coil Y1 24, wire, ground`;
    const { circuit } = layChains(emptyDrawing('Long'), text);
    const own = new Diagnoser(circuit);
    const readings: Reading[] = [
      { kind: 'function', part: 'Y1', setup: { controls: { key: 'on' } }, value: 'dead' },
    ];
    const { parts } = partStandings(own.model, own.faults, own.diagnose(readings), readings);
    const wires = circuit.parts.flatMap(({ kind }, at) => (kind === 'wire' ? [parts[at]!.state] : []));
    expect(new Set(wires)).toEqual(new Set(['doubt']));
  });
});

describe('the fluid side', () => {
  const model = load('compressor-gate.circuit.json');
  const lanes = findLanes(model);
  const { compiled } = model;
  const gate = lanes.lanes.find(({ medium }) => medium === 'fluid')!;
  const names = (steps: { part: number }[]) => steps.map(({ part }) => compiled.parts[part]!.part.ref);

  it('is a lane from its supply over the valve to the actuator, and home through the exhaust', () => {
    expect(gate.id).toBe('C1');
    expect(names(gate.feed)).toEqual(['Z1', 'Z2', 'H1', 'Q1', expect.stringMatching(/^H/)]);
    expect(names(gate.back).at(-1)).toBe('Q1');
    expect(gate.back.at(-1)!.to).toBe(compiled.atmosphere);
    // The coil that is fed in its position comes first.
    expect(gate.coils[0]).toMatch(/^Y1[24]$/);
    expect(gate.coils).toHaveLength(2);
  });

  it('gives its ports letters, and leaves the numbers to the electrical side', () => {
    const labels = gate.feed.map(({ from }) => lanes.labelOf.get(from));
    expect(labels).toEqual(['a', 'b', 'c', 'd', 'e']);
    expect(lanes.labelOf.get(compiled.atmosphere)).toBe('open');
    for (const { from } of gate.feed) expect(lanes.pointOf.has(from)).toBe(false);
  });

  it('stands at the height of its pressures, and falls through the cylinder', () => {
    const layout = layoutPath(model, lanes, gate, { width: 1280, standings: even(model), asked: [] });
    const heights = layout.points.map(({ y }) => y);
    expect(heights[0]).toBe(layout.supplyY);
    expect(heights.at(-1)).toBe(layout.floorY);
    expect(layout.fall.y2 - layout.fall.y1).toBeGreaterThan(60);
    // The regulator lets it down, the rest of the way in holds its pressure.
    expect(heights[2]! - heights[1]!).toBeGreaterThan(10);
    expect(Math.abs(heights[4]! - heights[2]!)).toBeLessThan(3);
    expect(layout.branches.every(({ lane }) => lane.medium === 'electrical')).toBe(true);
  });
});

describe('a cylinder that is driven both ways', () => {
  const model = load('press-clamp.circuit.json');
  const lanes = findLanes(model);
  const clamp = lanes.lanes.find(({ id }) => id === 'C1')!;
  const refs = (steps: { part: number }[]) => steps.map(({ part }) => model.compiled.parts[part]!.part.ref);
  const complaint = (position: string): Reading => ({
    kind: 'function',
    part: 'C1',
    value: 'weak',
    setup: { controls: { bit: position } },
  });

  it('is drawn the way its valve is fed for, and knows the other', () => {
    expect(clamp.setup.controls).toEqual({ bit: '1' });
    expect(refs(clamp.feed).slice(-2)).toEqual(['R4', 'H4']);
    expect(refs(clamp.back)).toEqual(['H2', 'R2', 'Q1', 'U3']);
    expect(refs(clamp.otherWay!.feed).slice(-2)).toEqual(['R2', 'H2']);
    expect(refs(clamp.otherWay!.back)).toEqual(['H4', 'R4', 'Q1', 'U5']);
    // Every port has its letter, both silencers stand on a lane.
    for (const { from, to } of [...clamp.otherWay!.feed, ...clamp.otherWay!.back])
      for (const node of [from, to]) expect(lanes.labelOf.has(node)).toBe(true);
    expect(lanes.loose.map((part) => model.compiled.parts[part]!.part.ref)).toEqual(['P0']);
  });

  it('is shown driven as the complaint or the test has it', () => {
    expect(complaintLane(lanes, [complaint('1')])).toBe(clamp);
    expect(complaintLane(lanes, [complaint('0')])).toBe(clamp.otherWay);
    const standings = even(model);
    const asked = [clamp.load.from];
    const shown = (position: string | null, ...readings: Reading[]) =>
      chooseLane(
        lanes,
        { asked, standings, ...(position === null ? {} : { setup: { controls: { bit: position } } }) },
        readings,
      );
    expect(shown('0', complaint('1'))).toBe(clamp.otherWay);
    expect(shown('1', complaint('0'))).toBe(clamp);
    expect(shown(null, complaint('0'))).toBe(clamp.otherWay);
    expect(shown(null)).toBe(clamp);
    // A control that is not said rests in its first position.
    expect(drivenAs(lanes, clamp, [{}])).toBe(clamp.otherWay);
  });
});

it('a vacuum is walked from its pump to what it pulls, and has no other way', () => {
  const model = load('heater-flap.circuit.json');
  const [flap, ...more] = findLanes(model).lanes.filter(({ medium }) => medium === 'fluid');
  expect(more).toEqual([]);
  const refs = (steps: { part: number }[]) => steps.map(({ part }) => model.compiled.parts[part]!.part.ref);
  expect(flap).toMatchObject({ id: 'U1', setup: { controls: { command: 'on' } } });
  expect(refs(flap!.feed)).toEqual(['H1', 'Q1', 'H2']);
  expect(flap!.otherWay).toBeUndefined();
  const layout = layoutPath(model, findLanes(model), flap!, {
    width: 1280,
    standings: even(model),
    asked: [],
  });
  expect(layout.points[0]!.expectedVolts).toBeLessThan(-50);
});

it('a valve that drives nothing has its line all the same: from where it is fed to where it lets it go', () => {
  const model = load('cellar-liquid-valve.circuit.json');
  const [line, ...more] = findLanes(model).lanes.filter(({ medium }) => medium === 'fluid');
  expect(more).toEqual([]);
  expect(line).toMatchObject({ id: 'Q1', coils: ['Y1'], setup: { controls: { call: 'on' } } });
  const refs = (steps: { part: number }[]) => steps.map(({ part }) => model.compiled.parts[part]!.part.ref);
  // What the pressure is lost over is the fall, and the line it ends in stands over the air around.
  expect([refs(line!.feed), refs([line!.load]), refs(line!.back)]).toEqual([['Q1', 'H1'], ['R1'], []]);
  const layout = layoutPath(model, findLanes(model), line!, {
    width: 1280,
    standings: even(model),
    asked: [],
  });
  expect(layout.points.at(-1)!.expectedVolts).toBeGreaterThan(200);
});

it('the line to a pressure switch is a lane of its own, down to the air around', () => {
  const model = load('dryer-air-switch.circuit.json');
  const lanes = findLanes(model);
  const [line, ...more] = lanes.lanes.filter(({ medium }) => medium === 'fluid');
  expect(more).toEqual([]);
  expect(line!.id).toBe('B1');
  expect(line!.feed.map(({ part }) => model.compiled.parts[part]!.part.ref)).toEqual(['H1']);
  expect(line!.load.to).toBe(model.compiled.atmosphere);
  expect(line!.feed.map(({ from }) => lanes.labelOf.get(from))).toEqual(['a']);
  // The first lane, and what it is numbered by, stays the electrical one.
  expect(lanes.lanes[0]!.id).toBe('Y1');
  const layout = layoutPath(model, lanes, line!, { width: 1280, standings: even(model), asked: [] });
  expect(layout.fall.y2 - layout.fall.y1).toBeGreaterThan(60);
});

it('of the oil side a relief valve and an accumulator hang on the point where they branch off', () => {
  const oil = new CircuitModel(demoCircuit('groomer-tiller-lift'));
  const drawn = findLanes(oil);
  const ram = drawn.lanes.find(({ id }) => id === 'C1')!;
  const { compiled } = oil;
  expect(
    ram.hangs.map(({ part, node }) => [compiled.parts[part]!.part.ref, drawn.labelOf.get(node)]),
  ).toEqual([
    ['RV1', 'a'],
    ['AC1', 'a'],
  ]);
  expect(drawn.labelOf.get(compiled.atmosphere)).toBe('tank');
  const { points } = layoutPath(oil, drawn, ram, { width: 1280, standings: even(oil), asked: [] });
  expect(points.map(({ hangs }) => hangs.length)).toEqual([2, 0, 0, 0, 0, 0, 0]);
});

it('draws two lanes of many beside the run, those with most doubt, and names the others', () => {
  const circuit = TEMPLATES.find(({ id }) => id === 'multi-output')!.build({ outputs: 6 });
  const model = new CircuitModel(circuit);
  const lanes = findLanes(model);
  const standings = even(model).map((one, part) => ({
    ...one,
    share: ['Y4', 'Y6'].includes(circuit.parts[part]!.ref) ? 0.3 : 0.01,
  }));
  const layout = layoutPath(model, lanes, lanes.lanes[0]!, { width: 1280, standings, asked: [] });
  expect(layout.branches.map(({ lane }) => lane.id)).toEqual(['Y4', 'Y6']);
  expect(layout.others.map(({ id }) => id)).toEqual(['Y1', 'Y2', 'Y3', 'Y5']);
});

/** Room, px, that a point's circle takes with its stroke. */
const CIRCLE = 34;

it.each(TEMPLATES)(
  'every lane of $id is drawn in order, its points and pieces clear of each other',
  ({ build }) => {
    const model = new CircuitModel(build());
    const lanes = findLanes(model);
    expect(lanes.lanes.length).toBeGreaterThan(0);
    for (const lane of lanes.lanes) {
      const layout = layoutPath(model, lanes, lane, { width: 1280, standings: even(model), asked: [] });
      layout.points.slice(1).forEach((point, at) => {
        expect(point.x - layout.points[at]!.x).toBeGreaterThan(CIRCLE);
        expect(point.label).not.toBe('');
      });
      // Up to a dozen parts stand on one screen.
      if (layout.runs.length <= 12) expect(layout.width).toBe(1280);
      layout.runs.forEach((run, at) => {
        expect(run.x2 - run.x1).toBeGreaterThan(CIRCLE);
        const next = layout.runs[at + 1];
        if (next) expect(next.x1).toBeGreaterThanOrEqual(run.x2);
      });
      // Lanes above the run keep clear of what is pinned over its points, and of each other.
      const top = Math.min(...layout.points.map(({ y }) => y));
      layout.branches.forEach(({ y }, at) => {
        expect(top - y).toBeGreaterThan(CIRCLE);
        if (at > 0) expect(y - layout.branches[at - 1]!.y).toBeGreaterThan(30);
      });
    }
  },
);
