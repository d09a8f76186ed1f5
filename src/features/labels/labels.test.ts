import { demoCircuit } from '@/testing/demoCircuits';
import { originOf } from './origin';
import { wireMarks } from './wireMarks';

describe('where codes lead', () => {
  it('is what the settings say, else the name the page was asked under', () => {
    expect(originOf('shed.local:3000', null, undefined)).toEqual({
      address: 'http://shed.local:3000',
      onlyHere: false,
    });
    expect(originOf('127.0.0.1:3000', null, undefined).onlyHere).toBe(true);
    expect(originOf('[::1]:3000', null, undefined).onlyHere).toBe(true);
    expect(originOf('127.0.0.1', null, 'https://shed.local/some/path')).toEqual({
      address: 'https://shed.local',
      onlyHere: false,
    });
    expect(originOf('shed.local', null, 'not an address').address).toBe('http://shed.local');
  });
  it('takes the word of a proxy for https only where there is one of one’s own', () => {
    expect(originOf('shed.local', 'https', undefined).address).toBe('http://shed.local');
    process.env.SPIRAXIS_PROXY = '1';
    expect(originOf('shed.local', 'https', undefined).address).toBe('https://shed.local');
    delete process.env.SPIRAXIS_PROXY;
  });
});

it('wires of several functions are marked once, both ends of each', () => {
  const tilt = demoCircuit('groomer-blade-tilt');
  const marks = wireMarks([tilt, demoCircuit('groomer-blade-float'), tilt]);
  expect(new Set(marks.map(({ ref }) => ref)).size).toBe(marks.length);
  expect(marks.find(({ ref }) => ref === 'W15')!.ends).toEqual(['X31:2', 'X8:1']);
  expect(marks.map(({ ref }) => ref)).toEqual(
    [...marks.map(({ ref }) => ref)].sort((a, b) => a.localeCompare(b, 'en', { numeric: true })),
  );
});
