import { demoCircuit } from '@/testing/demoCircuits';
import { CircuitModel } from '@/core/circuit/model';
import type { Test } from '@/core/circuit/schema';
import { Diagnoser } from '@/core/diagnosis/diagnose';
import { testKey } from '@/core/diagnosis/observations';
import { findLanes } from '@/core/path/lanes';
import { layoutPath } from '@/core/path/layoutPath';
import { TEMPLATES } from '@/core/templates/templates';
import { evenStandings } from '@/core/path/evenStandings';
import { movedLeads, nextPoint } from './movedLeads';
import { chosenTest, NO_TEST, ownSetup, testToParams } from './testAddress';
import type { Speaker } from '@/words/en/readings';

const speakerOf = (model: CircuitModel): Speaker => ({
  model,
  lanes: findLanes(model),
  gaugeUnit: 'bar' as const,
});
const tilt = speakerOf(new CircuitModel(demoCircuit('groomer-blade-tilt')));

/** A test written into an address and read out of it again, with nothing of the program's own list at hand. */
function there(speaker: Speaker, test: Test): Test | null {
  const params = new URLSearchParams(
    Object.entries(testToParams(speaker, test)).flatMap(([key, value]) =>
      value === null ? [] : [[key, value] as [string, string]],
    ),
  );
  return chosenTest(params, speaker, []);
}
const read = (query: string) => chosenTest(new URLSearchParams(query), tilt, []);

describe('a test in the address of its page', () => {
  it.each(['two-way-pair', 'driver-high-side', 'three-wire-sensor', 'level-control'])(
    'is the same test after a reload: every one that %s offers',
    (id) => {
      const model = new CircuitModel(TEMPLATES.find((one) => one.id === id)!.build());
      const speaker = speakerOf(model);
      const offered = new Diagnoser(model.compiled.circuit).diagnose([], { most: 40 }).next;
      expect(offered.length).toBeGreaterThan(3);
      for (const { test } of offered) {
        if (test.kind === 'flow') continue;
        expect([test, testKey(there(speaker, test)!)]).toEqual([test, testKey(test)]);
      }
    },
  );

  it('is found among the program’s own, whatever kind it is', () => {
    const air = speakerOf(new CircuitModel(demoCircuit('compressor-gate')));
    const diagnoser = new Diagnoser(air.model.compiled.circuit);
    const next = diagnoser.diagnose([], { most: 40 }).next;
    for (const { test } of next) {
      const params = new URLSearchParams();
      for (const [key, value] of Object.entries(testToParams(air, test))) if (value) params.set(key, value);
      expect(testKey(chosenTest(params, air, next)!)).toBe(testKey(test));
    }
  });

  it.each([
    '',
    'mode=ohms',
    'mode=ohms&red=1',
    'mode=ohms&red=1&black=999',
    'mode=volts&red=x&black=2',
    'mode=shout&red=1&black=2',
    'mode=amps&red=Y99',
  ])('is none where the address says none: "%s"', (query) => {
    expect(read(query)).toBeNull();
  });

  it.each(['{', '"rest"', 'null', '{"controls":{"key":7}}', '{"pulled":["F99"]}', '{"nonsense":1}'])(
    'falls back to the machine at rest where its set-up is damaged: %s',
    (set) => {
      const test = read(`mode=volts&red=1&black=6&set=${encodeURIComponent(set)}`)!;
      expect([test.kind, test.setup ?? {}]).toEqual(['volts', {}]);
    },
  );

  it('takes a tester’s volts from the circuit', () => {
    expect(read('mode=insulation&red=1&black=6')).toMatchObject({ testVolts: 250 });
    expect(Object.values(NO_TEST)).toEqual([null, null, null, null]);
  });

  it('of one’s own is powered as the lane works, or dead with the same controls', () => {
    const lane = { controls: { key: 'on', tilt: 'right' } };
    expect(ownSetup(tilt.model, 'volts', lane)).toEqual(lane);
    expect(ownSetup(tilt.model, 'ohms', lane)).toEqual({ ...lane, pulled: ['F7'] });
  });
});

describe('moving a lead', () => {
  const lane = tilt.lanes.lanes[1]!;
  const layout = layoutPath(tilt.model, tilt.lanes, lane, {
    width: 1280,
    standings: evenStandings(tilt.model.compiled.parts.length),
    asked: [],
  });
  const nodes = layout.points.map(({ node }) => node);
  const [first, second, last] = [nodes[0]!, nodes[1]!, nodes.at(-1)!];

  it('takes the nearer one to a point, or the one that is asked for', () => {
    const leads = { plus: first, minus: last };
    expect(movedLeads(layout, leads, second)).toEqual({ plus: second, minus: last });
    expect(movedLeads(layout, leads, nodes.at(-2)!)).toEqual({ plus: first, minus: nodes.at(-2) });
    expect(movedLeads(layout, leads, second, 'minus')).toEqual({ plus: first, minus: second });
  });

  it('never puts both on one point', () => {
    expect(movedLeads(layout, { plus: first, minus: second }, second, 'plus')).toBeNull();
  });

  it('walks the path point by point and stops at its ends', () => {
    expect(nextPoint(layout, first, 1)).toBe(second);
    expect(nextPoint(layout, first, -1)).toBe(first);
    expect(nextPoint(layout, last, 1)).toBe(last);
    // From a point of another lane the walk begins at the supply.
    expect(nextPoint(layout, 9999, 1)).toBe(second);
  });
});
