import fc from 'fast-check';
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { CircuitModel } from '../circuit/model';
import { parseCircuit } from '../circuit/parse';
import type { Reading } from '../circuit/schema';
import { Diagnoser } from '../diagnosis/diagnose';
import { findLanes } from './lanes';
import { chooseLane, layoutPath } from './layoutPath';
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
    expect(chooseLane(lanes, asked, even(model))!.id).toBe('Y8');
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
    expect(standingOf([left, dead, ohms], 'Y8').state).toBe('held');
    expect(standingOf([left, dead], 'X8.1').state).toBe('doubt');
  });
});
