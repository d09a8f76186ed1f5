import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { parseCircuit } from '../circuit/parse';
import { at, ohms, Story, works } from './story';

const tiller = parseCircuit(
  JSON.parse(readFileSync(join('demo', 'circuits', 'groomer-tiller-float.circuit.json'), 'utf8')),
);
const ON = at({ key: 'on', float: 'on' });
const OFF_PLUG = { ...ON, unplugged: ['X31'] };
const DEAD = { pulled: ['F12'], unplugged: ['X31'] };

/** A controller says that its output takes too much; nothing has been opened yet. */
const overCurrent = (part: string, fault: string) =>
  new Story(tiller, [part, fault]).take(works('Y14', ON), { kind: 'code', part: 'DM2', setup: ON });

describe('W2, an over-current code of an output that limits itself', () => {
  it('the plug comes off first: nobody reads hundredths of a volt at an output that has shut off', () => {
    const told = overCurrent('V14', 'short').ask();
    expect(told.first.test).toMatchObject({ kind: 'code', part: 'DM2', setup: OFF_PLUG });
  });

  it('the code that stays with the plug off leads to the loom before it', () => {
    const told = overCurrent('W114', 'shortToFrame')
      .take({ kind: 'code', part: 'DM2', setup: OFF_PLUG })
      .ask();
    expect(told.share('W114')).toBeGreaterThan(0.8);
    expect(told.share('V14') + told.share('Y14')).toBeLessThan(0.05);
  });

  it('an answer that is within a hundredth of an ohm of two parts falls to the likelier, not to a border between them', () => {
    const told = overCurrent('V14', 'short').take({ kind: 'code', part: 'DM2', setup: OFF_PLUG }).ask();
    const { outcomes } = told.offered(ohms('Y14:1', 'GND', DEAD))!;
    const limits = outcomes.flatMap(({ high }) =>
      high !== undefined && Number.isFinite(high) ? [high] : [],
    );
    expect(Math.min(...limits)).toBeGreaterThan(0.2);
    expect(outcomes.reduce((sum, { share }) => sum + share, 0)).toBeCloseTo(1, 6);
    for (const { reading, low = -Infinity, high = Infinity } of outcomes) {
      if (typeof reading !== 'number') continue;
      expect(reading).toBeGreaterThanOrEqual(low);
      expect(reading).toBeLessThan(high);
    }
  });

  it('what has the meter’s volts across it is part of a reading, a dead end of the loom is not', () => {
    const told = overCurrent('V14', 'short').take({ kind: 'code', part: 'DM2', setup: OFF_PLUG }).ask();
    const { across } = told.offered(ohms('Y14:1', 'GND', DEAD))!;
    expect(across).toEqual(expect.arrayContaining(['Y14', 'V14']));
    expect(across).not.toContain('X31.2');
    const whole = told.offered(
      ohms('Y14:2', 'GND', { controls: { key: 'off', float: 'off' }, pulled: ['F12'] }),
    );
    expect(whole?.across ?? []).not.toContain('X31.2');
  });

  it('what is read across the coil and its suppressor together names neither; apart, it does', () => {
    const story = overCurrent('V14', 'short').take(
      { kind: 'code', part: 'DM2', setup: OFF_PLUG },
      ohms('Y14:1', 'GND', DEAD),
      ohms('Y14:1', 'Y14:2', DEAD),
    );
    const together = story.ask({ setup: DEAD, locked: ['G1'] });
    expect(together.named).toBeNull();
    expect(together.first.test.setup.lifted).toHaveLength(1);
    expect(['V14', 'Y14']).toContain(together.first.test.setup.lifted![0]!.part);
    expect(story.follow().named).toBe('V14');
  });

  it('a winding gone to nothing is told from its suppressor in the same way', () => {
    const told = overCurrent('Y14', 'shortToFrame').follow();
    expect(told.named).toBe('Y14');
    expect(told.verdict.state === 'name' && told.verdict.proofs.onPart).toBe(true);
  });

  it('no clamp is asked for round a coil whose plug holds its suppressor as well', () => {
    const told = overCurrent('V14', 'short').ask({ most: 400 });
    const clamped = told.next.flatMap(({ test }) => (test.kind === 'amps' ? [test.through] : []));
    expect(clamped).not.toContain('Y14');
    expect(clamped).not.toContain('V14');
  });
});
