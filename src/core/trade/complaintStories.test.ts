import type { Circuit, Reading } from '../circuit/schema';
import { parseCircuit } from '../circuit/parse';
import { emptyDrawing, layChains } from '../draw/layChain';
import {
  changeOverRelay,
  clutchInterlocks,
  driverHighSide,
  heaterSelector,
  multiOutput,
  singleCoil,
  twoWayPair,
} from '../templates/electrical';
import { airClamp, airSwitch, gateValve } from '../templates/fluid';
import { contactorTwoSupplies, gasBypass } from '../templates/line';
import { at, holds, moves, ohms, Story, volts, works } from './story';

/** Stories of what people say, and of what must come of it. Each breaks a rule that was broken once. */

describe('complaints', () => {
  it('what was said twice and stays unexplained holds a name back', () => {
    const RUN = at({ key: 'on' });
    const told = new Story(singleCoil(), ['W3', 'open'])
      .take(volts('X1.2:2', 'GND', RUN), volts('Y1:2', 'GND', RUN), volts('X1.1:2', 'GND', RUN))
      .say(
        { ...works('Y1', RUN), value: 'works' } as Reading,
        { ...works('Y1', RUN), value: 'works' } as Reading,
      )
      .ask();
    expect(told.named).toBeNull();
  });

  it('asked again and answered otherwise, the first answer no longer holds the name back', () => {
    const RUN = at({ key: 'on' });
    const said = (value: string) => ({ ...works('Y1', RUN), value }) as Reading;
    const isolated = { pulled: ['F1'], unplugged: ['X1'] };
    const told = (...answers: Reading[]) =>
      new Story(singleCoil(), ['Y1', 'open'])
        .say(...answers)
        .take(
          volts('X1.1:2', 'GND', RUN),
          volts('Y1:2', 'GND', RUN),
          volts('X1.1:2', 'Y1:2', RUN),
          ohms('X1.1:2', 'Y1:2', isolated),
        )
        .ask();
    expect(told(said('dead')).named).toBe('Y1');
    expect(told(said('works')).named).toBeNull();
    expect(told(said('works'), said('dead')).named).toBe('Y1');
  });

  it('a command that was run already is charged no second fuse', () => {
    const HIGH = at({ selector: 'high' });
    const story = new Story(heaterSelector()).say({ ...works('E2', HIGH), value: 'dead' } as Reading);
    const told = story.ask();
    const again = told.next.find(
      ({ test }) => test.kind === 'volts' && JSON.stringify(test.setup) === JSON.stringify(HIGH),
    )!;
    expect(again.minutes).toBeLessThan(4);
  });

  it('works when warm speaks for moisture and a sticky spool; a pause for a film', () => {
    const story = () =>
      new Story(gateValve()).say({ ...works('C1', at({ lever: 'open' })), value: 'dead' } as Reading);
    const warm = story().ask({ signs: { when: ['betterWarm'], looks: [] } });
    expect(warm.suspect('Q1', 'stuckAtRest')).toBeGreaterThan(story().ask().suspect('Q1', 'stuckAtRest'));
    const pause = story().ask({ signs: { when: ['afterPause'], looks: [] } });
    expect(pause.suspect('S14', 'highResistance')).toBeGreaterThan(
      story().ask().suspect('S14', 'highResistance'),
    );
  });

  it('guards are asked in the position in which they should conduct', () => {
    const ALL = at({ clutch: 'on', seat: 'down', brake: 'pressed' });
    const told = new Story(clutchInterlocks(), ['S2', 'stuckOpen']).take(works('Y1', ALL)).follow();
    expect(told.named).toBe('S2');
  });
});

describe.each<[string, Circuit, readonly [string, string, number?], ReturnType<typeof works>[]]>([
  [
    'W1, the control transformer is open',
    contactorTwoSupplies(),
    ['T1', 'open'],
    [works('M1', at({ thermostat: 'calling' }))],
  ],
  [
    'W5, the return wire is off, and the coil is good',
    gasBypass(),
    ['W3', 'open'],
    [works('Y1', at({ output: 'on' }))],
  ],
  [
    'W6, a pin of the valve’s plug is bent',
    airClamp(),
    ['X1.1', 'open'],
    [works('C1', at({ bit: '1' })), moves('C1', at({ bit: '1' }))],
  ],
  [
    'W9, the wire between controller and coil is broken',
    driverHighSide(),
    ['W2', 'open'],
    [works('Y1', at({ command: 'on' }))],
  ],
  [
    'W10, one output does not close',
    multiOutput(),
    ['Q2', 'stuckOpen'],
    [1, 2, 3].map((n) => works(`Y${n}`, at({ program: `zone ${n}` }))),
  ],
  [
    'W13, the hose leaks and the switch is good',
    airSwitch(),
    ['H1', 'leaking', 0.1],
    [works('Y1', at({ air: 'on' }))],
  ],
  [
    'W14, a wire rubs on the frame, and both coils are good',
    twoWayPair(),
    ['W21', 'shortToFrame', 0.05],
    [
      works('Y1', at({ lever: 'forward' })),
      holds('F1', at({ lever: 'forward' })),
      holds('F1', at({ lever: 'reverse' })),
    ],
  ],
  [
    'W15, the relay’s coil is open',
    changeOverRelay(),
    ['K1', 'open'],
    [works('H1', at({ switch: 'on' })), works('H2', at({ switch: 'off' }))],
  ],
])('%s', (_title, circuit, fault, complaint) => {
  const told = new Story(circuit, fault).take(...complaint).follow(14);

  it('leads to the right part', () => {
    expect(told.suspects[0]!.part).toBe(fault[0]);
  });

  it('condemns no good one', () => {
    expect([null, fault[0]]).toContain(told.named);
  });
});

describe('a part whose two faults look alike', () => {
  it('is proved by a reading that fits either: a winding gone to nothing, or down to the frame', () => {
    const circuit = layChains(
      emptyDrawing('Shared return'),
      [
        'battery 24.8, fuse F1 10, key switch S0, wire W1',
        'after W1, b1=on switch S1, relay K1 90, @R',
        '@B+, fuse F2 40, K1, motor M1 1.2, ground',
        'after W1, b2=on switch S2, lamp H2 25, @R',
        'after W1, lever=up switch S3, guard=shut switch S4, coil Y3 24, @R',
        '@R, plug X9, wire W2, ground',
      ].join('; '),
    ).circuit;
    const both = (more: Record<string, string>) => at({ key: 'on', lever: 'up', guard: 'shut', ...more });
    const told = new Story(parseCircuit(circuit), ['Y3', 'shortedTurns', 0.3])
      .take(
        works('Y3', both({})),
        ...([{ b2: 'on' }, { b1: 'on', b2: 'on' }] as Record<string, string>[]).flatMap((on) => [
          works('H2', at({ key: 'on', ...on })),
          works('H2', both(on)),
          works('Y3', both(on)),
        ]),
        works('M1', at({ key: 'on', b1: 'on' })),
        works('M1', both({ b1: 'on' })),
      )
      .follow(14);
    expect(told.named).toBe('Y3');
  });
});
