/** The demonstration shed's machines on a simulated bus: frames as text over TCP on loopback. */
import { CODE_BOOKS } from '../demo/codeBooks';
import { hiddenEdits, JOBS, loadDemoCircuit, MACHINES, STANDING_CODES } from '../demo/shed';
import { SimulatedMachine } from '../src/devices/bus/simulatedMachine';
import { serveMachines, SIMULATOR_PORT } from '../src/devices/bus/simulator';

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

const server = serveMachines(machines);
server.on('error', (error) => {
  process.stderr.write(`spiraxis: the simulated bus could not start: ${error.message}\n`);
  process.exitCode = 1;
});
server.listen(port, '127.0.0.1', () =>
  process.stdout.write(`spiraxis: simulated bus on 127.0.0.1:${port}\n`),
);
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => process.exit(0));
