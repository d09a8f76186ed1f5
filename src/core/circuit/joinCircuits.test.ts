import { readFileSync } from 'node:fs';
import { Diagnoser } from '../diagnosis/diagnose';
import { joinCircuits, sharedParts } from './joinCircuits';
import { parseCircuit } from './parse';
import type { Reading } from './schema';

const demo = (name: string) =>
  parseCircuit(JSON.parse(readFileSync(`demo/circuits/${name}.circuit.json`, 'utf8')));
const [tilt, float] = [demo('groomer-blade-tilt'), demo('groomer-blade-float')];

describe('functions that share parts', () => {
  it('share what is the same part, and stand together as one circuit', () => {
    expect(sharedParts(tilt, float)).toEqual(['G1', 'F7', 'S1', 'W12', 'W18']);
    const joined = joinCircuits(tilt, float)!;
    expect(joined.parts).toHaveLength(tilt.parts.length + float.parts.length - 5);
    expect(joined.controls).toEqual({ ...tilt.controls, ...float.controls });
  });

  it('do not stand together when a name means two things', () => {
    const other = structuredClone(float);
    const fuse = other.parts.find(({ ref }) => ref === 'F7')!;
    if (fuse.kind === 'fuse') fuse.amps = 20;
    expect(sharedParts(tilt, other)).not.toContain('F7');
    expect(joinCircuits(tilt, other)).toBeNull();
    expect(joinCircuits(tilt, { ...float, frame: 'PE' })).toBeNull();
    expect(joinCircuits(tilt, { ...float, controls: { ...float.controls, key: ['out', 'in'] } })).toBeNull();
    expect(joinCircuits(tilt, demo('pump-fill-valve'))).toBeNull();
  });

  it('a function that works clears what a dead one shares with it', () => {
    const joined = joinCircuits(tilt, float)!;
    const dead = (part: string, position: string): Reading => ({
      kind: 'function',
      part,
      setup: { controls: { key: 'on', tilt: position } },
      value: 'dead',
    });
    const both = [dead('Y7', 'left'), dead('Y8', 'right')];
    const works: Reading = {
      kind: 'function',
      part: 'Y9',
      setup: { controls: { key: 'on', 'blade float': 'on' } },
      value: 'works',
    };
    const diagnoser = new Diagnoser(joined);
    const doubt = (readings: Reading[]) =>
      diagnoser
        .diagnose(readings)
        .suspects.filter(({ part }) => sharedParts(tilt, float).includes(part))
        .reduce((sum, { share }) => sum + share, 0);
    expect(doubt(both)).toBeGreaterThan(0.6);
    expect(doubt([...both, works])).toBeLessThan(0.2);
  });
});
