import { nodesOfTest, partOfTest } from '../circuit/testPlace';
import { emptyDrawing, layChains } from '../draw/layChain';
import type { Reading } from '../circuit/schema';
import { at, Story, works } from './story';

const NAMES = [
  'lift',
  'tilt',
  'swing',
  'grip',
  'turn',
  'fold',
  'slew',
  'dump',
  'lock',
  'pump',
  'fan',
  'horn',
];

/** A large machine: twelve functions behind one stop, some 150 parts. */
function twelveFunctions() {
  const trunk = 'battery 24, fuse F1 30, wire W1, stop switch S0, wire W2';
  const branches = NAMES.map((name, k) => {
    const n = k + 1;
    const out = `after W2, ${name} switch S${n}, wire W${n}1, wire W${n}2, plug X${n}0, wire W${n}3, plug X${n}`;
    return `${out}, coil Y${n} 24, plug X${n}, wire W${n}4, plug X${n}0, wire W${n}5, wire W${n}6, ground`;
  });
  return layChains(emptyDrawing('Twelve functions'), [trunk, ...branches].join('\n')).circuit;
}

describe('a large machine with one function dead', () => {
  const circuit = twelveFunctions();
  const commanded = at(
    Object.fromEntries(
      Object.entries(circuit.controls).map(([control, positions]) => [
        control,
        positions[control === 'dump' ? 1 : 0]!,
      ]),
    ),
  );
  const story = new Story(circuit, ['X8.1', 'open']).say({
    ...works('Y8', commanded),
    value: 'dead',
  } as Reading);
  const own = /^(B\+|F1|W1|S0|W2|S8|W8\d|X80?|Y8|GND)\b/;

  it('is asked about that function, in its own command, with the stop free', () => {
    const { first, next } = story.ask();
    expect(circuit.parts.length).toBeGreaterThan(140);
    expect(first.test.setup).toEqual(commanded);
    for (const place of [...nodesOfTest(first.test), partOfTest(first.test) ?? 'GND'])
      expect(place).toMatch(own);
    // Of the eleven others, that any works is asked once and not eleven times.
    expect(next.filter(({ test }) => test.kind === 'click' && test.part !== 'Y8').length).toBeLessThanOrEqual(
      1,
    );
  });

  it('is followed to its end without leaving that function', () => {
    const { named } = story.follow(8);
    expect(named).toBe('X8.1');
    for (const reading of story.readings)
      if (reading.kind !== 'click' && reading.kind !== 'function')
        for (const place of [...nodesOfTest(reading), partOfTest(reading) ?? 'GND'])
          expect(place).toMatch(own);
    expect(story.readings.length).toBeLessThanOrEqual(7);
  });
});
