import { demoCircuit } from '@/testing/demoCircuits';
import { drawnEnds, endsOn, STAYS_OPEN } from './drawnEnds';

const decided = (part: string) => ({ part, action: 'replace' }) as unknown as Parameters<typeof endsOn>[1];

describe('what comes off a part', () => {
  it('of a valve its hoses by port, and the port whose filter must stay open', () => {
    const flap = demoCircuit('heater-flap');
    expect(drawnEnds(flap, 'Q1')).toEqual([
      { terminal: '1', mark: 'H1', colour: '', to: 'V0' },
      { terminal: '2', mark: 'H2', colour: '', to: 'V4' },
      { terminal: '3', mark: 'Z1', colour: '', to: STAYS_OPEN },
    ]);
    expect(drawnEnds(flap, 'U1')).toEqual([{ terminal: 'port', mark: 'H2', colour: '', to: 'V2' }]);
  });

  it('of a contactor its wires with their marks, through a plug where one is between', () => {
    const winch = drawnEnds(demoCircuit('winch-reversing'), 'K1');
    expect(winch.length).toBeGreaterThan(3);
    const coil = drawnEnds(demoCircuit('groomer-blade-tilt'), 'Y7');
    expect(coil.map(({ mark }) => mark)).toEqual(['W14', 'W16']);
  });

  it('goes on the map first where something ends on what is worked on', () => {
    expect(endsOn(demoCircuit('heater-flap'), decided('Q1'))).toEqual({ part: 'Q1', lines: 'hoses' });
    expect(endsOn(demoCircuit('heater-flap'), decided('H2'))).toBeNull();
    expect(endsOn(demoCircuit('winch-reversing'), decided('K1'))).toEqual({ part: 'K1', lines: 'wires' });
    // A coil behind its plug comes off with the plug.
    expect(endsOn(demoCircuit('groomer-blade-tilt'), decided('Y7'))).toBeNull();
    expect(endsOn(demoCircuit('heater-flap'), undefined)).toBeNull();
  });
});
