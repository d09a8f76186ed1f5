/** The demonstration shed's machines on a simulated bus: frames as text over TCP on loopback. */
import { CODE_BOOKS } from '../demo/codeBooks';
import { hiddenEdits, JOBS, loadDemoCircuit, MACHINES, STANDING_CODES } from '../demo/shed';
import { SimulatedMachine } from '../src/devices/bus/simulatedMachine';
import { serveMachines, SIMULATOR_PORT } from '../src/devices/bus/simulator';
import { standIn } from './lib/standIn';

const CONTROLLER = 0x21;
const port = Number(process.env.SPIRAXIS_BUS_PORT ?? SIMULATOR_PORT);

const machines = new Map(
  MACHINES.map(({ code, functions }) => {
    const book = CODE_BOOKS[code] ?? [];
    const simulated = functions.map(({ name, circuit: file }) => {
      const circuit = loadDemoCircuit(file);
      const job = JOBS.find((one) => one.machine === code && one.function === name);
      const components = new Map(
        book
          .filter((row) => row.system === 'J1939' && row.function === name && row.part !== '')
          .map((row) => [row.part, Number(row.code)]),
      );
      return { name, circuit, edits: job ? hiddenEdits(circuit, job.hidden) : [], components };
    });
    return [code, new SimulatedMachine(simulated, CONTROLLER, STANDING_CODES[code])];
  }),
);

standIn('simulated bus', serveMachines(machines), port);
