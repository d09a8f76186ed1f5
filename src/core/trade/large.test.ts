import { nodesOfTest, partOfTest } from '../circuit/testPlace';
import { emptyDrawing, layChains } from '../draw/layChain';
import { isComplaint } from '../diagnosis/proofs';
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

  it('is asked with the stop free: once whether another works, all else about that function in its own command', () => {
    const { next } = story.ask();
    expect(circuit.parts.length).toBeGreaterThan(140);
    const [others, ownOnes] = [
      next.filter(({ test }) => isComplaint(test) && partOfTest(test) !== 'Y8'),
      next.filter(({ test }) => !isComplaint(test) || partOfTest(test) === 'Y8'),
    ];
    expect(next[0]!.test.setup.controls).toMatchObject({ stop: 'free' });
    expect(new Set(others.map(({ test }) => test.kind)).size).toBe(others.length);
    expect(ownOnes[0]!.test.setup).toEqual(commanded);
    for (const place of [...nodesOfTest(ownOnes[0]!.test), partOfTest(ownOnes[0]!.test) ?? 'GND'])
      expect(place).toMatch(own);
  });

  it('is believed about what it was brought in for: the eleven others have next to no share of the doubt', () => {
    const doubted = story.ask().suspects.filter(({ part }) => !own.test(part));
    expect(doubted.reduce((sum, { share }) => sum + share, 0)).toBeLessThan(0.08);
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
