import type { AddressInfo } from 'node:net';
import { LiveCodes } from '@/core/codes/liveCodes';
import { CircuitModel } from '@/core/circuit/model';
import { codedDrivers } from '@/core/diagnosis/codeEvidence';
import { faultByName, listFaults } from '@/core/diagnosis/faults';
import { driverHighSide } from '@/core/templates/electrical';
import { SimulatedMachine } from './simulatedMachine';
import { questionFrame } from '@/core/codes/requests';
import { frameLine, serveMachines } from './simulator';
import { simulatorAdapter } from './simulatorAdapter';

const circuit = driverHighSide();
const model = new CircuitModel(circuit);
const [driver] = codedDrivers(model);
const coil = circuit.parts.find((part) => part.kind === 'coil')!;
/** The coil's own plug off, everything else as commanded. */
const unplugged = { ...driver!.setup, unplugged: ['X1'] };
const NAME = 'Float';

function machineWith(part: string, fault: string, ohms?: number, standing: [number, number][] = []) {
  const found = faultByName(listFaults(model), part, fault, ohms);
  const edits = found.fault.variants[0]!.edits(found.severity);
  const components = new Map([[driver!.part, 520214]]);
  return new SimulatedMachine([{ name: NAME, circuit, edits, components }], 0x21, standing);
}

describe('a simulated machine', () => {
  it('changes its code from too much current to too little when the shorted coil is unplugged', () => {
    const machine = machineWith(coil.ref, 'shortedTurns', 3);
    expect(machine.codes).toEqual([[520214, 6]]);
    machine.handle(NAME, unplugged);
    expect(machine.codes).toEqual([[520214, 5]]);
    machine.handle(NAME, { controls: {} });
    expect(machine.codes).toEqual([]);
  });
  it('keeps the code when the short is before the plug', () => {
    const machine = machineWith('W2', 'shortToFrame', 0.5);
    expect(machine.codes).toEqual([[520214, 6]]);
    machine.handle(NAME, unplugged);
    expect(machine.codes).toEqual([[520214, 6]]);
  });
  it('tells what was there before to whoever asks, by the question that the standard has for it', () => {
    const [id, data] = questionFrame('earlier');
    // F07c: to everybody, from an off-board tool.
    expect([id.toString(16), data]).toEqual(['18eafff9', [0xcb, 0xfe, 0x00]]);
    const machine = machineWith(coil.ref, 'shortedTurns', 3);
    const told = () => {
      const live = new LiveCodes();
      expect(live.state().earlier).toBeNull();
      for (const [at, frame] of machine.answerFrames('earlier').entries())
        live.line(frameLine(1 + at * 0.05, ...frame));
      return live
        .state()
        .earlier!.map(({ component, failureMode, active }) => [component, failureMode, active]);
    };
    expect(told()).toEqual([]);
    machine.handle(NAME, unplugged);
    expect(told()).toEqual([[520214, 6, false]]);
    machine.handle(NAME, { controls: {} });
    // Two codes do not fit into one frame.
    expect(told()).toEqual([
      [520214, 6, false],
      [520214, 5, false],
    ]);
  });
  it('refuses what the machine cannot be put into, and stays as it was', () => {
    const machine = machineWith(coil.ref, 'open');
    expect(() => machine.handle(NAME, { unplugged: ['X99'] })).toThrow(/X99/);
    expect(() => machine.handle('Winch', {})).toThrow(/Winch/);
    expect(machine.codes).toEqual([[520214, 5]]);
  });
});

describe('the bus over a socket', () => {
  it('is heard, handled, lost and found again', async () => {
    const machines = new Map([['G-1', machineWith(coil.ref, 'shortedTurns', 3, [[520330, 31]])]]);
    let server = serveMachines(machines);
    const port = await new Promise<number>((resolve) =>
      server.listen(0, '127.0.0.1', () => resolve((server.address() as AddressInfo).port)),
    );
    const live = new LiveCodes();
    const events: string[] = [];
    const adapter = simulatorAdapter({ port });
    const link = adapter.open('G-1', {
      onUp: () => events.push('up'),
      onLine: (line) => live.line(line),
      onLost: (reason) => events.push(`lost: ${reason}`),
    });
    const shown = () => live.state().codes.map(({ component, failureMode }) => `${component}-${failureMode}`);
    const until = async (check: () => boolean) => {
      for (let waited = 0; waited < 100 && !check(); waited++)
        await new Promise((resolve) => setTimeout(resolve, 50));
      expect(check()).toBe(true);
    };
    try {
      await until(() => shown().join() === '520214-6,520330-31');
      await adapter.handle!('G-1', NAME, unplugged);
      await until(() => shown().includes('520214-5'));
      expect(live.state().bad).toBe(0);
      expect(await adapter.standing!('G-1')).toEqual({ [NAME]: unplugged });
      await expect(adapter.handle!('G-1', NAME, { unplugged: ['X99'] })).rejects.toThrow(/X99/);
      await expect(adapter.handle!('Q-9', NAME, {})).rejects.toThrow(/no machine "Q-9"/);
      // The bus goes and comes back; nobody does anything.
      await adapter.handle!('G-1', NAME, driver!.setup);
      link.close();
      await new Promise((resolve) => server.close(resolve));
      const again = adapter.open('G-1', {
        onUp: () => events.push('up again'),
        onLine: (line) => live.line(line),
        onLost: () => events.push('still lost'),
      });
      await until(() => events.includes('still lost'));
      server = serveMachines(machines);
      await new Promise<void>((resolve) => server.listen(port, '127.0.0.1', resolve));
      await until(() => events.includes('up again') && shown().includes('520214-6'));
      again.close();
    } finally {
      link.close();
      await new Promise((resolve) => server.close(resolve));
    }
    expect(events[0]).toBe('up');
  });
});
